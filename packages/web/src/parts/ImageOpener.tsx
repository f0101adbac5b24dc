import { useRef, useState } from 'react';
import { Primary } from '../ui/Button';

/** Opens image files by button or by drop. */
export function ImageOpener({
  onFiles,
  several = false,
}: {
  /** At least one file; only the first is used where not several are wanted. */
  onFiles: (files: File[]) => void;
  several?: boolean;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const take = (files: File[]): void => {
    const wanted = several ? files : files.slice(0, 1);
    if (wanted.length > 0) onFiles(wanted);
  };
  return (
    <div
      className={over ? 'drop over actions' : 'drop actions'}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        take([...e.dataTransfer.files]);
      }}
    >
      <Primary onClick={() => input.current?.click()}>
        {several ? 'Open image files' : 'Open an image file'}
      </Primary>
      <span className="soft">
        {several
          ? 'or drop them here, packed or not. They stay on this machine; any size.'
          : 'or drop it here, packed or not. It stays on this machine; any size.'}
      </span>
      <input
        ref={input}
        type="file"
        multiple={several}
        className="hidden-text"
        aria-label="Image file"
        tabIndex={-1}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = '';
          take(files);
        }}
      />
    </div>
  );
}
