/** A text in single quotes, within which nothing has a meaning to a shell (IEEE Std 1003.1, “Quoting”; GRUB manual, “Quoting”). */
export const quoted = (text: string): string => `'${text.replaceAll("'", `'\\''`)}'`;
