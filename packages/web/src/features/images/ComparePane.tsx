import { Box, Stack, Text } from '@chakra-ui/react';
import { differenceWords, treeTitle } from '@zb/core/words/compare';
import { dumpWords } from '@zb/core/words/readback';
import { useRef, useState } from 'react';
import type { ImageComparison } from '@zb/core/write/compareImages';
import type { ImageItem } from '@zb/core/model/bench';
import { formatExact, formatIec } from '@zb/core/units/bytes';
import { Fold } from '../../ui/Fold';
import { Stamp } from '../../ui/Marks';
import { PickFile } from '../../ui/PickFile';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Data, Head, Sub } from '../../ui/Words';
import { Working } from '../../ui/Working';
import { compareFiles, type Comparing } from '../../workers/openImages';

/** How many paths of a tree are listed before the rest is counted. */
const SHOWN = 12;

function Paths({ title, paths }: { title: string; paths: string[] }) {
  if (paths.length === 0) return null;
  return (
    <Text>
      {title}: <Data>{paths.slice(0, SHOWN).join(', ')}</Data>
      {paths.length > SHOWN && ` and ${paths.length - SHOWN} more`}
    </Text>
  );
}

function Result({ found, first, second }: { found: ImageComparison; first: string; second: string }) {
  const { blocks, differences, trees } = found;
  const proven = blocks.result === 'proven';
  return (
    <Stack gap="2">
      <Said kind={proven ? 'proven' : 'stop'} loud={false}>
        <Stamp kind={proven ? 'good' : 'stop'}>{proven ? 'SAME BYTES' : blocks.pattern.toUpperCase()}</Stamp>{' '}
        {dumpWords(blocks)}
      </Said>
      {blocks.firstByte !== null && (
        <Sub>
          First difference at byte <Data>{blocks.firstByte}</Data>; {formatExact(blocks.differingBytes)}{' '}
          differ, in {blocks.differing} blocks of {formatIec(blocks.blockBytes)}
          {blocks.stretches.length > 0 &&
            `: ${blocks.stretches.map((s) => `${s.title} (${s.blocks})`).join(', ')}`}
          .
        </Sub>
      )}
      {differences.length > 0 && (
        <Ruled label="What differs" heads={['What differs', first, second]}>
          {differences.map(differenceWords).map((d) => (
            <Line key={d.what}>
              <LineHead>{d.what}</LineHead>
              <Cell>{d.first}</Cell>
              <Cell>{d.second}</Cell>
            </Line>
          ))}
        </Ruled>
      )}
      {trees?.map((t) => (
        <Box key={treeTitle(t)}>
          <Head as="h3">Files on {treeTitle(t)}</Head>
          <Text>
            {t.same} are the same by path and size.{' '}
            {t.onlyInFirst.length + t.onlyInSecond.length + t.sizes.length === 0 && 'None differs.'}
          </Text>
          <Paths title={`Only in ${first}`} paths={t.onlyInFirst} />
          <Paths title={`Only in ${second}`} paths={t.onlyInSecond} />
          <Paths title="Other sizes" paths={t.sizes.map((s) => `${s.path} (${s.first} and ${s.second})`)} />
        </Box>
      ))}
    </Stack>
  );
}

/** Holds an image against a dump of the stick it was written to, or against another image. */
export function ComparePane({ image, file }: { image: ImageItem; file: File | undefined }) {
  const [own, setOwn] = useState<File | null>(null);
  const [dump, setDump] = useState<File | null>(null);
  const [state, setState] = useState<Comparing | null>(null);
  const [problem, setProblem] = useState('');
  const first = file ?? own;
  const latest = useRef(0);
  const begin = (a: File, b: File): void => {
    // Another file chosen while one is compared: the first is called off, and nothing it still says is shown.
    if (state?.found === undefined) state?.cancel();
    latest.current += 1;
    const mine = latest.current;
    setDump(b);
    setProblem('');
    const tell = (now: Comparing): void => {
      if (latest.current === mine) setState(now);
    };
    compareFiles(a, b, tell).catch((error: unknown) => {
      if (latest.current !== mine) return;
      setState(null);
      setProblem(
        `The files could not be read to the end (${error instanceof Error ? error.message : String(error)}). Nothing was changed; open them again.`,
      );
    });
  };
  return (
    <Fold title="Compare with a dump of the stick, or with another image">
      <Stack gap="2" align="flex-start">
        {!file && (
          <PickFile
            label={own ? `${own.name} is open` : `Open ${image.name} again: the browser forgets files`}
            onFile={(f) => {
              if (f.size === image.bytes) setOwn(f);
              else setProblem('That is another file: its size differs. Nothing was changed.');
            }}
          />
        )}
        {first && <PickFile label="Dump or other image" onFile={(f) => begin(first, f)} />}
        {problem !== '' && <Said kind="stop">{problem}</Said>}
        {state && state.found === undefined && (
          <Working label="Comparing" done={state.done} whole={state.total} onCancel={state.cancel} />
        )}
        {state?.found === null && <Said kind="check">Cancelled. Nothing was kept.</Said>}
        {state?.found && <Result found={state.found} first={image.name} second={dump?.name ?? 'the other'} />}
      </Stack>
    </Fold>
  );
}
