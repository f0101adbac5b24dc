import { List, Stack, Text } from '@chakra-ui/react';
import { useMemo } from 'react';
import { copyOrAgain } from '@zb/core/box/copyOrAgain';
import type { Bench, Box } from '@zb/core/model/bench';
import { formatIec } from '@zb/core/units/bytes';
import { formatSpan } from '@zb/core/units/duration';
import { copyHeadline, copyWords } from '@zb/core/words/keep';
import { Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Head } from '../../ui/Words';

/** An image of the finished drive against setting it up again. */
export function CopyOrAgain({ bench, box }: { bench: Bench; box: Box }) {
  const found = useMemo(() => copyOrAgain(bench, box), [bench, box]);
  if (!found) return <Text>Which drive carries its system is not known yet: say it under Install.</Text>;
  const rows = [
    {
      what: 'Copy it now',
      ...found.copy,
      room: `${formatIec(found.room.packed.low)}–${formatIec(found.room.packed.high)}`,
    },
    { what: 'Bring the copy back', ...found.back, room: '' },
    { what: 'Do it all again', ...found.again, room: '' },
  ];
  return (
    <Stack gap="3">
      <Head>{copyHeadline(found)}</Head>
      <Ruled
        dense
        label="A copy against doing it again"
        heads={[
          'Way',
          { words: 'Your hands', figure: true },
          { words: 'Alone', figure: true },
          { words: 'Room', figure: true },
        ]}
      >
        {rows.map((r) => (
          <Line key={r.what}>
            <LineHead>{r.what}</LineHead>
            <Num>{formatSpan(r.hands)}</Num>
            <Num>{formatSpan(r.alone)}</Num>
            <Num>{r.room}</Num>
          </Line>
        ))}
      </Ruled>
      <List.Root gap="1">
        {copyWords(found).map((l) => (
          <List.Item key={l}>{l}</List.Item>
        ))}
      </List.Root>
    </Stack>
  );
}
