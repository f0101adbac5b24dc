import { useState } from 'react';
import { recall, remember } from '../storage/remembered';
import { Word } from '../ui/Button';
import { canAsk } from './systemNotice';

/** Whether the system was asked to tell of waits as well; it is asked once. */
const ASKED = 'zb-waits-asked';

/** Asks whether the system may tell of waits too; gone once it was asked. */
export function TellMe({ children }: { children: string }) {
  const [asked, setAsked] = useState(() => !canAsk() || recall(ASKED) !== null);
  if (asked) return null;
  const ask = (): void => {
    remember(ASKED, 'yes');
    setAsked(true);
    void Notification.requestPermission();
  };
  return <Word onClick={ask}>{children}</Word>;
}
