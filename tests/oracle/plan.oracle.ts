/**
 * Whole plans in the emulator: a machine goes through one operation by operation, and after each start what booted is what
 * the bench of that moment tells. Drives are cleared, kept beside, written in an adapter, and reached through a chain loader;
 * a system that was there before is left, and overtaken. One shape in every run, all in `npm run proof plan`.
 */
import { statSync } from 'node:fs';
import { planOf, walkPlan } from '@zb/core/box/plan';
import { isOpen, type RunStep } from '@zb/core/box/runSheet';
import { laidBox } from '@zb/core/layout/forBox';
import { isWrittenStraight } from '@zb/core/layout/systemDrive';
import { sfdiskScript } from '@zb/core/layout/write/sfdisk';
import {
  findMachine,
  findProfile,
  storesOf,
  type Bench,
  type Box,
  type ImageItem,
} from '@zb/core/model/bench';
import type { Effect } from '@zb/core/plan/effect';
import { bootLadder, nextStart, type BootLadder } from '@zb/core/starting/ladder';
import { planFixtures } from '../../packages/core/test/planFixtures';
import { inspectFile, run, scratch, type Scratch } from './files';
import {
  chainStick,
  installerStick,
  ownImage,
  PlanMachine,
  said,
  type Medium,
  type Spoke,
} from './planMachine';

jest.setTimeout(1_800_000);
const ALL = process.env.ZB_PLAN === 'all';
const SHAPES = [
  'written in an adapter',
  'written in place by the system that runs now, and put first',
  'wipe the only drive',
  'beside what stays',
  'a chain loader',
  'beside another system, put first',
  'another system boots, and nobody has said otherwise',
] as const;
const chosen = ALL ? SHAPES : SHAPES.slice(0, 1);

/** The fixture with the image that its stick or its drive is written with, read from its bytes. */
async function withImage(bench: Bench, box: Box, path: string): Promise<{ bench: Bench; box: Box }> {
  const image: ImageItem = {
    kind: 'image',
    id: 'image',
    name: 'small-system.img',
    bytes: statSync(path).size,
    digests: {},
    inspection: await inspectFile(path),
    comparison: null,
    depotFile: null,
    notes: '',
    trials: [],
  };
  const of: Box = { ...box, imageId: image.id };
  return { bench: { ...bench, items: [...bench.items, image], boxes: [of] }, box: of };
}

/** What the bench tells of the next start, in the words of the serial line. */
function told({ result, decides }: BootLadder): Spoke {
  if (result === 'cannot say') throw new Error(`The bench cannot tell: ${JSON.stringify(decides)}`);
  if (result === 'the stick starts') return 'installer';
  if (result === 'the new system starts') return 'own';
  return result === 'something else starts' ? 'old' : null;
}

/** Sectors of the partitions, as sfdisk has them in a file. */
const starts = (path: string): number[] =>
  (
    JSON.parse(run('sfdisk', ['-J', path])) as { partitiontable: { partitions: { start: number }[] } }
  ).partitiontable.partitions.map((p) => p.start);

class Evening {
  readonly seen: { at: string; booted: Spoke; told: Spoke }[] = [];
  readonly machine: PlanMachine;
  private readonly bench: Bench;
  private readonly box: Box;
  private readonly room: Scratch;
  private readonly image: string;

  private constructor(room: Scratch, image: string, { bench, box }: { bench: Bench; box: Box }) {
    this.room = room;
    this.image = image;
    this.bench = bench;
    this.box = box;
    const media = storesOf(bench).map((s): Medium => ({
      id: s.id,
      bytes: s.kind === 'stick' ? 128 * 1024 ** 2 : s.bytes,
      serial: s.serial ?? '',
      bus: s.kind === 'stick' ? 'usb' : s.transport === 'nvme' ? 'raid' : 'sata',
    }));
    const inside = storesOf(bench).filter((s) => s.in === 'desk');
    this.machine = new PlanMachine(
      room,
      media,
      inside.map((s) => s.id),
    );
    for (const s of inside) {
      const parts = s.content?.parts ?? [];
      const [esp] = parts;
      if (!esp) continue;
      const lines = parts.map(
        (p) => `start=${(p.start ?? 0) / 512}, size=${(p.bytes ?? 0) / 512}, type=${p.type}`,
      );
      this.machine.holdsOld(s.id, `label: gpt\n${lines.join('\n')}\n`, esp.bytes ?? 0);
    }
  }

  static async of(room: Scratch, bench: Bench, box: Box): Promise<Evening> {
    const profile = findProfile(bench, box.profileId);
    const laid = laidBox(bench, box);
    if (!profile) throw new Error('no system');
    const straight = isWrittenStraight(bench, box);
    const stays = (laid.plan?.want.kept.length ?? 0) > 0;
    const table = laid.sheet && !stays ? sfdiskScript(laid.sheet.layout) : null;
    if (table !== null && typeof table !== 'string') throw new Error('no table');
    const image = straight
      ? ownImage(room)
      : installerStick(room, {
          serial: laid.drive?.serial ?? '',
          table,
          // An entry for a drive that this firmware does not see leads nowhere; nobody makes one.
          entry: box.chain ? 'none' : profile.manner.entry,
          name: profile.name,
        });
    return new Evening(room, image, await withImage(bench, box, image));
  }

  private async apply(effect: Effect): Promise<void> {
    const { machine } = this;
    switch (effect.code) {
      case 'move':
      case 'move back':
        return machine.plug(effect.item, effect.to === 'desk');
      case 'write image':
        return machine.write(effect.medium, this.image);
      case 'make chain loader': {
        const target = laidBox(this.bench, this.box).drive?.serial ?? '';
        return machine.write(effect.medium, chainStick(this.room, target));
      }
      case 'install':
        return void (await this.compare('the installer', 'installer', () => machine.install('stick')));
      case 'boot first':
        return machine.putFirst(effect.medium);
      default:
        throw new Error(`This proof does not know how ${effect.code} is done.`);
    }
  }

  private async compare(at: string, tells: Spoke, start: () => Promise<Spoke>): Promise<void> {
    this.seen.push({ at, booted: await start(), told: tells });
  }

  private async boots(at: string, bench: Bench, box: Box): Promise<void> {
    const desk = findMachine(bench, 'desk');
    if (!desk) throw new Error('no machine');
    const tells = told(bootLadder(bench, box, desk, nextStart(bench, box, desk)));
    // What is chosen in the one-time menu is its stick; the installer is started where it installs.
    if (tells !== 'installer') await this.compare(at, tells, () => this.machine.start());
  }

  /** Does every open operation of the plan, and starts the machine whenever something about its drives has changed. */
  async go(): Promise<{ bench: Bench; box: Box }> {
    const { bench, box } = this;
    const plan = planOf(bench, box);
    const steps = plan.sheet.steps.filter(isOpen);
    const stickIn = (b: Bench): boolean => storesOf(b).some((s) => s.id === 'stick' && s.in === 'desk');
    let before: RunStep | null = null;
    let changed = true;
    for (const at of walkPlan(bench, box, plan.sheet)) {
      // With the installer's stick in, the next start is the one that is made for the install.
      if (changed && !stickIn(at.bench)) await this.boots(before?.key ?? 'as it is', at.bench, at.box);
      changed = (at.step?.effects.length ?? 0) > 0;
      for (const effect of at.step?.effects ?? []) await this.apply(effect);
      before = at.step;
    }
    // Once more, as after a power cut: nothing is chosen, and nothing is in that the plan took out.
    await this.boots('after a power cut', plan.end.bench, plan.end.box);
    expect(steps.length).toBeGreaterThan(5);
    return plan.end;
  }
}

test.each(chosen)('%s: after every start, what booted is what was told', async (name) => {
  const fixture = planFixtures.find((f) => f.name === name);
  if (!fixture) throw new Error(name);
  const room = scratch();
  try {
    const evening = await Evening.of(room, fixture.bench, fixture.box);
    const end = await evening.go();
    for (const { at, booted, told: tells } of evening.seen)
      expect({ at, booted }).toEqual({ at, booted: tells });
    expect(evening.seen.map((s) => s.booted)).toContain(fixture.lacks.length === 0 ? 'own' : 'old');
    expect(evening.seen.at(-1)?.booted).toBe(fixture.lacks.length === 0 ? 'own' : 'old');
    for (const s of storesOf(end.bench)) {
      const laid = s.content?.parts.flatMap((p) => (p.start === null ? [] : [p.start / 512])) ?? [];
      // Where the shelf says which partitions there are, they are there.
      if (s.installed && laid.length > 0) {
        const there = starts(evening.machine.file(s.id));
        expect(there).toEqual(expect.arrayContaining(laid.filter((start) => there.includes(start))));
        expect(there[0]).toBe(laid[0]);
      }
      // A system that was to stay still has its loader where it was.
      const was = storesOf(fixture.bench).find((o) => o.id === s.id);
      if (was?.content?.starts?.length && was.fate === 'keep')
        expect(evening.machine.fileOn(s.id, '/EFI/BOOT/BOOTX64.EFI')?.includes(said.old)).toBe(true);
    }
  } finally {
    room.clear();
  }
});
