import { templateOf, type Written } from './template';

/** Text that is HTML already. */
export type Html = Written<'html'>;

const ENTITY: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** A text as HTML shows it, in an element or an attribute in quotes (HTML Living Standard §13.1.4). */
export const htmlText = (text: string): string => text.replace(/[&<>"']/g, (c) => ENTITY[c] ?? c);

/** HTML around values: a plain value is text, in an element or in an attribute in quotes. A list stands without spaces. */
export const html = templateOf({ format: 'html', quote: htmlText, between: '' });

/** HTML that is fixed: no value stands in it. */
export const fixedHtml = (text: string): Html => ({ format: 'html', text });

/**
 * What a page that stands by itself may fetch and run: nothing but the styles in it, and the scripts of these hashes (SHA-256,
 * Base64). Content Security Policy Level 3 §6, in an element (HTML Living Standard §4.2.5.3).
 */
export const contentPolicy = (scriptHashes: readonly string[] = []): Html =>
  html`<meta http-equiv="Content-Security-Policy" content="${[
    "default-src 'none'",
    "style-src 'unsafe-inline'",
    ...(scriptHashes.length > 0 ? [`script-src ${scriptHashes.map((h) => `'sha256-${h}'`).join(' ')}`] : []),
    "form-action 'none'",
    "base-uri 'none'",
  ].join('; ')}">`;
