import { Combobox, createListCollection } from '@chakra-ui/react';
import Fuse, { type FuseResult } from 'fuse.js';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { findEntries, theBench, type Bench } from '@zb/core/model/bench';
import type { FindEntry } from '@zb/core/model/collection';
import { inTurns } from '../parts/inTurns';
import { Dialog } from '../ui/Dialog';
import { Soft } from '../ui/Words';

const SHOWN = 9;
/** So many entries are searched at once; of more than twice as many in turns. */
const CHUNK = 500;
const FEW = 2 * CHUNK;
const OPTIONS = {
  keys: [{ name: 'title', weight: 2 }, 'detail'],
  threshold: 0.32,
  ignoreLocation: true,
  includeScore: true,
};

/** Things come before the lines that speak of them. */
const spoken = (e: FindEntry): number => Number(e.detail.startsWith('log,'));

const best = (hits: readonly FuseResult<FindEntry>[]): FindEntry[] =>
  [...hits]
    .sort((a, b) => spoken(a.item) - spoken(b.item) || (a.score ?? 0) - (b.score ?? 0))
    .slice(0, SHOWN)
    .map((h) => h.item);

/** The first entries, without making the others. */
function firstOf(bench: Bench): FindEntry[] {
  const out: FindEntry[] = [];
  for (const entry of findEntries(bench)) {
    out.push(entry);
    if (out.length === SHOWN) break;
  }
  return out;
}

/** Indexes of so many entries each, made in turns. */
async function indexed(bench: Bench): Promise<Fuse<FindEntry>[]> {
  const entries: FindEntry[] = [];
  await inTurns(findEntries(bench), (entry) => entries.push(entry));
  const indexes: Fuse<FindEntry>[] = [];
  const from = Array.from({ length: Math.ceil(entries.length / CHUNK) }, (_, i) => i * CHUNK);
  await inTurns(from, (at) => indexes.push(new Fuse(entries.slice(at, at + CHUNK), OPTIONS)));
  return indexes;
}

/** What is found, worked out in turns while the page is typed into; what was found last stays until then. */
function useHits(bench: Bench, open: boolean, words: string): FindEntry[] {
  const records = useMemo(
    () => theBench.names.reduce((n, c) => n + theBench.records(bench, c).length, 0),
    [bench],
  );
  const few = useMemo(
    () => (open && records <= FEW ? new Fuse([...findEntries(bench)], OPTIONS) : undefined),
    [bench, open, records],
  );
  const first = useMemo(() => (open ? firstOf(bench) : []), [bench, open]);
  const indexes = useRef(new WeakMap<Bench, Promise<Fuse<FindEntry>[]>>());
  const [found, setFound] = useState<FindEntry[]>([]);
  useEffect(() => {
    if (!open || few || words.trim() === '') return undefined;
    let live = true;
    const search = async (): Promise<void> => {
      const made = indexes.current.get(bench) ?? indexed(bench);
      indexes.current.set(bench, made);
      const hits: FuseResult<FindEntry>[] = [];
      await inTurns(
        await made,
        (fuse) => hits.push(...fuse.search(words, { limit: SHOWN })),
        () => live,
      );
      if (live) setFound(best(hits));
    };
    void search();
    return () => {
      live = false;
    };
  }, [bench, open, few, words]);
  if (words.trim() === '') return first;
  return few ? best(few.search(words)) : found;
}

/** Find anything: boxes, stops, machines, drives, images, profiles, log lines. `typed` is what was typed before it stood. */
export default function Find({
  bench,
  typed,
  onClose,
}: {
  bench: Bench;
  typed: () => string;
  onClose: () => void;
}) {
  const [words, setWords] = useState(typed);
  // The first that was found is what Enter goes to, until another is walked to.
  const [at, setAt] = useState<string | null>(null);
  const go = useNavigate();
  const input = useRef<HTMLInputElement>(null);
  const hits = useHits(bench, true, words);
  const collection = useMemo(
    () =>
      createListCollection({
        items: hits.map((h, i) => ({ ...h, value: `${i} ${h.path}` })),
        itemToString: (h) => h.title,
        itemToValue: (h) => h.value,
      }),
    [hits],
  );
  return (
    <Dialog open onClose={onClose} title="Find" focusOn={() => input.current}>
      <Combobox.Root
        open
        collection={collection}
        highlightedValue={
          collection.items.some((i) => i.value === at) ? at : (collection.items[0]?.value ?? null)
        }
        onHighlightChange={(e) => setAt(e.highlightedValue)}
        inputValue={words}
        onInputValueChange={(e) => e.reason !== 'item-select' && setWords(e.inputValue)}
        value={[]}
        onValueChange={(e) => {
          const [hit] = e.items as FindEntry[];
          if (!hit) return;
          onClose();
          void go(hit.path);
        }}
      >
        <Combobox.Label srOnly>Find anything on the bench</Combobox.Label>
        <Combobox.Control>
          <Combobox.Input
            ref={input}
            placeholder="A name, a serial, a word from the log"
            onFocus={() => setWords((now) => now + typed())}
          />
        </Combobox.Control>
        <Combobox.Content marginTop="2" border="none" aria-label="Found">
          {collection.items.map((h) => (
            <Combobox.Item key={h.value} item={h}>
              <Combobox.ItemText>
                <b>{h.title}</b> <Soft>{h.detail}</Soft>
              </Combobox.ItemText>
            </Combobox.Item>
          ))}
        </Combobox.Content>
      </Combobox.Root>
      {hits.length === 0 && <Soft>Nothing on the bench has these words.</Soft>}
    </Dialog>
  );
}
