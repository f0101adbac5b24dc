import { itLooksDifferent } from './exercises/itLooksDifferent';
import { oneChange } from './exercises/oneChange';
import { oneOfFour } from './exercises/oneOfFour';
import { stillThere } from './exercises/stillThere';
import { theGate } from './exercises/theGate';
import { theOldServer } from './exercises/theOldServer';
import { theTray } from './exercises/theTray';
import { threeDownloads } from './exercises/threeDownloads';
import { whichDrive } from './exercises/whichDrive';
import { whichStick } from './exercises/whichStick';
import { whichSystem } from './exercises/whichSystem';
import type { PracticeTable } from './table';

/** What the exercises without a machine of their own say, by the exercise. */
export const tables: Readonly<Record<string, PracticeTable>> = {
  'which-drive': whichDrive,
  'which-system': whichSystem,
  'the-tray': theTray,
  'three-downloads': threeDownloads,
  'which-stick': whichStick,
  'it-looks-different': itLooksDifferent,
  'still-there': stillThere,
  'the-gate': theGate,
  'one-of-four': oneOfFour,
  'one-change': oneChange,
  'the-old-server': theOldServer,
};
