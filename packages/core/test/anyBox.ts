/** Boxes of the demo changed by chance: another machine, system, drive, fates, facts and precautions. */
import fc from 'fast-check';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { boxPlan } from '@zb/core/rehearsal/forBox';
import { Stage } from '@zb/core/rehearsal/stage';
import type { Precaution } from '@zb/core/rehearsal/precautions';
import { findBox, isMachine, storesOf, type Bench, type Box } from '@zb/core/model/bench';
import { isStore } from '@zb/core/model/shelf';

const hall = saltmarshHall();
const boxIn = (bench: Bench, id: string): Box => findBox(bench, id) as Box;

/** A box of the demo with another machine, system, drive, fates and facts; and any of the precautions it is offered. */
export const anyAsk = fc.record({
  machine: fc.constantFrom(...hall.items.filter(isMachine).map((m) => m.id)),
  profile: fc.constantFrom(...hall.profiles.map((p) => p.id), null),
  target: fc.constantFrom(...storesOf(hall).map((s) => s.serial)),
  drive: fc.constantFrom(...storesOf(hall).map((s) => s.id), null),
  startBy: fc.constantFrom('menu' as const, 'order' as const),
  fates: fc.array(fc.constantFrom('keep' as const, 'may be lost' as const, 'not decided' as const), {
    minLength: 30,
    maxLength: 30,
  }),
  parts: fc.subarray(
    storesOf(hall).map((s) => s.id),
    { maxLength: 3 },
  ),
  secure: fc.constantFrom('on', 'off', null),
  order: fc.constantFrom(['usb', 'internal'], ['internal', 'usb'], null),
  picks: fc.array(fc.boolean(), { minLength: 40, maxLength: 40 }),
  every: fc.boolean(),
  base: fc.constantFrom(...hall.boxes.map((b) => b.id)),
});
type Ask = typeof anyAsk extends fc.Arbitrary<infer T> ? T : never;

/** The bench and the box that are asked for, and the precautions among those offered that are taken. */
export function made(r: Ask): { bench: Bench; box: Box; chosen: Precaution[] } {
  let n = 0;
  const items = hall.items.map((i) => {
    if (isStore(i)) return { ...i, fate: r.fates[n++ % 30] ?? i.fate };
    if (i.id !== r.machine || !isMachine(i)) return i;
    const fact = <V>(value: V) => ({ entered: { value, at: '2026-03-01T00:00:00.000Z' } });
    return {
      ...i,
      facts: {
        ...i.facts,
        ...(r.secure === null ? {} : { 'firmware.secureBoot': fact(r.secure) }),
        ...(r.order === null ? {} : { 'firmware.order': fact(r.order) }),
      } as typeof i.facts,
    };
  });
  const bare: Box = {
    ...boxIn(hall, r.base),
    machineId: r.machine,
    profileId: r.profile,
    releaseId: null,
    variantId: null,
    targetSerial: r.target,
    startBy: r.startBy,
    parts: r.parts,
    signoffs: [],
    layout:
      r.drive === null
        ? null
        : { ...(boxIn(hall, 'archive').layout as NonNullable<Box['layout']>), driveId: r.drive },
  };
  const without: Bench = { ...hall, items, boxes: hall.boxes.map((b) => (b.id === r.base ? bare : b)) };
  const plan = boxPlan(without, bare);
  const offered =
    'code' in plan ? [] : new Stage(plan.plan).precautions.filter((p) => !plan.always.includes(p.id));
  const chosen = offered.filter((_, i) => r.every || r.picks[i % 40]);
  const box = { ...bare, precautions: chosen.map((p) => p.id) };
  return { bench: { ...without, boxes: hall.boxes.map((b) => (b.id === r.base ? box : b)) }, box, chosen };
}
