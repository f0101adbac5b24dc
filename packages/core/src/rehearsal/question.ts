import { unknowns, type Unknown } from './varies';

/** The place of each unknown among the questions that a world answers. */
export const questionOf = Object.fromEntries(unknowns.map((u, i) => [u, i])) as Record<Unknown, number>;
