import { createContext, useContext, type ReactNode } from 'react';
import { createPortal } from 'react-dom';

/** Places of the one line above the sheet of a phone or an upright tablet, where that line is shown. */
export interface BarSlots {
  /** Whose sheet it is. */
  title: HTMLElement | null;
  /** What of the ledger stays in sight. */
  ledger: HTMLElement | null;
}

export const BarContext = createContext<BarSlots>({ title: null, ledger: null });

/** Shown in the line above the sheet, where there is one. */
export function InBar({ slot, children }: { slot: keyof BarSlots; children: ReactNode }) {
  const to = useContext(BarContext)[slot];
  return to && createPortal(children, to);
}
