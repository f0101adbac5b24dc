import { FileUpload } from '@chakra-ui/react';
import { FolderOpen } from 'lucide-react';
import { Quiet, Word } from './Button';
import { useEntry } from './useEntry';

/** An act that opens one file; the same file can be opened again. Nothing is sent anywhere. */
export function PickFile({
  label,
  accept,
  plain = false,
  large = false,
  onFile,
}: {
  label: string;
  /** Ends of file names, such as “.json”, or kinds, such as “image/*”; without it any file. */
  accept?: readonly string[];
  /** A word among others instead of a button. */
  plain?: boolean;
  /** For a finger beside an open machine. */
  large?: boolean;
  onFile: (file: File) => void;
}) {
  const Act = plain ? Word : Quiet;
  const { entry, taking } = useEntry(([file]) => file && onFile(file));
  return (
    <FileUpload.Root
      maxFiles={1}
      {...(accept ? { accept: [...accept] } : {})}
      {...taking}
      width="auto"
      display="inline-flex"
    >
      <FileUpload.HiddenInput ref={entry} aria-label={label} />
      <FileUpload.Trigger asChild>
        <Act {...(large ? { size: 'lg' } : {})}>
          {!plain && <FolderOpen aria-hidden="true" />}
          {label}
        </Act>
      </FileUpload.Trigger>
    </FileUpload.Root>
  );
}
