import { FileUpload } from '@chakra-ui/react';
import { FolderOpen } from 'lucide-react';
import { Quiet } from './Button';
import { useEntry } from './useEntry';

/** An act that opens a whole folder to be read; nothing is sent anywhere, nothing is changed. */
export function PickFolder({ label, onFiles }: { label: string; onFiles: (files: File[]) => void }) {
  const { entry, take } = useEntry(onFiles);
  return (
    <FileUpload.Root directory maxFiles={5_000_000} acceptedFiles={[]} width="auto" display="inline-flex">
      <FileUpload.HiddenInput
        ref={entry}
        aria-label={label}
        onInputCapture={(event) => {
          // Taken before the library sees them, which holds each against each other: half a minute for ten thousand.
          take([...(event.currentTarget.files ?? [])]);
        }}
      />
      <FileUpload.Trigger asChild>
        <Quiet>
          <FolderOpen aria-hidden="true" />
          {label}
        </Quiet>
      </FileUpload.Trigger>
    </FileUpload.Root>
  );
}
