import { Box, Stack } from '@chakra-ui/react';
import type { GuestPlan } from '@zb/core/model/guests';
import type { Pot } from '@zb/core/guests/pot';
import { placeOnSockets } from '@zb/core/guests/sockets';
import { couldGiveBack } from '@zb/core/guests/repair';
import { turnsOf } from '@zb/core/guests/turns';
import { formatIec } from '@zb/core/units/bytes';
import { formatDuration } from '@zb/core/units/duration';
import { VerdictMark } from '../../../ui/Marks';
import { Nothing } from '../../../ui/Nothing';
import { Cell, Line, LineHead, Num, Ruled } from '../../../ui/Ruled';
import { Head, Sub } from '../../../ui/Words';

const Fits = ({ short }: { short: number }) => (
  <VerdictMark kind={short > 0 ? 'stop' : 'yes'}>
    {short > 0 ? `${formatIec(short)} missing` : 'fits'}
  </VerdictMark>
);

/** What happens when the host comes up: who begins when, and whether there is memory then. */
export function Turns({ plan, pot }: { plan: GuestPlan; pot: Pot }) {
  const turns = turnsOf(plan, pot);
  const last = turns.at(-1);
  const back = couldGiveBack(plan);
  const sockets = pot.sockets > 1 ? placeOnSockets(plan, pot) : null;
  if (turns.length === 0)
    return (
      <Nothing
        title="No guest starts by itself"
        words="Say of a guest that it starts with the host, and in which order."
      />
    );
  return (
    <Stack gap="5">
      <Box as="section" aria-label="In turn">
        <Ruled
          stacked
          label="Starting up"
          heads={[
            'Guest',
            { words: 'After', figure: true },
            { words: 'Begins with', figure: true },
            'In its turn',
            'If all begin at once',
          ]}
        >
          {turns.map((t) => (
            <Line key={t.guest.id}>
              <LineHead>
                {t.guest.name}
                <Sub>order {t.guest.order}</Sub>
              </LineHead>
              <Num>{t.at === 0 ? 'at once' : formatDuration(t.at)}</Num>
              <Num>{formatIec(t.guest.memoryBytes)}</Num>
              <Cell>
                <Fits short={t.short} />
              </Cell>
              <Cell>
                <Fits short={t.shortAtOnce} />
              </Cell>
            </Line>
          ))}
        </Ruled>
        <Sub>
          {last
            ? `The last one begins ${last.at === 0 ? 'at once' : `after ${formatDuration(last.at)}`}. `
            : ''}
          {back > 0 ? `Once up, guests can give back ${formatIec(back)}.` : 'No guest gives memory back.'}
        </Sub>
      </Box>
      {sockets && (
        <Box as="section" aria-label="Sockets">
          <Head marginBottom="1">On {pot.sockets} sockets</Head>
          <Ruled dense label="Sockets" heads={['Guest', 'Socket']}>
            {plan.guests
              .filter((g) => g.on)
              .map((g) => {
                const at = sockets.at.get(g.id);
                return (
                  <Line key={g.id}>
                    <LineHead>{g.name}</LineHead>
                    <Cell>{at === undefined ? 'on two: half of its memory is far away' : String(at)}</Cell>
                  </Line>
                );
              })}
          </Ruled>
          {!sockets.proven && <Sub>The search was cut off: another share-out might be better.</Sub>}
        </Box>
      )}
    </Stack>
  );
}
