import { FileUpload } from '@chakra-ui/react';
import { Primary, Quiet } from './Button';
import { useEntry } from './useEntry';
import { Soft } from './Words';

/** A place that takes files, dropped or picked; nothing is sent anywhere. */
export function FileDrop({
  label,
  act,
  words,
  several = false,
  first = true,
  accept,
  onFiles,
}: {
  /** What is taken, for those who hear the page. */
  label: string;
  /** What the button says. */
  act: string;
  /** What is said beside it. */
  words?: string;
  several?: boolean;
  /** Is it the first act of its screen? */
  first?: boolean;
  /** Ends of file names, such as “.json”; without it any file. */
  accept?: readonly string[];
  onFiles: (files: File[]) => void;
}) {
  const { entry, taking } = useEntry((files) => onFiles(several ? files : files.slice(0, 1)));
  return (
    <FileUpload.Root
      maxFiles={100}
      {...(accept ? { accept: [...accept] } : {})}
      translations={{ dropzone: 'Place for what is dropped' }}
      {...taking}
    >
      <FileUpload.HiddenInput ref={entry} aria-label={label} />
      {/* The button opens the files; the place around it takes what is dropped and is no second button. */}
      <FileUpload.Dropzone disableClick role="group" tabIndex={-1}>
        <FileUpload.Trigger asChild>
          {first ? <Primary>{act}</Primary> : <Quiet>{act}</Quiet>}
        </FileUpload.Trigger>
        {words !== undefined && <Soft>{words}</Soft>}
      </FileUpload.Dropzone>
    </FileUpload.Root>
  );
}
