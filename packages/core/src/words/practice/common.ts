import type { PracticeTable } from './table';

/** What several exercises say. */
export const common: PracticeTable = {
  bytes: '{bytes}',
  day: '{day}',
  paper: 'The note beside it',
  'not looked at': 'not looked at',
  'what it held': '{holds}',
  'an evening': 'an evening',
  'hint leave it': 'Leave it alone: let it finish.',
  'head thing': 'Thing',
  'head size': 'Size',
  'head label': 'Label',
  'head where': 'Where',
  'head holds': 'Holds',
  'head state': 'State',
  'head serial': 'Serial',
  'head sticker': 'Sticker',
  'act wait': 'Let a beat go by',
  'act power': 'Press power',
  'act shut down': 'Shut it down',
  'act look': 'Look at its label: {name}',
  'act restart': 'Restart',
  'hands in a live machine': [
    'You had your hands in it while it ran.',
    'A drive that loses its power while it writes loses what it was writing, and a slipped screw makes a short.',
  ],
};
