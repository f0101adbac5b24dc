import { useState } from 'react';
import { storageOf } from '@zb/core/storage/forBox';
import { poolHeadline } from '@zb/core/words/storage';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { Quiet } from '../../ui/Button';
import { Tabs } from '../../ui/Tabs';
import { Kept } from './Kept';
import { Margin } from './Margin';
import { Pool } from './Pool';
import { ToType } from './ToType';

const SIDES = ['pool', 'copies'] as const;
type Side = (typeof SIDES)[number];

/** Stop 10: what keeps things, who may read them, and what goes on them. */
function LoadPage({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const found = storageOf(bench, box);
  const [side, setSide] = useState<Side>('pool');
  const [typing, setTyping] = useState(false);
  return (
    <BoxFrame
      context={context}
      stop="load"
      headline={poolHeadline(box.name, found.chosen, found.drives.length)}
      shortcuts={[
        { keys: '1', does: 'the pool', act: () => setSide('pool') },
        { keys: '2', does: 'the copies of what matters', act: () => setSide('copies') },
      ]}
      acts={found.chosen && <Quiet onClick={() => setTyping(true)}>What is typed</Quiet>}
      margin={<Margin found={found} box={box} />}
    >
      <Tabs
        label="Load"
        at={side}
        onAt={(id) => setSide(SIDES.find((s) => s === id) ?? 'pool')}
        sides={[
          { id: 'pool', title: 'Pool', body: <Pool box={box} found={found} bench={bench} /> },
          { id: 'copies', title: 'What must not be lost', body: <Kept box={box} /> },
        ]}
      />
      <LogEntryForm box={box} stop="load" kinds={['setting', 'photo']} />
      {typing && found.chosen && <ToType box={box} found={found} onClose={() => setTyping(false)} />}
    </BoxFrame>
  );
}

export default withBox(LoadPage);
