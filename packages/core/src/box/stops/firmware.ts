import { hazard } from '../hazard';
import { plainStop, type StopModule } from '../stopModule';

export const firmware: StopModule = {
  ...plainStop('firmware', [4, 8]),
  hazards: ({ machine, start }) => {
    if (!machine || !start) return [];
    const params = { machine: machine.name };
    if (start.refused)
      return [hazard('Secure Boot refuses', 'stop', 'firmware', params, { from: { start: start.why } })];
    const secure = start.row.secureBoot;
    return start.starts === 'yes' && start.trustAssumed && secure
      ? [
          hazard('trust assumed', 'note', 'firmware', params, {
            from: { start: { reason: secure.reason, through: null } },
          }),
        ]
      : [];
  },
};
