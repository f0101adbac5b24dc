import type { PracticeTable } from '../table';

/** What this exercise says. */
export const whichDrive: PracticeTable = {
  'report of now': 'What it reads out, as its drives answered',
  'report of before': 'What it read out before it was shut down',
  trays: 'The trays',
  'head name': 'Name',
  'head tray': 'Tray',
  'head flag': 'Flag',
  name: 'disk {n}',
  tray: 'tray {tray}',
  'red flag': 'red flag',
  'paper wanted': 'The volume called {label} must not be lost. Its tray gets the red flag.',
  'act report': 'Read the drives out',
  'act start anew': 'Start it anew',
  'act look': 'Slide out and read tray {name}',
  'act flag': 'Tie the red flag to tray {name}',
  'hands in a live machine': [
    'Tray {name} was slid out while it ran.',
    'A drive that loses its power while it writes loses what it was writing.',
  ],
  'read out': 'Drives read out, in the order in which they answered.',
  'names moved': 'It started anew: the drives answered in another order.',
  'flagged another': [
    'The red flag hangs on tray {tray}, and {label} is elsewhere.',
    'Whoever erases by the flag erases {label}. Names follow the order of answering; the serial stays.',
  ],
  'flagged unseen': [
    'Tray {tray} is the right one, by luck.',
    'Its sticker was not compared with a serial that was read out.',
  ],
  flagged: 'The red flag hangs on tray {tray}.',
  'hint report': 'Read the drives out: label and serial stand side by side.',
  'hint power on': 'Power on, and read the drives out.',
  'hint shut down first': 'Shut it down before you slide a tray out.',
  'hint look': 'Slide out and read tray {tray}.',
  'hint flag': 'The flag belongs to the sticker {serial}.',
};
