import type { PracticeTable } from '../table';

/** What this exercise says. */
export const whichStick: PracticeTable = {
  'plugged in': 'Plugged in',
  'head port': 'Port',
  'head model': 'Model',
  'blue tape': 'blue tape',
  'label says': 'written on it: {holds}',
  'the image': 'the image',
  'paper blue': 'Sticks with blue tape may be written.',
  'paper image': 'The image has {bytes}.',
  'act read label': 'Look at what is in {name}',
  'act write to': 'Write to {name}',
  'act read back': 'Read it back and compare',
  'act hand it on': 'Take it to the machine',
  erased: [
    '{name} was written: {holds} is gone.',
    'What a thing holds is read off itself before it is written, not guessed from size and model.',
  ],
  'written unread': [
    'It was written without a look at it.',
    'Two have the same size and the same model. One of them holds what nobody has twice.',
  ],
  written: 'The image was written to {name}.',
  'same bytes': 'Read back: the same bytes.',
  'other bytes': 'Read back: other bytes. {name} really holds {bytes}.',
  'handed on a liar': [
    'The installer broke off at the machine.',
    'The stick claims more than it has. Reading back would have shown it in four minutes.',
  ],
  'not read back': ['It was not read back.', 'It was good this time; the other one with blue tape was not.'],
  'stick stands': 'The stick in {name} is what the image is.',
  'hint label': 'Look at what is in {name}.',
  'hint blue': 'Write to one with blue tape.',
  'hint read back': 'Read it back.',
  'hint hand on': 'It is the same: take it to the machine.',
};
