import { useEffect, useRef } from 'react';
import { useNotice, useStore } from '../storage/hooks';
import { sayDone, Toaster } from '../ui/toaster';

/** Says what was done, at the foot of the page, with the way to take it back. */
export default function SaidActs() {
  const store = useStore();
  const { status, said, undoable } = useNotice();
  const last = useRef(0);
  useEffect(() => {
    if (said === last.current || status === '') return;
    last.current = said;
    // The place where it is shown listens only once it stands; what is said to it before is lost.
    setTimeout(() => sayDone(status, undoable ? () => void store.undo() : undefined));
  }, [status, said, undoable, store]);
  return <Toaster />;
}
