import type { StepWhat } from './what';

/** What kind of work a step is, as times are compared: the same on every machine, finer than its code where one code is many things. */
export function actOf(what: StepWhat): string {
  switch (what.code) {
    case 'open':
      return `open: ${what.what.code}`;
    case 'set':
      return `set: ${what.setting}`;
    case 'answer':
      return `answer: ${what.question}`;
    case 'first start':
      return `first start: ${what.line}`;
    case 'pool':
    case 'move':
      return `${what.code}: ${what.step}`;
    case 'lay out':
      return `lay out: ${what.group}`;
    case 'write':
      return `write: ${what.as}`;
    default:
      return what.code;
  }
}
