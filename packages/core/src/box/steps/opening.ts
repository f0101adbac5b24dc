import { isWrittenStraight } from '../../layout/systemDrive';
import { openingOf } from '../../opening/forBox';
import { step, type StepDraft } from '../../runsheet/step';
import type { StepWhat } from '../../runsheet/what';
import { span } from '../../units/duration';
import type { Scene } from '../scene';
import { Chosen } from './precautions';

/** The steps of opening, each behind the one before it. */
export function openingSteps(scene: Scene): StepDraft[] {
  const { bench, box, machine } = scene;
  const opening = openingOf(bench, box);
  if ('code' in opening || !machine) return [];
  // A drive that is written in an adapter is written before it goes in.
  const straight = isWrittenStraight(bench, box);
  // What a precaution keeps out goes in when the system is on.
  const later = new Set(new Chosen(scene).of('unplug').map((p) => `in:${p.drive ?? ''}`));
  let before: string | undefined;
  return opening.steps
    .filter((s) => !later.has(s.key))
    .map((s) => {
      const after = [
        'gather:*',
        'choose:*',
        'save:*',
        ...(straight && s.what.code === 'put in' ? ['write:*'] : []),
        ...(before ? [before] : []),
      ];
      before = `open:${s.key}`;
      return step(
        'install',
        before,
        { code: 'open', what: s.what, machine: machine.name },
        {
          after,
          hands: span(s.minutes * 40, s.minutes * 80),
          seen: s.done,
          effects: s.effects,
          needs: s.what.code === 'look in setup' ? ['monitor', 'keyboard'] : ['tools'],
          hurts: hurtsOf(s.what.code, opening.effort.ribbons),
          asks: s.what.code === 'photograph' ? 'photo' : null,
          pauses: s.what.code !== 'erase first',
        },
      );
    });
}

type OpenCode = Extract<StepWhat, { code: 'open' }>['what']['code'];
const hurtsOf = (code: OpenCode, ribbons: boolean): StepDraft['hurts'] =>
  code === 'erase first'
    ? ['what is on the drive is lost']
    : code === 'unplug the mains'
      ? ['mains']
      : code === 'look at the cells' || code === 'unplug the battery'
        ? ['lithium cells']
        : code === 'take the cover off' && ribbons
          ? ['ribbon cables']
          : [];
