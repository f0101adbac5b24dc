import { firmwareOf } from '../../machine/firmware';
import { firmwareTitle, isOldReading } from '../../model/inspection';
import { hazard, type Hazard } from '../hazard';
import type { Scene } from '../scene';
import { plainStop, type StopModule } from '../stopModule';
import { againstChosen } from '../againstChosen';

function published({ image }: Scene): Hazard[] {
  if (!image) return [];
  const verdict = image.comparison?.verdict;
  if (verdict === 'differs' || verdict === 'other-size')
    return [hazard('not what was published', 'stop', 'verify', { image: image.name })];
  return image.comparison ? [] : [hazard('not compared', 'check', 'verify', { image: image.name })];
}

function starting({ machine, start }: Scene): Hazard[] {
  const firmware = machine && firmwareOf(machine);
  if (!machine || !firmware || !start || start.refused) return [];
  const params = { machine: machine.name, firmware: firmwareTitle[firmware] };
  const from = { from: { start: start.why } };
  if (start.starts === 'no') return [hazard('does not start', 'stop', 'verify', params, from)];
  if (start.secureNotKnown) return [hazard('Secure Boot not known', 'check', 'verify', params, from)];
  return start.starts === 'unknown' ? [hazard('start not told', 'check', 'verify', params, from)] : [];
}

export const verify: StopModule = {
  ...plainStop('verify', [1, 2], [0, 1]),
  hazards: (scene) => [
    ...published(scene),
    ...(scene.reading?.findings ?? []).flatMap((f) =>
      f.grade === 'note'
        ? []
        : [hazard('found in the image', f.grade, 'verify', {}, { from: { fault: f.fault } })],
    ),
    ...(scene.image?.inspection && isOldReading(scene.image.inspection)
      ? [hazard('read by earlier rules', 'check', 'verify', { image: scene.image.name })]
      : []),
    ...starting(scene),
    ...againstChosen(scene),
  ],
};
