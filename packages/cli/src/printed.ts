/** Gives away what a command made: text as it is, anything else by `print`. */
export const write = (out: object | string, print: (value: unknown) => void): void => {
  if (typeof out === 'string') process.stdout.write(out);
  else print(out);
};
