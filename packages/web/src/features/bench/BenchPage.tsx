import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { lazy, Suspense, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { benchCards, idleMachines, type BenchCard } from '@zb/core/box/benchDay';
import { formatSpan } from '@zb/core/units/duration';
import { benchHeadline } from '@zb/core/words/bench';
import { hazardWords } from '@zb/core/words/hazard';
import { BenchLedger } from '../../parts/BenchLedger';
import { Sheet } from '../../parts/Sheet';
import { Shortcuts } from '../../parts/Shortcuts';
import { useSeenRows } from '../../parts/useSeenRows';
import { useSummed } from '../../parts/useSummed';
import { useBench } from '../../storage/hooks';
import { Primary, Quiet } from '../../ui/Button';
import { HazardMark } from '../../ui/Marks';
import { Nothing } from '../../ui/Nothing';
import { To } from '../../ui/To';
import { Two } from '../../ui/Two';

const Evening = lazy(() => import('./Evening'));

const PER_ROW = 2;

const wayTo = ({ box, next, inTheWay }: BenchCard): string =>
  `/box/${box.id}/${inTheWay?.grade === 'stop' ? inTheWay.stop : next.stop}`;

/** One box: whose it is, what wants you now, its minutes, what stands in the way. */
function Card({ card, digit }: { card: BenchCard; digit: number }) {
  const { box, machine, system, next, inTheWay, question } = card;
  return (
    <Box as="article" aria-label={box.name} border="firm" padding="3" minWidth="0">
      <HStack justify="space-between" align="baseline" gap="3">
        <To to={wayTo(card)} variant="plain" textStyle="title" overflowWrap="anywhere" minWidth="0">
          {box.name}
        </To>
        <Text textStyle="small" flexShrink="0">
          {formatSpan(next.hands)} of yours
        </Text>
      </HStack>
      <Text textStyle="small">
        {[machine ?? 'no machine yet', system ?? box.purpose, `stop ${next.number}`].join(' · ')}
        {digit < 10 ? ` · key ${digit}` : ''}
      </Text>
      <Text textStyle="strong" marginTop="2">
        {question ?? `${next.title} is next`}
      </Text>
      <HStack align="baseline" gap="2" marginTop="1">
        {inTheWay ? (
          <>
            <HazardMark grade={inTheWay.grade} />
            <Text textStyle="body" minWidth="0" overflowWrap="anywhere">
              {hazardWords(inTheWay)}
            </Text>
          </>
        ) : (
          <Text textStyle="small">
            Nothing stands in the way; {formatSpan(card.left)} to the end, waiting and all.
          </Text>
        )}
      </HStack>
    </Box>
  );
}

/** The first screen: what wants you now, box by box, and what of the shelf waits for one. */
export default function BenchPage() {
  const bench = useBench();
  const go = useNavigate();
  const summed = useSummed(bench);
  const cards = useMemo(() => (summed ? benchCards(summed) : []), [summed]);
  const [planning, setPlanning] = useState(false);
  const idle = idleMachines(bench);
  const [first] = cards;
  const rows = Math.ceil(cards.length / PER_ROW);
  const { holder, measure, seen, before, after } = useSeenRows(rows, 140);
  const open = (i: number) => () => {
    const card = cards[i];
    if (card) void go(wayTo(card));
  };
  return (
    <>
      <Shortcuts
        list={[
          { keys: 'e', does: 'plan the evening', act: () => setPlanning(true) },
          ...cards
            .slice(0, 9)
            .map(({ box }, i) => ({ keys: String(i + 1), does: `open ${box.name}`, act: open(i) })),
        ]}
      />
      <Sheet
        title="Bench"
        mid={`${cards.length} of ${bench.boxes.length} boxes are open`}
        headline={benchHeadline(cards, bench.boxes.length)}
        foot={
          first ? (
            <>
              <Primary onClick={() => void go(`/box/${first.box.id}/run`)}>
                Begin: {first.box.name}, run mode
              </Primary>
              <Quiet onClick={() => setPlanning(!planning)} aria-expanded={planning}>
                {planning ? 'Put the evening away' : 'Plan the evening'}
              </Quiet>
            </>
          ) : (
            <Primary onClick={() => void go('/box/new')}>New box</Primary>
          )
        }
        hint={first ? '1 to 9 opens a box · E plans the evening' : 'Undo takes everything back'}
      >
        {planning && (
          <Suspense fallback={null}>
            <Evening bench={summed ?? bench} />
          </Suspense>
        )}
        {cards.length === 0 ? (
          <Nothing
            title={bench.boxes.length === 0 ? 'No box yet' : 'Nothing is left to do'}
            words="A box is one machine that becomes one thing. Begin with a machine that lies here, with an image, or look at a bench that is made up."
          >
            <HStack gap="3" flexWrap="wrap">
              <Quiet onClick={() => void go('/shelf')}>Put a machine on the shelf</Quiet>
              <Quiet onClick={() => void go('/images')}>Open an image</Quiet>
              <Quiet onClick={() => void go('/bench')}>The demo bench, or a file</Quiet>
            </HStack>
          </Nothing>
        ) : (
          <Box ref={holder}>
            <Box css={{ height: `${before}px` }} hidden={before === 0} />
            <Stack gap="3">
              {seen.map((row) => (
                <Two key={row} ref={measure} data-index={row} gap="3">
                  {cards.slice(row * PER_ROW, (row + 1) * PER_ROW).map((card, i) => (
                    <Card key={card.box.id} card={card} digit={row * PER_ROW + i + 1} />
                  ))}
                </Two>
              ))}
            </Stack>
            <Box css={{ height: `${after}px` }} hidden={after === 0} />
          </Box>
        )}
        {idle.length > 0 && (
          <Box as="section" aria-label="On the shelf" marginTop="5" borderTop="thin" paddingTop="2">
            <Text textStyle="label">Machines that wait for a box</Text>
            <Text marginTop="1">
              {idle.slice(0, 12).map((m, i) => (
                <span key={m.id}>
                  {i > 0 && ', '}
                  <To to={`/shelf/${encodeURIComponent(m.id)}`}>{m.name}</To> ({m.form})
                </span>
              ))}
              {idle.length > 12 && ` and ${idle.length - 12} more`}. <To to="/match">See what fits them</To>
            </Text>
          </Box>
        )}
      </Sheet>
      <BenchLedger bench={bench} said />
    </>
  );
}
