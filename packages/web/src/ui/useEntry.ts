import { useRef } from 'react';

/** How files are taken by every part that takes some: what goes on the entry itself, and on what holds it. */
export function useEntry(onFiles: (files: File[]) => void) {
  const entry = useRef<HTMLInputElement>(null);
  const take = (files: File[]): void => {
    // A file that was taken once can be taken again.
    if (entry.current) entry.current.value = '';
    if (files.length > 0) onFiles(files);
  };
  return {
    entry,
    take,
    taking: {
      acceptedFiles: [],
      onFileAccept: ({ files }: { files: File[] }) => take(files),
      // What has another ending may still be meant; whoever reads it says in words what is wrong with it.
      onFileReject: ({ files }: { files: { file: File }[] }) => take(files.map((f) => f.file)),
    },
  };
}
