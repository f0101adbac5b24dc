import { isWrittenStraight } from '../../layout/systemDrive';
import { supplyOf } from '../../machine/power';
import { storesOf } from '../../model/bench';
import { placeBefore } from '../../model/opening';
import { movesOf } from '../../opening/moves';
import type { Effect } from '../../plan/effect';
import { step, type StepDraft } from '../../runsheet/step';
import type { Scene } from '../scene';
import type { Chosen } from './precautions';

/** What was changed for the installation alone is as it was again. */
export function afterwards(scene: Scene, chosen: Chosen): StepDraft[] {
  const { bench, box, machine } = scene;
  const straight = isWrittenStraight(bench, box);
  const drives = scene.rehearsed?.plan.drives ?? [];
  const nameOf = (id: string | null): string => drives.find((d) => d.id === id)?.name ?? '';
  const named = (kind: 'unplug' | 'port off'): string[] => chosen.of(kind).map((p) => nameOf(p.drive));
  const out = [...new Set([...named('unplug'), ...(straight ? named('port off') : [])])];
  // Where an image is written straight no installer is rehearsed, and its drive can be put first all the same.
  const firstAfterwards =
    chosen.has('target first') || (straight && box.precautions.includes('target first'));
  const ports = straight ? [] : named('port off');
  const target = drives.find((d) => d.role === 'target');
  const { comesOut, goesIn } = movesOf(bench, box);
  const keptOut = goesIn.filter((s) => chosen.of('unplug').some((p) => p.drive === s.id));
  const effects: Effect[] = [
    ...comesOut.map((s): Effect => ({ code: 'move back', item: s.id, to: placeBefore(box, s) })),
    // What is to go in and was kept out as a precaution goes in now.
    ...(machine ? keptOut.map((s): Effect => ({ code: 'move', item: s.id, to: machine.id })) : []),
    ...chosen
      .of('port off')
      .flatMap((p): Effect[] =>
        straight || p.drive === null ? [] : [{ code: 'switch port', medium: p.drive, on: true }],
      ),
  ];
  return [
    ...(out.length + ports.length > 0
      ? [
          step(
            'install',
            'back:in',
            { code: 'put back', drives: out, ports, supply: machine ? supplyOf(machine) : 'inside' },
            { after: ['back:stick', 'back:enrol', 'write:*', 'open:*'], effects },
          ),
        ]
      : []),
    ...(firstAfterwards && box.chain === null
      ? [
          step(
            'install',
            'back:first',
            { code: 'target first', drive: target?.name ?? '' },
            {
              after: ['back:stick', 'back:in'],
              effects: target ? [{ code: 'boot first', medium: target.id }] : [],
            },
          ),
        ]
      : []),
    ...(chosen.has('stick first') && !chosen.has('target first')
      ? [
          step(
            'install',
            'back:order',
            { code: 'order back' },
            {
              after: ['back:stick', 'back:in'],
              effects: [{ code: 'boot first', medium: null }],
            },
          ),
        ]
      : []),
  ];
}

/** A chain loader's stick goes in once the system is on, stays in, and stands first in the boot order. */
export function chainIn({ bench, box, machine }: Scene): StepDraft[] {
  const stick = storesOf(bench).find((s) => s.id === box.chain?.stickId);
  if (!stick || !machine) return [];
  return [
    step(
      'install',
      'back:chain',
      { code: 'chain stick in', stick: stick.name, serial: stick.serial },
      {
        after: ['write:chain', 'back:stick', 'back:in'],
        effects: [{ code: 'move', item: stick.id, to: machine.id }],
      },
    ),
    step(
      'install',
      'back:chain first',
      { code: 'chain stick first', stick: stick.name },
      { after: ['back:chain'], effects: [{ code: 'boot first', medium: stick.id }] },
    ),
  ];
}
