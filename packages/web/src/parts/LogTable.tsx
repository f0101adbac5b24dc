import { Box, chakra, Image } from '@chakra-ui/react';
import { memo, useMemo } from 'react';
import { findPhoto, type Bench, type LogEntry } from '@zb/core/model/bench';
import { stopTitle } from '@zb/core/model/stops';
import { formatDuration, formatSpan } from '@zb/core/units/duration';
import { useBench } from '../storage/hooks';
import { lineAsCard } from '../theme/cards';
import { Moment } from '../ui/Moment';
import { Ruled } from '../ui/Ruled';
import { To } from '../ui/To';
import { Data, Soft, Sub } from '../ui/Words';
import { Room } from './Room';
import { useSeenRows } from './useSeenRows';

function LogPhoto({ id, what }: { id: string | null; what: string }) {
  const photo = findPhoto(useBench(), id);
  return photo ? (
    <Image src={photo.data} alt={what} maxWidth="field" border="firm" marginTop="1" />
  ) : (
    <Sub>the photo is gone</Sub>
  );
}

/** One line of the log. Its cells have their look from the table around them: there are very many. */
const LogLine = memo(function LogLine({
  entry: e,
  box,
  withBox,
}: {
  entry: LogEntry;
  box: { id: string; name: string } | undefined;
  withBox: boolean;
}) {
  return (
    <>
      <td data-when="">
        <Moment at={e.at} />
      </td>
      {withBox && <td>{box ? <To to={`/box/${box.id}/keep`}>{box.name}</To> : <Soft>bench</Soft>}</td>}
      <td data-stop="">{e.stop ? stopTitle[e.stop] : '—'}</td>
      <td data-whole="">
        {e.text}
        {e.kind === 'setting' && (
          <>
            : <Data>{e.from}</Data> → <Data>{e.to}</Data>
          </>
        )}
        {e.kind === 'photo' && <LogPhoto id={e.photoId} what={e.text} />}
      </td>
      <td data-told="" data-num="">
        {e.kind === 'write' && e.predicted ? formatSpan(e.predicted) : ''}
      </td>
      <td data-told="" data-num="">
        {(e.kind === 'write' || e.kind === 'hash') && e.seconds > 0 ? formatDuration(e.seconds) : ''}
      </td>
    </>
  );
});

/** The log, newest first; predictions stand beside what was measured. */
export function LogTable({ entries, bench }: { entries: readonly LogEntry[]; bench?: Bench }) {
  const sorted = useMemo(() => [...entries].sort((a, b) => (a.at < b.at ? 1 : -1)), [entries]);
  const boxes = useMemo(() => new Map(bench?.boxes.map((b) => [b.id, b])), [bench?.boxes]);
  const { holder, measure, seen, before, after } = useSeenRows(sorted.length, 38);
  if (sorted.length === 0)
    return <Soft>Nothing yet. Lines arise by themselves as you work; add your own above.</Soft>;
  // What scrolls one way scrolls the other too unless it is said; the rows that are seen are those of the sheet.
  return (
    <Box overflowX="auto" overflowY="hidden" css={LOOK}>
      <Ruled
        stacked
        label="Log"
        rowCount={sorted.length + 1}
        heads={[
          'When',
          ...(bench ? ['Box'] : []),
          'Stop',
          'What happened',
          { words: 'Foretold', figure: true },
          { words: 'Took', figure: true },
        ]}
        body={holder}
      >
        <Room height={before} />
        {seen.map((at) => {
          const e = sorted[at];
          return (
            e && (
              <chakra.tr key={e.id} ref={measure} data-index={at} aria-rowindex={at + 2}>
                <LogLine
                  entry={e}
                  box={e.boxId === null ? undefined : boxes.get(e.boxId)}
                  withBox={bench !== undefined}
                />
              </chakra.tr>
            )
          );
        })}
        <Room height={after} />
      </Ruled>
    </Box>
  );
}

const LOOK = {
  '& tbody td': {
    padding: '5px 10px 5px 0',
    borderBottom: '1px solid {colors.rule}',
    verticalAlign: 'top',
    overflowWrap: 'anywhere',
  },
  '& [data-when]': { textStyle: 'data', color: 'fg.muted', whiteSpace: 'nowrap' },
  '& [data-stop]': { whiteSpace: 'nowrap' },
  '& [data-num]': { textStyle: 'data', textAlign: 'end', whiteSpace: 'nowrap' },
  smDown: {
    '& tbody tr': lineAsCard,
    '& tbody td': { border: 0, padding: 0 },
    '& [data-whole]': { flex: '1 0 100%' },
    '& [data-told]': { display: 'none' },
  },
} as const;
