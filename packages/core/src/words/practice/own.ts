import type { NoExercise } from '../../practice/own';
import { noRehearsalWords } from '../rehearsal';
import { list } from '../text';

/** Why no exercise can be made from a box. */
export function noExerciseWords(why: NoExercise): string {
  switch (why.code) {
    case 'written elsewhere':
      return 'Its image is written straight to the final drive: there is no installer to practise.';
    case 'nothing makes it safe':
      return `Its installer asks nobody, and nothing keeps it from ${list(why.drives)}: rehearse another way first.`;
    default:
      return noRehearsalWords(why);
  }
}
