import { hazard, type Hazard } from '../hazard';
import type { Scene } from '../scene';
import { serves } from '../../system/serves';
import { firmwareLines } from '../trade/firmware';
import { plainStop, type StopModule } from '../stopModule';

function secureBoot({ machine, start }: Scene): Hazard[] {
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
}

/** Settings without which a machine that serves is gone after the first power cut. Common practice, no source. */
function alone(scene: Scene): Hazard[] {
  const { machine, profile } = scene;
  if (!machine || !profile || !serves(profile.purpose)) return [];
  const params = { machine: machine.name, system: profile.name };
  return [
    ...(scene.fact('firmware.afterPowerCut') === 'off'
      ? [hazard('stays off after a cut', 'check', 'firmware', params)]
      : []),
    ...(scene.fact('firmware.haltsOn') === 'missing keyboard or display'
      ? [hazard('halts without a keyboard', 'check', 'firmware', params)]
      : []),
  ];
}

export const firmware: StopModule = {
  ...plainStop('firmware', [4, 8]),
  hazards: (scene) => [...secureBoot(scene), ...alone(scene)],
  lines: firmwareLines,
};
