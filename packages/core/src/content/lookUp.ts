import type { ContentRules } from '../model/contentRules';
import { endingOf } from '../units/paths';

/** Apostrophes and quotes that are not the plain ones (Unicode, General Punctuation). */
const APOSTROPHES = /[\u2018\u2019\u201b\u02bc\u00b4\u0060]/g;
/** A year in brackets stays: it tells two of one name apart. */
const YEAR = /^(19|20)\d\d$/;
/** A disc stays: it tells which of several it is. */
const DISC = /^(disc|disk|cd|dvd|part|side|track)\s*([a-d]|\d+)(\s*of\s*\d+)?$/i;
const TAG = /\s*[([{]([^()[\]{}]*)[)\]}]/g;

/**
 * A name as look-ups of titles and pictures find it: words in brackets off, but years and discs; plain apostrophes; one blank
 * at a time. Its ending stays. Common practice, no source.
 */
export function lookUpName(name: string, rules: Pick<ContentRules, 'brackets' | 'apostrophes'>): string {
  const ending = endingOf(name);
  const tail = ending === '' ? '' : name.slice(-ending.length - 1);
  let stem = tail === '' ? name : name.slice(0, -tail.length);
  if (rules.apostrophes) stem = stem.replace(APOSTROPHES, "'");
  if (rules.brackets) {
    const bare = stem
      .replace(TAG, (whole, inner: string) =>
        YEAR.test(inner.trim()) || DISC.test(inner.trim()) ? whole : '',
      )
      .replace(/\s+/g, ' ')
      .trim();
    // A name that is nothing but brackets stays as it is.
    if (bare !== '') stem = bare;
  }
  return stem + tail;
}
