import type { FactValue } from '../model/facts';
import type { Machine } from '../model/shelf';

/** What a stick that is left in does at the restart, where the one-time menu is used: the order alone decides. */
export function menuSchoolWords(order: FactValue | undefined): string {
  const plain = 'Our default: nothing has to be changed back.';
  if (!Array.isArray(order) || order.length === 0)
    return `${plain} Whether a stick left in is started again depends on the order, which is not known: take it out at the restart.`;
  const [usb, internal] = [order.indexOf('usb'), order.indexOf('internal')];
  if (internal >= 0 && (usb < 0 || internal < usb))
    return `${plain} The order has the internal drive before USB, so a stick left in does no harm at the restart.`;
  return `${plain} The order has USB first: a stick left in is started again, so take it out at the restart.`;
}

/** Keys that usually open setup and the one-time menu, to be tried where nobody knows them. Common practice, no source. */
export const usualKeysWords = (form: Machine['form']): string =>
  form === 'handheld'
    ? 'Usual on handhelds: hold volume-up for setup or volume-down for the menu, then press power.'
    : form === 'board'
      ? 'A board has neither: its loader goes by the files on the card.'
      : 'Usual ones: Delete, F2, F1, F10 or Esc for setup; F12, F11, F10, F9, F8, F7 or Esc for the menu. Tap the key again and again from power-on.';
