import { markdownText } from '../../units/markdown';

/** Text of a sheet, or a dash where there is none. */
export const dash = (text: string | null | undefined): string =>
  text == null || text === '' ? '–' : markdownText(text);
