import type { PracticeTable } from '../table';

/** What this exercise says. */
export const itLooksDifferent: PracticeTable = {
  looks: 'What you can look at',
  causes: 'What may be behind it',
  'head look': 'Look',
  'head found': 'Found',
  'head cause': 'Cause',
  'head cure': 'Its cure',
  'a look': '{look}',
  'a cause': '{cause}',
  seen: '{symptom}, {moment}.',
  'paper par': 'It can be told in {count} looks.',
  'did not help': 'did not help',
  'act take a look': 'Look: {look}',
  'act cure': 'Do its cure: {cause}',
  looked: '{look} – {answer}.',
  'one look more': [
    'That was look number {count}.',
    'Each look takes its minutes. The one that tells most of what is left apart comes first.',
  ],
  'cured unseen': ['It was that, by luck.', 'No look was taken: the next time it is another cause.'],
  'wrong cure': [
    'It was not: {cause}.',
    'A cure that was not needed takes its time, and changes one thing more.',
  ],
  'wrong cures': ['It was not: {cause}.', 'Two cures for nothing, and the evening is over. It was: {right}.'],
  cured: 'It was: {cause}.',
  'hint look at': '{look}',
  'hint cause': 'What is left is: {cause}.',
};
