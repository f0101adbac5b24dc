import { useHotkeys } from 'react-hotkeys-hook';
import { recall, remember } from '../storage/remembered';
import { told } from '../storage/told';

const TICKED = new Set(['radio', 'checkbox', 'range', 'button', 'submit', 'file']);
/** Is a text being typed where this happened? */
const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLTextAreaElement ||
  target instanceof HTMLSelectElement ||
  (target instanceof HTMLInputElement && !TICKED.has(target.type));

export interface Shortcut {
  /** One character, the name of a key, or keys held together: “k”, “arrowleft”, “mod+enter”. */
  keys: string;
  /** What it does, for the sheet of keys. */
  does: string;
  /** Undefined while it does nothing here. */
  act: (() => void) | undefined;
}

const KEPT = 'zb-letters';
const letters = told(recall(KEPT) !== 'off');

/** Are single characters shortcuts? Who speaks to the machine, or brushes keys, switches them off (WCAG 2.2, 2.1.4). */
export const useLetters = letters.use;
/** Switches shortcuts of one character on or off; remembered where the browser allows. */
export function setLetters(on: boolean): void {
  remember(KEPT, on ? 'on' : 'off');
  letters.set(on);
}

/** What lies over the sheet has its own keys, and so has what hangs on them: a thing that was taken goes by the arrows. */
const OTHERS = [
  '[role="dialog"][data-state="open"]',
  '[role="menu"][data-state="open"]',
  '[aria-roledescription="draggable"][aria-pressed="true"]',
].join();
const taken = (): boolean => document.querySelector(OTHERS) !== null;

function One({ keys, does, act }: { keys: string; does: string; act: () => void }) {
  const on = useLetters();
  // Where a sign is reached by Shift differs from keyboard to keyboard.
  const ways = /^[^a-z0-9]$/.test(keys) ? [keys, `shift+${keys}`] : [keys];
  useHotkeys(ways, act, {
    useKey: true,
    description: does,
    preventDefault: true,
    enabled: on || keys.length > 1,
    // Keys held together mean the same on a choice or a slider; in a text they are the text’s own.
    enableOnFormTags: keys.startsWith('mod+'),
    ignoreEventWhen: (e) => e.defaultPrevented || taken() || typing(e.target),
  });
  return null;
}

/** Keys that count while this is on the page. The sheet of keys lists them by itself. */
export const Shortcuts = ({ list }: { list: readonly Shortcut[] }) =>
  list.map(({ keys, does, act }) => act && <One key={keys} keys={keys} does={does} act={act} />);
