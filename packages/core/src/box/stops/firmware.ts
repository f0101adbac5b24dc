import { hazard, type Hazard } from '../hazard';
import type { Scene } from '../scene';
import { startChanges } from '../startChanges';
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

/**
 * A controller in RAID mode (PCI Code and ID Assignment Specification, class 01h, subclass 04h) shows its drives to its own driver
 * alone. A system that was installed in one mode does not boot in the other. Common practice, no source.
 */
function controller({ machine }: Scene): Hazard[] {
  const raid = machine?.details?.pci.some((d) => d.class.startsWith('0104')) ?? false;
  return machine && raid
    ? [hazard('controller hides drives', 'check', 'firmware', { machine: machine.name })]
    : [];
}

/**
 * What is sealed to the security chip opens only while Secure Boot and the way of booting are as they were (TCG PC Client Platform
 * Firmware Profile, PCR 4 and PCR 7): a kept system that is encrypted so asks for its recovery key afterwards.
 */
function recoveryKey(scene: Scene): Hazard[] {
  const changes = startChanges(scene);
  if (!changes.secureBoot && !changes.mode) return [];
  const what = changes.secureBoot ? (changes.mode ? 'both' : 'secure boot') : 'mode';
  return scene.inside
    .filter((s) => s.fate !== 'may be lost' && (s.content?.starts?.length ?? 0) > 0)
    .map((s) => hazard('recovery key', 'check', 'firmware', { drive: s.name, what }, { store: s.id }));
}

export const firmware: StopModule = {
  ...plainStop('firmware', [4, 8]),
  hazards: (scene) => [...secureBoot(scene), ...controller(scene), ...recoveryKey(scene), ...alone(scene)],
  lines: firmwareLines,
};
