/** A text, or a dash where there is none. */
export const dash = (text: string | null | undefined): string => (text == null || text === '' ? '–' : text);
