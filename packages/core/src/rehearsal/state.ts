import type { DriveLook, Frame, FrameSaid } from './frames';
import { questionOf } from './question';
import { NEW, NOTHING, type Stage } from './stage';
import { Order, type Asker, type Taken } from './walk';

/** Everything that changes while a plan is carried out. */
export class State {
  /** By drive: what starts from it under each mode. */
  readonly uefi: Uint8Array;
  readonly bios: Uint8Array;
  readonly signed: boolean[];
  readonly looks: DriveLook[];
  /** The mode in which the installer runs. */
  mode: 'uefi' | 'bios' = 'uefi';
  /** The stick stands first in the order. */
  stickFirst: boolean;
  /** A drive that was put before all others after the installation. */
  first: number | null = null;
  /** What was taken out is in its place again. */
  private back = false;
  /** The order has forgotten what was unplugged. */
  forgets = false;
  private firmware: Order[] | null = null;

  constructor(
    readonly stage: Stage,
    readonly asker: Asker,
    readonly taken: Taken,
  ) {
    const { plan, offers } = stage;
    this.uefi = stage.uefi.slice();
    this.bios = stage.bios.slice();
    this.signed = stage.signed.slice();
    this.looks = stage.looks.slice();
    this.stickFirst =
      plan.kind === 'install' &&
      (plan.startBy === 'order' ? !taken.has(offers.menu) : taken.has(offers['stick first']));
  }

  /** Is the drive there now? */
  present(d: number): boolean {
    const { stage, taken } = this;
    if (taken.has(stage.away[d] ?? -1)) return false;
    if (this.back) return true;
    return !taken.has(stage.unplug[d] ?? -1) && !taken.has(stage.portOff[d] ?? -1);
  }

  /** Would what is lost on it matter? */
  matters(d: number): boolean {
    return this.stage.drives[d]?.matters === true && !this.taken.has(this.stage.copy[d] ?? -1);
  }

  startsOf(d: number, mode: 'uefi' | 'bios'): number {
    return (mode === 'uefi' ? this.uefi : this.bios)[d] ?? NOTHING;
  }

  erase(d: number, whole: boolean): void {
    this.looks[d] = whole ? 'erased' : 'written';
    if (!whole) return;
    this.uefi[d] = NOTHING;
    this.bios[d] = NOTHING;
  }

  /** The new system on the target starts from this drive. */
  install(d: number, target: number): void {
    (this.mode === 'uefi' ? this.uefi : this.bios)[d] = NEW;
    const { drives, installer, plan } = this.stage;
    // What BIOS starts is never asked for a signature, and what UEFI starts from there is what it was.
    if (this.mode === 'uefi') this.signed[d] = drives[installer]?.signed === true && !plan.installer.enrols;
    this.looks[target] = 'written';
    if (d !== target) this.looks[d] = 'altered';
  }

  /** The order of the firmware at a place, before anything was put first. */
  private base(place: number): number | undefined {
    const groups = this.stage.world.firmwareGroups;
    this.firmware ??= groups.map((g) => new Order(this.asker, g));
    let before = 0;
    for (const [i, group] of groups.entries()) {
      if (place < before + group.length) return this.firmware[i]?.at(place - before);
      before += group.length;
    }
    return undefined;
  }

  /** Drives as the firmware tries them now, none of them twice. */
  *order(): Generator<number> {
    const { installer, drives } = this.stage;
    const ahead = [...(this.first === null ? [] : [this.first]), ...(this.stickFirst ? [installer] : [])];
    yield* ahead.filter((d, i) => ahead.indexOf(d) === i);
    const behind: number[] = [];
    for (let i = 0; i < drives.length; i += 1) {
      const d = this.base(i);
      if (d === undefined || ahead.includes(d)) continue;
      if (this.isForgotten(d)) behind.push(d);
      else yield d;
    }
    yield* behind;
  }

  private isForgotten(d: number): boolean {
    return this.forgets && this.taken.has(this.stage.unplug[d] ?? -1);
  }

  /** What was taken out goes in again; sticks that were put away stay away. Answers what went in. */
  putBack(): number[] {
    const { stage, taken, asker } = this;
    const out = stage.drives.map((_, i) => i).filter((i) => taken.has(stage.unplug[i] ?? -1));
    const off = stage.drives.map((_, i) => i).filter((i) => taken.has(stage.portOff[i] ?? -1));
    this.back = true;
    this.forgets = out.length > 0 && asker.answer(questionOf.forgets) === 1;
    return [...new Set([...out, ...off])];
  }
}

/** Draws the frames of a run; draws nothing where nobody watches. */
export class Scenes {
  constructor(
    private readonly state: State,
    private readonly frames: Frame[] | null,
  ) {}

  add(said: FrameSaid): void {
    const { frames, state } = this;
    frames?.push({
      said,
      looks: state.stage.drives.map((d, i) => ({
        drive: d.id,
        look: state.looks[i] === 'there' && !state.present(i) ? 'away' : (state.looks[i] ?? 'there'),
      })),
    });
  }

  /** A look that lasts for one frame. */
  flash(drive: number, look: DriveLook, said: FrameSaid): void {
    if (!this.frames) return;
    const before = this.state.looks[drive] ?? 'there';
    this.state.looks[drive] = look;
    this.add(said);
    this.state.looks[drive] = before;
  }

  /** What is there at the beginning. */
  ready(): void {
    if (!this.frames) return;
    const { state } = this;
    this.add({
      code: 'ready',
      away: state.stage.drives.filter((_, i) => !state.present(i)).map((d) => d.id),
    });
  }
}
