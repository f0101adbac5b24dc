import { storesBefore } from '../../opening/moves';
import type { Precaution, PrecautionKind } from '../../rehearsal/precautions';
import { step, type StepDraft } from '../../runsheet/step';
import type { Scene } from '../scene';

/** The precautions that were chosen, by their kind. */
export class Chosen {
  private readonly all: readonly Precaution[];

  constructor(scene: Scene) {
    this.all = scene.rehearsed?.taken ?? [];
  }

  has = (kind: PrecautionKind): boolean => this.all.some((p) => p.kind === kind);
  of = (kind: PrecautionKind): Precaution[] => this.all.filter((p) => p.kind === kind);
}

/** What is put away, and power made certain, before a drive is written: at the writing machine, or at the box itself. */
export function aroundSteps(
  { rehearsed, machine, bench, box }: Scene,
  chosen: Chosen,
  at: 'write' | 'install',
): StepDraft[] {
  const key = at === 'write' ? 'write' : 'start';
  // What is to go in and is taken out by a precaution stays out until afterwards.
  const before = machine ? storesBefore(bench, box, machine.id) : [];
  const later = chosen.of('unplug').filter((p) => !before.some((i) => i.id === p.drive));
  // Where it is written nobody goes through setup: a drive whose port was to be off is not plugged in at all.
  const unplugged = at === 'write' ? chosen.of('port off') : [];
  // A drive that several of them are about is put away once.
  const drives = new Set([...chosen.of('away'), ...later, ...unplugged].map((p) => p.drive));
  const away = [...drives].flatMap((id): StepDraft[] => {
    const d = rehearsed?.plan.drives.find((x) => x.id === id);
    const what = d && { code: 'put away' as const, drive: d.name, serial: d.serial };
    const after = ['gather:*', 'choose:*', ...(at === 'install' ? ['write:*'] : [])];
    return what ? [step(at, `${key}:away:${d.id}`, what, { after })] : [];
  });
  const power =
    chosen.has('power') && machine
      ? [
          step(
            at,
            `${key}:power`,
            { code: 'secure the power', machine: machine.name },
            { after: ['gather:*'] },
          ),
        ]
      : [];
  return [...away, ...power];
}
