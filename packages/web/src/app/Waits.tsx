import { useEffect, useMemo, useState } from 'react';
import { waitsOf, type Wait } from '@zb/core/box/waits';
import type { Bench } from '@zb/core/model/bench';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { recall, remember } from '../storage/remembered';
import { Word } from '../ui/Button';
import { To } from '../ui/To';
import { Notice } from './Notice';

/** Whether the system was asked to tell it as well; it is asked once. */
const ASKED = 'zb-waits-asked';
/** No timer of a browser runs longer. Milliseconds. */
const LONGEST_MS = 2 ** 31 - 1;

const titleOf = (w: Wait): string => `${w.box}: ${runStepWords(w.step.what).title}`;

/** Tells the system, where it may be told: the page may be behind others. */
function tellSystem(w: Wait): void {
  if (typeof Notification === 'undefined' || Notification.permission !== 'granted') return;
  new Notification('A wait should be over', { body: titleOf(w), tag: w.key });
}

/** Says above the sheet when something that went on by itself should be done. */
export default function Waits({ bench }: { bench: Bench }) {
  const waits = useMemo(() => waitsOf(bench), [bench]);
  const [over, setOver] = useState<ReadonlySet<string>>(new Set());
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [asked, setAsked] = useState(() => typeof Notification === 'undefined' || recall(ASKED) !== null);
  useEffect(() => {
    const timers = waits.map((w) =>
      setTimeout(
        () => {
          setOver((known) => {
            if (!known.has(w.key)) tellSystem(w);
            return new Set(known).add(w.key);
          });
        },
        Math.min(LONGEST_MS, Math.max(0, Date.parse(w.ends) - Date.now())),
      ),
    );
    return () => timers.forEach(clearTimeout);
  }, [waits]);
  const ask = (): void => {
    remember(ASKED, 'yes');
    setAsked(true);
    void Notification.requestPermission();
  };
  return (
    <>
      {waits
        .filter((w) => over.has(w.key) && !hidden.has(w.key))
        .map((w) => (
          <Notice
            key={w.key}
            told
            end={
              <>
                <To to={`/box/${w.boxId}/run`}>Go to it</To>
                {!asked && <Word onClick={ask}>Tell me outside this page too</Word>}
                <Word onClick={() => setHidden(new Set(hidden).add(w.key))}>Hide this line</Word>
              </>
            }
          >
            A wait should be over. <b>{titleOf(w)}</b>
          </Notice>
        ))}
    </>
  );
}
