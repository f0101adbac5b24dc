import { notSaid } from '../../system/notSaid';
import { supportDays } from '../../system/options';
import { hazard, type Hazard } from '../hazard';
import type { Scene } from '../scene';
import { judgedOn } from '../today';
import { chooseLines } from '../trade/choose';
import { plainStop, type StopModule } from '../stopModule';

export const choose: StopModule = {
  ...plainStop('choose', [3, 6]),
  hazards: (scene) => [...supportEnded(scene), ...misfits(scene), ...guesses(scene)],
  lines: chooseLines,
  questions: ({ machine, profile }) => (machine && !profile ? [`Which system goes on ${machine.name}?`] : []),
};

const misfits = ({ judged, profile, machine }: Scene): Hazard[] =>
  (judged?.all ?? [])
    .filter((f) => f.outcome === 'no')
    .map((f) =>
      hazard(
        'does not fit',
        'stop',
        'choose',
        { system: profile?.name ?? '', machine: machine?.name ?? '' },
        { from: { finding: f } },
      ),
    );

/** A release that is not looked after any more: worth a look for every box, and no way to stand between networks. */
function supportEnded({ judged, profile }: Scene): Hazard[] {
  const today = judgedOn();
  const days = judged && today !== undefined ? supportDays(judged.release, today) : undefined;
  if (!judged || !profile || days === undefined || days >= 0) return [];
  const { version, supportEnd } = judged.release;
  const grade = profile.purpose === 'firewall' ? 'stop' : 'check';
  return [hazard('support ended', grade, 'choose', { system: profile.name, version, day: supportEnd ?? '' })];
}

/** Values of a system that was begun from an image and that nobody has said since. */
function guesses({ profile }: Scene): Hazard[] {
  const count = profile ? notSaid(profile).length : 0;
  return profile && count > 0
    ? [hazard('system not all said', 'check', 'choose', { system: profile.name, count })]
    : [];
}
