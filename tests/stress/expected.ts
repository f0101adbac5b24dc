/** The kinds of error that ECMA-262 §20.5 throws by itself: of one of these nobody thought. */
const NATIVE = [TypeError, RangeError, SyntaxError, ReferenceError, URIError, EvalError];

/** Is it a refusal in words of the application, and no fault of the program? */
export const isRefusal = (error: unknown): boolean =>
  error instanceof Error && !NATIVE.some((kind) => error.constructor === kind) && error.constructor !== Error;
