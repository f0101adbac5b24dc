import { FileDrop } from '../ui/FileDrop';

/** Opens image files by button or by drop. */
export const ImageOpener = ({
  onFiles,
  several = false,
}: {
  /** At least one file; only the first is used where not several are wanted. */
  onFiles: (files: File[]) => void;
  several?: boolean;
}) => (
  <FileDrop
    label={several ? 'Image files' : 'Image file'}
    act={several ? 'Open image files' : 'Open an image file'}
    words={
      several
        ? 'or drop them here, packed or not. They stay on this machine; any size.'
        : 'or drop it here, packed or not. It stays on this machine; any size.'
    }
    several={several}
    onFiles={onFiles}
  />
);
