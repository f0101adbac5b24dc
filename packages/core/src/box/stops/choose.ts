import { hazard } from '../hazard';
import { plainStop, type StopModule } from '../stopModule';

export const choose: StopModule = {
  ...plainStop('choose', [3, 6]),
  hazards: ({ judged, profile, machine }) =>
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
      ),
  questions: ({ machine, profile }) => (machine && !profile ? [`Which system goes on ${machine.name}?`] : []),
};
