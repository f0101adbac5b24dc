import { formatExact, formatIec, formatSi } from '../units/bytes';
import type { SizeProblem, TypedSize } from '../units/typedSize';

const PROBLEM: Record<SizeProblem, string> = {
  empty: 'Type a size, such as 60000 MB or 58.6 GiB.',
  'no unit': 'It needs a unit: MB and GB count in thousands, MiB and GiB in 1,024s.',
  'not positive': 'A size is more than nothing.',
  none: 'This is no size. A number and a unit are, such as 60000 MB or 58.6 GiB.',
  'no rest here': 'There is nothing here that it could be the rest of. Type a size.',
};
/** What is wrong with a typed size, and what to do. */
export const sizeProblem = (problem: SizeProblem): string => PROBLEM[problem];

/** The size in both manners and to the byte, so that nobody is puzzled by which was meant. */
export const sizeHelp = (size: TypedSize): string =>
  'rest' in size
    ? 'whatever is left'
    : `${formatIec(size.bytes)} = ${formatSi(size.bytes)}, ${formatExact(size.bytes)}`;
