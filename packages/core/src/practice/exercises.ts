import { blackScreen } from './exercises/blackScreen';
import { machines } from './exercises/machines';
import { oldServer } from './exercises/oldServer';
import { oneChange } from './exercises/oneChange';
import { smallNetwork } from './exercises/smallNetwork';
import { theGate } from './exercises/theGate';
import { thePool } from './exercises/thePool';
import { theTray } from './exercises/theTray';
import { threeDownloads } from './exercises/threeDownloads';
import { whichDrive } from './exercises/whichDrive';
import { whichStick } from './exercises/whichStick';
import { whichSystem } from './exercises/whichSystem';
import type { Exercise } from './play';

/** All exercises that ship, in the order of the stops. To add one, add it here. */
export const exercises: readonly Exercise[] = [
  whichDrive,
  whichSystem,
  theTray,
  threeDownloads,
  whichStick,
  ...machines,
  blackScreen,
  smallNetwork,
  theGate,
  thePool,
  oneChange,
  oldServer,
];

/** The exercise of this id; undefined where there is none. */
export const findExercise = (id: string): Exercise | undefined => exercises.find((e) => e.id === id);
