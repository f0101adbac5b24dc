import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { dropUser, editSharing, turnRight } from '@zb/core/acts/storage';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import type { SharedFolder } from '@zb/core/model/sharing';
import { draftFolder, type BoxSharing } from '@zb/core/storage/share/forBox';
import { rightOf } from '@zb/core/storage/share/rights';
import { protocolWords } from '@zb/core/words/sharing';
import { useAct } from '../../storage/hooks';
import { Primary, Quiet, Word } from '../../ui/Button';
import { Nothing } from '../../ui/Nothing';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Acts, Data, Head, Sub } from '../../ui/Words';
import { FolderForm, FoundForm, LinkForm, UserForm } from './ShareForms';
import { ShareTree } from './ShareTree';

const MARK = { none: '–', read: 'reads', write: 'writes' } as const;

type Open =
  | { what: 'folder'; folder: SharedFolder }
  | { what: 'user' }
  | { what: 'found' }
  | { what: 'link'; id: string | null }
  | null;

/** Folders against users: who may read and who may write; then links, and how the box is found. */
export function Shares({ bench, box, found }: { bench: Bench; box: Build; found: BoxSharing }) {
  const act = useAct();
  const [open, setOpen] = useState<Open>(null);
  const { sharing, name } = found;
  const close = (): void => setOpen(null);
  const add = (): void => setOpen({ what: 'folder', folder: draftFolder(found, crypto.randomUUID(), '') });
  const forms = (
    <>
      {open?.what === 'folder' && <FolderForm bench={bench} box={box} folder={open.folder} onClose={close} />}
      {open?.what === 'user' && <UserForm bench={bench} box={box} onClose={close} />}
      {open?.what === 'found' && <FoundForm bench={bench} box={box} found={found} onClose={close} />}
      {open?.what === 'link' && (
        <LinkForm
          bench={bench}
          box={box}
          link={sharing.links.find((l) => l.id === open.id) ?? null}
          onClose={close}
        />
      )}
    </>
  );
  if (sharing.folders.length === 0)
    return (
      <>
        <Nothing
          title="No folder is shared"
          words="Nothing is open to anybody unasked: name a folder, then who may read and who may write."
        >
          <Primary onClick={add}>Name a folder</Primary>
        </Nothing>
        {forms}
      </>
    );
  const columns = [...sharing.users, 'guests' as const];
  return (
    <Stack gap="5">
      <Box as="section" aria-label="Who may what">
        <Head marginBottom="1">Who may what: press to turn it</Head>
        <Ruled
          stacked
          label="Folders and users"
          heads={[
            'Folder',
            'Over',
            ...columns.map((u) => ({
              words:
                u === 'guests' ? (
                  'guests'
                ) : (
                  <>
                    {u.name} <Sub>{u.full}</Sub>
                  </>
                ),
            })),
          ]}
        >
          {sharing.folders.map((f) => (
            <Line key={f.id}>
              <LineHead>
                <Word onClick={() => setOpen({ what: 'folder', folder: f })}>{f.name}</Word>
                <Sub>
                  <Data overflowWrap="anywhere">{f.path}</Data>
                  {f.binDays !== null && `, bin for ${f.binDays} days`}
                </Sub>
              </LineHead>
              <Cell>{f.protocols.map(protocolWords).join(', ')}</Cell>
              {columns.map((u) => {
                const now = rightOf(f, u === 'guests' ? 'guest' : { user: u.id });
                return (
                  <Cell key={u === 'guests' ? 'guests' : u.id}>
                    <Word
                      fontWeight={now === 'write' ? 'strong' : 'normal'}
                      aria-label={`${f.name}, ${u === 'guests' ? 'guests' : u.name}: ${now === 'none' ? 'nothing' : MARK[now]}`}
                      onClick={() => void act(turnRight(bench, box, f, u))}
                    >
                      {MARK[now]}
                    </Word>
                  </Cell>
                );
              })}
            </Line>
          ))}
        </Ruled>
        <Acts marginTop="2">
          <Quiet onClick={add}>Another folder</Quiet>
          <Quiet onClick={() => setOpen({ what: 'user' })}>Another user</Quiet>
          {sharing.users.map((u) => (
            <Word key={u.id} onClick={() => void act(dropUser(bench, box, u))}>
              take {u.name} off
            </Word>
          ))}
        </Acts>
      </Box>
      <Box as="section" aria-label="How it is found">
        <Head marginBottom="1">How it is found</Head>
        By the name <Data>{name}</Data>, from{' '}
        <Data>{sharing.from.length > 0 ? sharing.from.join(', ') : 'nowhere'}</Data>; nothing comes in from
        elsewhere. <Word onClick={() => setOpen({ what: 'found' })}>change</Word>
      </Box>
      <ShareTree
        sharing={sharing}
        onLink={(id) => setOpen({ what: 'link', id })}
        onDrop={(link) =>
          void act(
            editSharing(
              bench,
              box,
              { links: sharing.links.filter((l) => l.id !== link.id) },
              `${link.at} taken away`,
            ),
          )
        }
      />
      {forms}
    </Stack>
  );
}
