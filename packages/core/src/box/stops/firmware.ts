import { hazard } from '../hazard';
import { plainStop, type StopModule } from '../stopModule';

export const firmware: StopModule = {
  ...plainStop('firmware', [4, 8]),
  hazards: ({ machine, start }) => {
    if (!machine || !start) return [];
    const params = { machine: machine.name, because: start.because };
    if (start.refused) return [hazard('Secure Boot refuses', 'stop', 'firmware', params)];
    return start.starts === 'yes' && start.trustAssumed
      ? [
          hazard('trust assumed', 'note', 'firmware', {
            machine: machine.name,
            because: start.row.secureBoot?.because ?? '',
          }),
        ]
      : [];
  },
};
