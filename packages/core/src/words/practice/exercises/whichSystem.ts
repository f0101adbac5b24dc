import type { PracticeTable } from '../table';

/** What this exercise says. */
export const whichSystem: PracticeTable = {
  'the machine': 'The machine',
  systems: 'Five systems for music',
  'head part': 'Part',
  'head reading': 'Reading',
  'head system': 'System',
  'head memory': 'Memory at least',
  'head processor': 'Processor at least',
  'head starts by': 'Starts by',
  'head until': 'Looked after until',
  'part processor': 'Processor',
  'part memory': 'Memory',
  'part firmware': 'Firmware',
  'fact processor': 'x86-64, level {level}, of {year}',
  'fact memory': '{bytes}',
  'fact firmware': '{mode} alone',
  'asks processor': 'level {level}, {year}',
  'mode uefi': 'UEFI',
  'mode bios': 'BIOS',
  'paper today': 'Today is {day}.',
  'paper music': 'It is to play music in the tea room for years.',
  'act look up': 'Look up: {on}',
  'act read needs': 'Read what it asks for: {name}',
  'act choose it': 'Choose {name}',
  'does not fit': [
    '{name} does not run on this machine: {rule}.',
    'It would have shown at the end of an evening, by a black screen. What a system asks for is read before it is fetched.',
  ],
  'chosen unread': [
    '{name} was chosen before everything was read.',
    'It turned out well this time. One line that is not met is enough.',
  ],
  'ends too soon': [
    '{name} is looked after until {day} only.',
    'Then the same work is done again. Another one here fits as well and lasts for years.',
  ],
  chosen: '{name} it is.',
  'hint look up': 'Look up the machine: {part}.',
  'hint read': 'Read what {name} asks for.',
  'hint strike out':
    'Strike out what the machine does not meet. Of what is left take the one that lasts longest.',
};
