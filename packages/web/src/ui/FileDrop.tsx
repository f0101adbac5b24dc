import { FileUpload } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** A place that takes files, dropped or picked; nothing is sent anywhere. */
export function FileDrop({
  label,
  several = false,
  accept,
  onFiles,
  children,
}: {
  label: string;
  several?: boolean;
  /** Ends of file names, such as “.json”; without it any file. */
  accept?: readonly string[];
  onFiles: (files: File[]) => void;
  children?: ReactNode;
}) {
  return (
    <FileUpload.Root
      maxFiles={several ? 100 : 1}
      {...(accept ? { accept: [...accept] } : {})}
      translations={{ dropzone: label }}
      // A file that was taken once can be taken again.
      acceptedFiles={[]}
      onFileAccept={(e) => e.files.length > 0 && onFiles(e.files)}
    >
      <FileUpload.HiddenInput aria-label={label} />
      <FileUpload.Dropzone>
        <FileUpload.DropzoneContent>
          <strong>{label}</strong>
        </FileUpload.DropzoneContent>
      </FileUpload.Dropzone>
      {children}
    </FileUpload.Root>
  );
}
