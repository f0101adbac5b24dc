import { useEffect, useMemo, useRef, useState } from 'react';
import { waitsOf, type Wait } from '@zb/core/box/waits';
import type { Bench } from '@zb/core/model/bench';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { tellSystem } from '../parts/systemNotice';
import { TellMe } from '../parts/TellMe';
import { Word } from '../ui/Button';
import { To } from '../ui/To';
import { Notice } from './Notice';

/** No timer of a browser runs longer. Milliseconds. */
const LONGEST_MS = 2 ** 31 - 1;

const titleOf = (w: Wait): string => `${w.box}: ${runStepWords(w.step.what).title}`;

/** Says above the sheet when something that went on by itself should be done. */
export default function Waits({ bench }: { bench: Bench }) {
  const waits = useMemo(() => waitsOf(bench), [bench]);
  const [over, setOver] = useState<ReadonlySet<string>>(new Set());
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  // What was over before anybody opened the page is said on the page alone.
  const [opened] = useState(() => Date.now());
  const told = useRef(new Set<string>());
  useEffect(() => {
    const timers = waits.map((w) =>
      setTimeout(
        () => {
          setOver((known) => new Set(known).add(w.key));
          if (Date.parse(w.ends) < opened || told.current.has(w.key)) return;
          told.current.add(w.key);
          void tellSystem({
            title: 'A wait should be over',
            body: titleOf(w),
            tag: w.key,
            to: `/box/${w.boxId}/run`,
          });
        },
        Math.min(LONGEST_MS, Math.max(0, Date.parse(w.ends) - Date.now())),
      ),
    );
    return () => timers.forEach(clearTimeout);
  }, [waits, opened]);
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
                <TellMe>Tell me outside this page too</TellMe>
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
