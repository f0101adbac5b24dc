/** Room of a file system right after it was made. Bytes. */
export interface Space {
  /** What the system calls its size: without what its own tables take from it for good. */
  total: number;
  /** What is free, for its administrator. */
  free: number;
  /** What is free for everybody else. */
  toUsers: number;
  /** What takes the difference to the size of the part, largest first. */
  takes: SpaceTaken[];
}

/** What of a part is taken by its file system itself. */
export interface SpaceTaken {
  what:
    | 'inode tables'
    | 'journal'
    | 'group tables'
    | 'allocation tables'
    | 'metadata, twice'
    | 'kept for tidying up'
    | 'kept for the administrator'
    | 'kept for its trees'
    | 'its own files'
    | 'not a whole unit';
  bytes: number;
}

/** Whole times that `b` is needed to hold `a`. */
export const ceilDiv = (a: number, b: number): number => Math.ceil(a / b);
/** The least multiple of `to` that is not below `a`. */
export const roundUp = (a: number, to: number): number => Math.ceil(a / to) * to;

/** Of what is taken, what is anything, the largest first. */
export const taken = (...list: readonly (readonly [SpaceTaken['what'], number])[]): SpaceTaken[] =>
  list
    .map(([what, bytes]) => ({ what, bytes }))
    .filter((t) => t.bytes > 0)
    .sort((a, b) => b.bytes - a.bytes);
