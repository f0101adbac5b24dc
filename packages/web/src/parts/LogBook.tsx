import { Box, chakra, HStack, Image, Stack } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { findPhoto, type Bench, type LogEntry } from '@zb/core/model/bench';
import { stops, stopTitle } from '@zb/core/model/stops';
import { logKindWords } from '@zb/core/words/logbook';
import { useBench } from '../storage/hooks';
import { Dialog } from '../ui/Dialog';
import { Input } from '../ui/Input';
import { Select } from '../ui/Select';
import { Head, Soft, Sub } from '../ui/Words';
import { LogTable } from './LogTable';

/** So many photographs lie on the strip; the others are in their lines. */
const STRIP = 24;

/** The photographs among these lines as a strip; each opens large. */
function Photos({ entries }: { entries: readonly LogEntry[] }) {
  const bench = useBench();
  const [open, setOpen] = useState<string | null>(null);
  const photos = entries
    .flatMap((e) => {
      const photo = e.kind === 'photo' ? findPhoto(bench, e.photoId) : undefined;
      return photo ? [{ id: e.id, text: e.text, data: photo.data }] : [];
    })
    .slice(0, STRIP);
  if (photos.length === 0) return null;
  const shown = photos.find((p) => p.id === open);
  return (
    <Box as="section" aria-label="Photographs">
      <Head>Photographs</Head>
      <HStack as="ul" gap="2" overflowX="auto" paddingBlock="1" listStyle="none">
        {photos.map((p) => (
          <chakra.li key={p.id} flexShrink="0">
            <chakra.button
              type="button"
              textAlign="start"
              css={{ cursor: 'zoom-in' }}
              onClick={() => setOpen(p.id)}
            >
              <Image src={p.data} alt="" border="firm" css={{ height: '84px' }} />
              <Sub truncate css={{ maxWidth: '120px' }}>
                {p.text}
              </Sub>
            </chakra.button>
          </chakra.li>
        ))}
      </HStack>
      <Dialog open={shown !== undefined} onClose={() => setOpen(null)} title={shown?.text ?? ''} size="lg">
        {shown && <Image src={shown.data} alt={shown.text} border="firm" />}
      </Dialog>
    </Box>
  );
}

/** The log with its photographs, and what narrows it: the box, the stop, the kind of line, a word. */
export function LogBook({ entries, bench }: { entries: readonly LogEntry[]; bench?: Bench }) {
  const [boxId, setBoxId] = useState('');
  const [stop, setStop] = useState('');
  const [kind, setKind] = useState('');
  const [words, setWords] = useState('');
  const kinds = useMemo(() => [...new Set(entries.map((e) => e.kind))].sort(), [entries]);
  const shown = useMemo(() => {
    const wanted = words.trim().toLowerCase();
    return entries.filter(
      (e) =>
        (boxId === '' || (boxId === 'bench' ? e.boxId === null : e.boxId === boxId)) &&
        (stop === '' || e.stop === stop) &&
        (kind === '' || e.kind === kind) &&
        (wanted === '' || e.text.toLowerCase().includes(wanted)),
    );
  }, [entries, boxId, stop, kind, words]);
  return (
    <Stack gap="3">
      {entries.length > 0 && (
        <HStack
          gap="3"
          align="flex-end"
          flexWrap="wrap"
          _print={{ display: 'none' }}
          role="search"
          aria-label="Narrow the log"
        >
          {bench && (
            <Select
              label="Box"
              width="field"
              none="all boxes"
              value={boxId}
              onChange={(e) => setBoxId(e.target.value)}
              options={[
                { value: 'bench', words: 'the bench itself' },
                ...bench.boxes.map((b) => ({ value: b.id, words: b.name })),
              ]}
            />
          )}
          <Select
            label="At stop"
            width="auto"
            none="all stops"
            value={stop}
            onChange={(e) => setStop(e.target.value)}
            options={stops.map((s) => ({ value: s, words: stopTitle[s] }))}
          />
          <Select
            label="Kind of line"
            width="auto"
            none="all kinds"
            value={kind}
            onChange={(e) => setKind(e.target.value)}
            options={kinds.map((k) => ({ value: k, words: logKindWords[k] }))}
          />
          <Input
            label="With the word"
            width="field"
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
          <Soft role="status">
            {shown.length === entries.length
              ? `${entries.length} lines`
              : `${shown.length} of ${entries.length} lines`}
          </Soft>
        </HStack>
      )}
      <Photos entries={shown} />
      {entries.length > 0 && shown.length === 0 ? (
        <Soft>No line is like that. Widen what narrows it.</Soft>
      ) : (
        <LogTable entries={shown} {...(bench ? { bench } : {})} />
      )}
    </Stack>
  );
}
