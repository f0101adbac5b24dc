import { Stack } from '@chakra-ui/react';
import type { Bench } from '@zb/core/model/bench';
import type { Cut, HostCut } from '@zb/core/network/cut';
import { goneAfter, type Gone } from '@zb/core/network/forBox';
import { cutPlayedWords, cutWords, goneWords, illOrderWords } from '@zb/core/words/lan';
import type { Elsewhere } from '../workers/elsewhere';
import { Dialog } from '../ui/Dialog';
import { VerdictMark, type MarkKind } from '../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../ui/Ruled';
import { Said } from '../ui/Said';
import { Data, Sub } from '../ui/Words';
import { Working } from '../ui/Working';

const MARK: Record<HostCut['fate'], MarkKind> = {
  same: 'yes',
  'may move': 'change',
  shared: 'change',
  perhaps: 'ask',
  'not told': 'ask',
};

/** What a cut does to one host. */
export function CutFate({ cut, of }: { cut: HostCut | undefined; of: Cut | null }) {
  if (!cut) return <Sub>being played</Sub>;
  const { word, sub } = cutWords(cut, of?.worlds ?? null);
  return (
    <>
      <VerdictMark kind={MARK[cut.fate]}>{word}</VerdictMark>
      {sub !== '' && <Sub>{sub}</Sub>}
    </>
  );
}

/** The power is cut: who comes back where, in which order it goes wrong. */
export function CutDialog({
  open,
  onClose,
  bench,
  cut,
  nameOf,
}: {
  open: boolean;
  onClose: () => void;
  bench: Bench;
  cut: Elsewhere<Cut, 'stopped'>;
  nameOf: (id: string) => string;
}) {
  const { found, share } = cut;
  const gone = found ? goneAfter(bench, found) : new Map<string, Gone[]>();
  return (
    <Dialog open={open} onClose={onClose} title="The power is gone, and comes back" size="lg">
      <Stack gap="3">
        {share !== null && (
          <Working
            label="Every order of returns"
            done={share}
            whole={1}
            says="counted exactly while they can be"
            onCancel={cut.cancel}
          />
        )}
        {found && (
          <>
            <Said>{cutPlayedWords(found)}</Said>
            <Ruled
              stacked
              label="Hosts after the cut"
              heads={['Host', 'Had', 'Afterwards', 'Where it may be', 'How it comes to it']}
            >
              {found.hosts.map((h) => (
                <Line key={h.id}>
                  <LineHead>{nameOf(h.id)}</LineHead>
                  <Cell>
                    <Data>{h.had ?? 'not known'}</Data>
                  </Cell>
                  <Cell>
                    <CutFate cut={h} of={found} />
                  </Cell>
                  <Cell>
                    <Data>{h.fate === 'same' ? '' : h.at.join(', ')}</Data>
                  </Cell>
                  <Cell whole>
                    {illOrderWords(h, nameOf)}
                    {gone.has(h.id) && (
                      <Sub color="check">gone with it: {goneWords(gone.get(h.id) ?? [])}</Sub>
                    )}
                  </Cell>
                </Line>
              ))}
            </Ruled>
          </>
        )}
      </Stack>
    </Dialog>
  );
}
