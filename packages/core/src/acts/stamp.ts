/** Time and fresh names, given by the caller so that core stays free of clocks and chance. */
export interface Stamp {
  now: string;
  id: () => string;
}
