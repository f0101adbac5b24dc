const ENTITY: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** A text as HTML shows it, in an element or an attribute in quotes (HTML Living Standard §13.1.4). */
export const htmlText = (text: string): string => text.replace(/[&<>"']/g, (c) => ENTITY[c] ?? c);
