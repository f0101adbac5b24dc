import { useRef, useState } from 'react';
import { Grade } from './Marks';
import { Dialog } from '../ui/Dialog';
import { Primary, Quiet } from '../ui/Button';

/** Asked before a stop is signed off with a Stop against it: the hazards again, and a reason that goes on record. */
export function SignDespite({
  title,
  against,
  onSign,
  onClose,
}: {
  title: string;
  against: readonly string[];
  onSign: (reason: string) => void;
  onClose: () => void;
}) {
  const [reason, setReason] = useState('');
  const input = useRef<HTMLInputElement>(null);
  return (
    <Dialog
      open
      onClose={onClose}
      title={`${title} has a Stop against it`}
      size="md"
      focusOn={() => input.current}
    >
      <form
        className="stack"
        onSubmit={(e) => {
          e.preventDefault();
          if (reason.trim()) onSign(reason.trim());
        }}
      >
        {against.map((text) => (
          <p key={text} className="said said-stop">
            <Grade grade="stop" /> {text}
          </p>
        ))}
        <label className="field">
          <span>Deal with it first. To go on all the same, say why; the log keeps it.</span>
          <input
            ref={input}
            className="in"
            maxLength={300}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
        </label>
        <div className="actions">
          <Primary type="button" onClick={onClose}>
            Back to the stop
          </Primary>
          <Quiet type="submit" disabled={reason.trim() === ''}>
            Sign off all the same
          </Quiet>
        </div>
      </form>
    </Dialog>
  );
}
