import { Box, List, Text } from '@chakra-ui/react';
import type { Happened } from '@zb/core/practice/tale';
import { COSTS } from '@zb/core/practice/tale';
import { formatSi } from '@zb/core/units/bytes';
import { lossWords, practiceWhy, practiceWords } from '@zb/core/words/practice/say';
import { capital } from '@zb/core/words/text';
import { VerdictMark, type MarkKind } from '../../ui/Marks';
import { Data, Soft, Sub } from '../../ui/Words';

const MARK: Record<Exclude<Happened['grade'], 'plain'>, [kind: MarkKind, word: string]> = {
  good: ['yes', 'well done'],
  slip: ['ask', 'slip'],
  fault: ['change', 'fault'],
  loss: ['stop', 'lost'],
};

/** One thing that happened: when, what, why it matters, and what would have been lost. */
function Frame({ exercise, h }: { exercise: string; h: Happened }) {
  const why = practiceWhy(exercise, h);
  const cost = COSTS[h.grade];
  return (
    <List.Item display="flex" gap="2" paddingBlock="1" borderBottom="thin" _last={{ borderBottom: 'none' }}>
      <Data flexShrink="0" css={{ width: '52px' }} color="fg.muted">
        {h.minute} min
      </Data>
      <Box minWidth="0" flex="1">
        {h.grade !== 'plain' && (
          <VerdictMark kind={MARK[h.grade][0]}>
            {MARK[h.grade][1]}
            {cost > 0 ? `, −${cost}` : ''}
          </VerdictMark>
        )}
        <Text>{capital(practiceWords(exercise, h))}</Text>
        {why !== '' && <Sub>{why}</Sub>}
        {h.lost && (
          <Sub color="stop">
            Would have been lost: {lossWords(exercise, h.lost.what)}
            {h.lost.bytes === null ? '' : `, ${formatSi(h.lost.bytes)}`}
          </Sub>
        )}
      </Box>
    </List.Item>
  );
}

/** What happened, one thing after the other; the newest first while it goes on. */
export function Told({
  exercise,
  happened,
  newestFirst = false,
}: {
  exercise: string;
  happened: readonly Happened[];
  newestFirst?: boolean;
}) {
  if (happened.length === 0) return <Soft>Nothing yet.</Soft>;
  const shown = newestFirst ? [...happened].reverse() : happened;
  return (
    <List.Root as="ol" aria-label="What happened">
      {shown.map((h, i) => (
        <Frame key={newestFirst ? happened.length - i : i} exercise={exercise} h={h} />
      ))}
    </List.Root>
  );
}
