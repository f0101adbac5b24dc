import { systemDriveOf } from '../layout/systemDrive';
import { firstStartOf, type FirstStart, type NoFirst } from '../firststart/forBox';
import { firmwareOf, secureBootOn } from '../machine/firmware';
import { knownFact } from '../model/known';
import {
  findImage,
  findMachine,
  findProfile,
  storesIn,
  type Bench,
  type Box,
  type ImageItem,
  type Machine,
  type Profile,
  type Store,
} from '../model/bench';
import type { FactKey, FactValue } from '../model/facts';
import { contentOf, type ImageReading } from '../model/inspection';
import { boxTally, type BoxTally } from '../rehearsal/boxTally';
import { startOn, type MachineStart } from '../starting/forMachine';
import { judge, type Judgement } from '../system/judge';
import { machineView } from '../system/view';
import { targetOf } from '../write/target';

/** A box with all that its stops look at, each looked up or judged once. */
export class Scene {
  readonly machine: Machine | undefined;
  readonly profile: Profile | undefined;
  readonly image: ImageItem | undefined;
  /** Drives, sticks and cards in the machine. */
  readonly inside: Store[];
  /** The stick, card or drive that is written to. */
  readonly target: Store | undefined;
  private judgement: Judgement | undefined;
  private tallied: BoxTally | null | undefined;
  private started: FirstStart | NoFirst | undefined;

  constructor(
    readonly bench: Bench,
    readonly box: Box,
  ) {
    this.machine = findMachine(bench, box.machineId);
    this.profile = findProfile(bench, box.profileId);
    this.image = findImage(bench, box.imageId);
    this.inside = this.machine ? storesIn(bench, this.machine.id) : [];
    this.target = targetOf(bench, box);
  }

  /** Machine and system judged together; undefined where one is not chosen. */
  get judged(): Judgement | undefined {
    const { machine, profile } = this;
    if (machine && profile)
      this.judgement ??= judge(
        machineView(this.bench, machine, undefined, this.box, systemDriveOf(this.bench, this.box)),
        profile,
        this.box,
      );
    return this.judgement;
  }

  /** How the plan goes in all its worlds; undefined where there is none to rehearse. */
  get rehearsed(): BoxTally | undefined {
    if (this.tallied === undefined) {
      const found = boxTally(this.bench, this.box);
      this.tallied = 'code' in found ? null : found;
    }
    return this.tallied ?? undefined;
  }

  /** The list of its first start, or why there is none. */
  get firstStart(): FirstStart | NoFirst {
    return (this.started ??= firstStartOf(this.bench, this.box));
  }

  fact(key: FactKey): FactValue | undefined {
    return this.machine && knownFact(this.machine, key)?.value;
  }

  get reading(): ImageReading | undefined {
    return this.image?.inspection ? contentOf(this.image.inspection) : undefined;
  }

  /** What the image does on this machine; undefined where machine, firmware or image are not known. */
  get start(): MachineStart | undefined {
    const { machine } = this;
    const firmware = machine && firmwareOf(machine);
    return firmware && startOn(this.reading, firmware, secureBootOn(machine));
  }

  signed(stop: Box['signoffs'][number]['stop']): boolean {
    return this.box.signoffs.some((s) => s.stop === stop);
  }
}
