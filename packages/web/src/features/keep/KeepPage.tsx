import { useDeferredValue, useMemo, useState } from 'react';
import { removeBox, updateBox } from '@zb/core/acts/box';
import { buildSheet } from '@zb/core/words/buildSheet';
import { keepHeadline } from '@zb/core/words/logbook';
import { findBox, logOf } from '@zb/core/model/bench';
import { useNavigate } from 'react-router';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Quiet } from '../../ui/Button';
import { BuildSheet } from './BuildSheet';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { LogTable } from '../../parts/LogTable';
import { Dialog } from '../../ui/Dialog';
import { usePrinting } from '../../parts/usePrinting';
import { download, fileName } from '../../storage/download';
import { useAct } from '../../storage/hooks';

function KeepPage({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const act = useAct();
  const go = useNavigate();
  const [viewing, setViewing] = useState(false);
  const printing = usePrinting();
  const [name, setName] = useState(box.name);
  // What was done is on the screen first; the sheet for print and saving follows it.
  const later = useDeferredValue(bench);
  const sheet = useMemo(() => buildSheet(later, findBox(later, box.id) ?? box), [later, box]);
  return (
    <BoxFrame
      context={context}
      stop="keep"
      headline={keepHeadline(bench, box)}
      acts={
        <>
          <Quiet onClick={() => download(fileName(box.name, 'md'), sheet, 'text/markdown')}>
            Save the build sheet
          </Quiet>
          <Quiet onClick={() => setViewing(true)}>View it</Quiet>
          <Quiet onClick={() => window.print()}>Print</Quiet>
        </>
      }
    >
      {printing && (
        <div className="print-only">
          <BuildSheet text={sheet} />
        </div>
      )}
      <div className="stack no-print">
        {box.decisions.length > 0 && (
          <div>
            <h2 className="h6">Decisions</h2>
            {box.decisions.map((d) => (
              <p key={d.id}>
                <b>
                  {d.what}: {d.value}.
                </b>{' '}
                {d.because}
              </p>
            ))}
          </div>
        )}
        <LogEntryForm box={box} stop="keep" />
        <LogTable entries={logOf(bench, box.id)} />
        <details className="why">
          <summary>Rename or remove this box</summary>
          <form
            className="actions"
            onSubmit={(e) => {
              e.preventDefault();
              if (name.trim())
                void act(updateBox(box, { name: name.trim() }, `Box renamed “${name.trim()}”`));
            }}
          >
            <input
              className="in"
              style={{ width: 260 }}
              aria-label="Name of the box"
              maxLength={200}
              value={name}
              onChange={(e) => setName(e.target.value)}
            />
            <Quiet type="submit">Rename</Quiet>
            <Quiet
              onClick={() => {
                void act(removeBox(bench, box));
                void go('/shelf');
              }}
            >
              Remove the box and its log
            </Quiet>
          </form>
        </details>
      </div>
      <Dialog open={viewing} onClose={() => setViewing(false)} title="Build sheet" size="lg">
        <BuildSheet text={sheet} />
      </Dialog>
    </BoxFrame>
  );
}

export default withBox(KeepPage);
