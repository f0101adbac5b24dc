import { bundleOf } from '../../firststart/forBox';
import { serves } from '../../system/serves';
import { hazard, type Hazard } from '../hazard';
import type { Scene } from '../scene';
import { plainStop, type StopModule } from '../stopModule';

const plain = plainStop('first-start', [4, 8], [3, 10]);

function hazards(scene: Scene): Hazard[] {
  const { bench, box, machine, profile } = scene;
  const out: Hazard[] = [];
  if (scene.fact('display.portrait') === true) out.push(hazard('upright panel', 'note', 'first-start'));
  if (!machine || !profile) return out;
  const found = scene.firstStart;
  if ('code' in found) return out;
  const { password } = found.record;
  const reached = serves(box.purpose) || profile.admin !== null;
  if (profile.login === 'shipped default' && reached && !(password?.replaced === true))
    out.push(hazard('default password stands', 'stop', 'first-start', { system: profile.name }));
  else if (profile.login !== 'no login' && reached && password === null && scene.signed('first-start'))
    out.push(hazard('password not written down', 'check', 'first-start', { box: box.name }));
  if (found.online === false && profile.first.wantsNetwork && profile.first.wayRound === '')
    out.push(
      hazard('insists on a network', 'check', 'first-start', { system: profile.name, machine: machine.name }),
    );
  const bundle = bundleOf(bench, box);
  const lacks = bundle.lines.filter((l) => l.needed && l.files.length === 0);
  if (found.online === false && lacks.length > 0)
    out.push(hazard('network driver not fetched', 'check', 'first-start', { machine: machine.name }));
  if (!bundle.fits && bundle.stick)
    out.push(
      hazard('drivers do not fit', 'check', 'first-start', { stick: bundle.stick.name, bytes: bundle.bytes }),
    );
  const wrong = found.record.bundle.filter((f) => f.matches === false);
  for (const f of wrong) out.push(hazard('driver differs', 'stop', 'first-start', { file: f.file }));
  return out;
}

export const firstStart: StopModule = {
  ...plain,
  hazards,
  hands: (scene) => {
    const found = scene.firstStart;
    return 'code' in found ? plain.hands(scene) : found.hands;
  },
  waiting: (scene) => {
    const found = scene.firstStart;
    return 'code' in found ? plain.waiting(scene) : found.waiting;
  },
};
