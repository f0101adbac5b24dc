import type { ImageItem } from '../model/bench';
import { edited, type Act, type Change } from '../model/changes';
import { contentOf, READING_RULES } from '../model/inspection';
import type { KeptTrial, Trial } from '../model/trial';
import { foretoldOf } from '../starting/happened';
import { happenedWords, trialTitle } from '../words/trial';
import type { Stamp } from './stamp';

/** So many trials of an image are kept, the newest. */
const KEPT = 40;
const SERIAL_KEPT = 2000;

/** Keeps what a trial came to with its image, beside what was foretold, and its last picture (a data address; null where none was taken). */
export function keepTrial(image: ImageItem, trial: Trial, picture: string | null, stamp: Stamp): Act {
  const photoId = picture === null ? null : stamp.id();
  const foretold = foretoldOf(image.inspection ? contentOf(image.inspection) : undefined, trial);
  const kept: KeptTrial = {
    id: trial.id,
    at: stamp.now,
    firmware: trial.firmware,
    attached: trial.attached,
    happened: trial.happened,
    foretold,
    rules: image.inspection ? READING_RULES : null,
    seconds: Math.round(trial.seconds * 10) / 10,
    photoId,
    serial: trial.serial.slice(-SERIAL_KEPT),
  };
  const photo: Change[] =
    picture === null || photoId === null
      ? []
      : [
          {
            in: 'photos',
            id: photoId,
            to: {
              id: photoId,
              at: stamp.now,
              caption: `${image.name}, ${trialTitle(trial)}: ${happenedWords(trial.happened)}`.slice(0, 200),
              data: picture,
              machineId: null,
              marks: [],
            },
          },
        ];
  const gone = image.trials.slice(0, Math.max(0, image.trials.length + 1 - KEPT));
  return {
    label: `Trial of ${image.name} kept`,
    changes: [
      ...photo,
      edited('items', image, { ...image, trials: [...image.trials.slice(gone.length), kept] }),
      ...gone.flatMap((g): Change[] =>
        g.photoId === null ? [] : [{ in: 'photos', id: g.photoId, to: null }],
      ),
    ],
  };
}
