import { useRef, useState } from 'react';
import { Primary } from '../ui/Button';
import { Dialog } from '../ui/Dialog';

/** Asks for the reason before a limit of the trade is set aside; the log keeps it. */
export function Overrule({
  title,
  because,
  onOverrule,
  onClose,
}: {
  title: string;
  because: string;
  onOverrule: (reason: string) => void;
  onClose: () => void;
}) {
  const [reason, setReason] = useState('');
  const field = useRef<HTMLTextAreaElement>(null);
  return (
    <Dialog open onClose={onClose} title={`Set a limit aside: ${title}`} focusOn={() => field.current}>
      <form
        className="stack"
        onSubmit={(e) => {
          e.preventDefault();
          if (reason.trim() !== '') onOverrule(reason.trim());
        }}
      >
        <p>{because}</p>
        <label className="field">
          <span>Why it does not count here</span>
          <textarea
            ref={field}
            className="in"
            value={reason}
            maxLength={500}
            onChange={(e) => setReason(e.target.value)}
          />
          <span className="sub">The log keeps the reason; the limit can be made to count again.</span>
        </label>
        <div>
          <Primary type="submit" disabled={reason.trim() === ''}>
            Set it aside
          </Primary>
        </div>
      </form>
    </Dialog>
  );
}
