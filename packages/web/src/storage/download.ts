/** Offers text as a file to save. */
export const download = (name: string, text: string, type: string): void =>
  downloadBlob(name, new Blob([text], { type }));

/** Offers what is made already as a file to save. */
export function downloadBlob(name: string, blob: Blob): void {
  const address = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}

/** A name that every file system takes. */
export const fileName = (text: string, ending: string): string =>
  `${
    text
      .normalize('NFKD')
      .replace(/[^a-zA-Z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .toLowerCase()
      .slice(0, 60) || 'bench'
  }.${ending}`;
