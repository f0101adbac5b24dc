import { Box } from '@chakra-ui/react';
import { useState } from 'react';
import { isHost } from '@zb/core/guests/forBox';
import { isGate } from '@zb/core/rules/forBox';
import { keepsThings, storageOf } from '@zb/core/storage/forBox';
import { sharingOf } from '@zb/core/storage/share/forBox';
import { sharingHeadline } from '@zb/core/words/sharing';
import { poolHeadline } from '@zb/core/words/storage';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { Quiet } from '../../ui/Button';
import { Tabs } from '../../ui/Tabs';
import { HostLoad } from './guests/HostLoad';
import { GateLoad } from './gate/GateLoad';
import { Carried } from './Carried';
import { Kept } from './Kept';
import { Margin } from './Margin';
import { Pool } from './Pool';
import { Shares } from './Shares';
import { ShareWritten } from './ShareWritten';
import { ToType } from './ToType';

const SIDES = ['pool', 'shares', 'content', 'copies'] as const;
type Side = (typeof SIDES)[number];

/** Stop 10: what keeps things, who may read them, and what goes on them. */
function LoadPage({ context }: { context: BoxContext }) {
  if (isGate(context.box)) return <GateLoad context={context} />;
  return isHost(context.box) ? <HostLoad context={context} /> : <StoreLoad context={context} />;
}

function StoreLoad({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const found = storageOf(bench, box);
  const [side, setSide] = useState<Side>(keepsThings(bench, box) ? 'pool' : 'content');
  const [open, setOpen] = useState<'pool' | 'shares' | null>(null);
  const shared = sharingOf(bench, box);
  return (
    <BoxFrame
      context={context}
      stop="load"
      headline={
        side === 'shares'
          ? sharingHeadline(box.name, shared.sharing.folders)
          : poolHeadline(box.name, found.chosen, found.drives.length)
      }
      shortcuts={[
        { keys: '1', does: 'the pool', act: () => setSide('pool') },
        { keys: '2', does: 'folders that others reach', act: () => setSide('shares') },
        { keys: '3', does: 'what goes on it', act: () => setSide('content') },
        { keys: '4', does: 'the copies of what matters', act: () => setSide('copies') },
      ]}
      acts={
        <>
          {found.chosen && <Quiet onClick={() => setOpen('pool')}>Make the pool</Quiet>}
          {shared.sharing.folders.length > 0 && (
            <Quiet onClick={() => setOpen('shares')}>Save for its servers</Quiet>
          )}
        </>
      }
      margin={<Margin found={found} box={box} />}
    >
      <Tabs
        label="Load"
        at={side}
        onAt={(id) => setSide(SIDES.find((s) => s === id) ?? 'pool')}
        sides={[
          { id: 'pool', title: 'Pool', body: <Pool box={box} found={found} bench={bench} /> },
          { id: 'shares', title: 'Folders', body: <Shares bench={bench} box={box} found={shared} /> },
          {
            id: 'content',
            title: 'What goes on it',
            body: <Carried bench={bench} box={box} profile={context.profile} />,
          },
          { id: 'copies', title: 'What must not be lost', body: <Kept box={box} /> },
        ]}
      />
      <Box marginTop="6">
        <LogEntryForm box={box} stop="load" kinds={['setting', 'photo']} />
      </Box>
      {open === 'pool' && <ToType box={box} found={found} onClose={() => setOpen(null)} />}
      {open === 'shares' && (
        <ShareWritten
          box={box}
          found={shared}
          onClose={() => setOpen(null)}
          onFolders={() => {
            setOpen(null);
            setSide('shares');
          }}
        />
      )}
    </BoxFrame>
  );
}

export default withBox(LoadPage);
