import type { Profile } from '../../model/bench';
import { hazard } from '../hazard';
import { knownLine, plainStop, type StopModule } from '../stopModule';

/** What a login policy asks of the first start. */
const LOGIN: Record<Profile['login'], string> = {
  'set at install': 'set at install: a real one, written down',
  'shipped default':
    'it comes with one everybody knows: replace it before it joins the network, and write it down',
  'no login': 'none; keep it off networks you do not trust',
};

export const firstStart: StopModule = {
  ...plainStop('first-start', [4, 8], [3, 10]),
  hazards: (scene) =>
    scene.fact('display.portrait') === true ? [hazard('upright panel', 'note', 'first-start')] : [],
  known: (scene) => {
    const { machine, profile } = scene;
    if (!machine) return [];
    const driver = scene.fact('graphics.driver');
    return [
      ...knownLine(
        'Panel',
        scene.fact('display.portrait') === true ? 'upright: rotate it' : 'not upright, as far as known',
      ),
      ...knownLine('Graphics driver', typeof driver === 'string' && driver),
      ...knownLine('Updates', 'update, restart, and again until nothing is offered'),
      ...knownLine('Password', profile && LOGIN[profile.login]),
      ...knownLine('Drivers, in this order', profile?.drivers.join(' → ')),
    ];
  },
  later: {
    headline: 'What does the first start ask?',
    words:
      'This stop will hold the first start’s checklist and its waiting time; until then, note here what you set.',
  },
};
