import type { Machine } from '../model/bench';

/** Opening a machine and closing it again. Minutes, screws. */
export interface Effort {
  minutes: number;
  screws: number;
  /** Thin ribbon cables go from the cover to the board. */
  ribbons: boolean;
}

/** Common practice, no source. */
const EFFORT: Record<Machine['form'], Effort> = {
  tower: { minutes: 4, screws: 1, ribbons: false },
  'office desktop': { minutes: 4, screws: 1, ribbons: false },
  'old desktop': { minutes: 5, screws: 2, ribbons: false },
  'rack server': { minutes: 3, screws: 0, ribbons: false },
  'mini PC': { minutes: 8, screws: 4, ribbons: false },
  laptop: { minutes: 15, screws: 9, ribbons: true },
  handheld: { minutes: 20, screws: 8, ribbons: true },
  board: { minutes: 1, screws: 0, ribbons: false },
};

/** Minutes of the steps around an opened machine. Common practice, no source. */
export const stepMinutes = {
  off: 1,
  mains: 1,
  cells: 1,
  photo: 1,
  battery: 1,
  out: 1,
  in: 2,
  setup: 2,
  erase: 2,
};

/** Minutes to take one drive out of a machine and to put it back: all steps of opening and closing it. */
export const unplugMinutes = (machine: Pick<Machine, 'form'>, battery: boolean): number => {
  const { off, mains, cells, photo, battery: plug, out, setup } = stepMinutes;
  return off + mains + photo + out + setup + (battery ? cells + 2 * plug : 0) + EFFORT[machine.form].minutes;
};

/** What opening a machine of this form takes. */
export const openingEffort = ({ form }: Pick<Machine, 'form'>): Effort => EFFORT[form];
