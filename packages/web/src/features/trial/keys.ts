/** Keys of a page’s keyboard (UI Events KeyboardEvent code Values) by the emulator’s names (QKeyCode). */
const NAMED: Record<string, string> = {
  Enter: 'ret',
  NumpadEnter: 'kp_enter',
  Escape: 'esc',
  Backspace: 'backspace',
  Space: 'spc',
  Minus: 'minus',
  Equal: 'equal',
  BracketLeft: 'bracket_left',
  BracketRight: 'bracket_right',
  Semicolon: 'semicolon',
  Quote: 'apostrophe',
  Backquote: 'grave_accent',
  Backslash: 'backslash',
  Comma: 'comma',
  Period: 'dot',
  Slash: 'slash',
  ArrowUp: 'up',
  ArrowDown: 'down',
  ArrowLeft: 'left',
  ArrowRight: 'right',
  Home: 'home',
  End: 'end',
  PageUp: 'pgup',
  PageDown: 'pgdn',
  Insert: 'insert',
  Delete: 'delete',
};

/** The keys of the emulator for one that was pressed, what is held with it first; null for what it has none for. Tab stays the page’s. */
export function emulatorKeys(
  e: Pick<KeyboardEvent, 'code' | 'shiftKey' | 'ctrlKey' | 'altKey'>,
): string[] | null {
  const one =
    NAMED[e.code] ??
    /^Key([A-Z])$/.exec(e.code)?.[1]?.toLowerCase() ??
    /^Digit(\d)$/.exec(e.code)?.[1] ??
    /^(F\d{1,2})$/.exec(e.code)?.[1]?.toLowerCase();
  if (one === undefined) return null;
  return [
    ...(e.shiftKey ? ['shift'] : []),
    ...(e.ctrlKey ? ['ctrl'] : []),
    ...(e.altKey ? ['alt'] : []),
    one,
  ];
}
