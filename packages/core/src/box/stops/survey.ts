import { factDefinition } from '../../model/facts';
import { hazard } from '../hazard';
import { plainStop, type StopModule } from '../stopModule';

export const survey: StopModule = {
  ...plainStop('survey', [4, 8]),
  hazards: ({ judged, profile }) =>
    (judged?.all ?? [])
      // Guesses about the system are told where it is chosen.
      .filter((f) => f.outcome === 'ask' && f.rule !== 'system said')
      .map((f) =>
        hazard('fact open', 'check', 'survey', { system: profile?.name ?? '' }, { from: { finding: f } }),
      ),
  questions: (scene) => {
    const { machine, judged } = scene;
    if (!machine) return ['Which machine is it to be?'];
    const mode = scene.fact('firmware.mode') === undefined ? [factDefinition('firmware.mode').ask] : [];
    return [...(judged?.missing.map((m) => m.ask) ?? []), ...mode];
  },
};
