import { EdidError, hexBytes, readEdid, type Edid } from '../formats/edid';
import type { Box, Machine } from '../model/bench';
import { knownFact } from '../model/known';
import { sizedFrom } from './sized';
import type { SheetTold } from './sheet';

/** A display of a machine, as its own EDID tells; null where its bytes cannot be read. */
export interface Screen {
  connector: string;
  edid: Edid | null;
}

/** Displays that the last survey saw. */
export const screensOf = (machine: Machine): Screen[] =>
  (machine.details?.displays ?? []).map(({ connector, edid }) => {
    try {
      return { connector, edid: readEdid(hexBytes(edid)) };
    } catch (error) {
      if (!(error instanceof EdidError)) throw error;
      return { connector, edid: null };
    }
  });

/** What the test sheet of a box is told: the first display’s own mode, else the mode that somebody wrote down. */
export function sheetOf(box: Box, machine: Machine | undefined): SheetTold {
  const screen = machine && screensOf(machine).find((s) => s.edid)?.edid;
  const fact = machine && knownFact(machine, 'display.native')?.value;
  return {
    name: box.name,
    native: screen?.native ?? (typeof fact === 'string' ? sizedFrom(fact) : null),
    refreshHz: screen?.refreshHz ?? null,
  };
}
