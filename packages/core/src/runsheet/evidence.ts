import type { StepCode, StepWhat } from './what';

/**
 * How it is known that a step is done, the strongest first: something was measured or read back, what the bench holds shows
 * it, a photograph was taken of it, or a person says so.
 */
export const evidenceKinds = ['measured', 'shown', 'photo', 'word'] as const;
/** How it is known. */
export type Evidence = (typeof evidenceKinds)[number];

/** What the application itself has measured or read back where the bench shows that it is done. */
const MEASURED: readonly StepCode[] = [
  'compare the sum',
  'write',
  'see that nobody answers',
  'see it come back',
  'open its page',
  'measure',
];
/** What lies in the bench once it is done. */
const SHOWN: readonly StepCode[] = [
  'read the machine',
  'choose a system',
  'fetch the image',
  'fetch drivers',
];

/** What shows that a step is done. `seen`: the bench shows it; `photographed`: a photograph of the step is in the log. */
export function evidenceOf(what: StepWhat, seen: boolean, photographed: boolean): Evidence {
  if (seen && MEASURED.includes(what.code)) return 'measured';
  if (seen && SHOWN.includes(what.code)) return 'shown';
  const pictured = what.code === 'open' && what.what.code === 'photograph' && what.what.photos > 0;
  return photographed || pictured ? 'photo' : 'word';
}
