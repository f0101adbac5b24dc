/** A name made such that hosts take it: letters, digits and . _ - alone, a letter or digit first; empty where nothing is left. */
export const plainName = (name: string): string =>
  name.replace(/[^\w.-]+/g, '-').replace(/^[^A-Za-z0-9]+/, '');
