import type { FactValue } from '../model/facts';

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
