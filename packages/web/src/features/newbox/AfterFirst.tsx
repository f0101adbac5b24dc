import { Box, List, Stack, Text } from '@chakra-ui/react';
import { useMemo } from 'react';
import { beginFrom } from '@zb/core/acts/secondBox';
import type { Bench, Box as OneBox, Machine } from '@zb/core/model/bench';
import { askedWords, carriedWords, takesWords } from '@zb/core/words/secondBox';
import { stamp } from '../../storage/hooks';
import { Two } from '../../ui/Two';
import { Head } from '../../ui/Words';

const Lines = ({ title, lines }: { title: string; lines: readonly string[] }) => (
  <Box as="section" aria-label={title}>
    <Head borderBottom="thin" paddingBottom="1" marginBottom="1.5">
      {title}
    </Head>
    <List.Root gap="1">
      {lines.map((l) => (
        <List.Item key={l}>{l}</List.Item>
      ))}
    </List.Root>
  </Box>
);

/** What a box made after another takes over, what it asks again, and how long it should take. */
export function AfterFirst({
  bench,
  first,
  machine,
}: {
  bench: Bench;
  first: OneBox;
  machine: Machine | undefined;
}) {
  const { after, takes } = useMemo(
    () => beginFrom(bench, first, first.name, machine, stamp()),
    [bench, first, machine],
  );
  return (
    <Stack gap="3" marginTop="5">
      <Two>
        <Lines title={`Taken over from ${first.name}`} lines={after.carries.map(carriedWords)} />
        <Lines title="Asked again" lines={after.asks.map(askedWords)} />
      </Two>
      <Text>{takesWords(first.name, takes, machine !== undefined)}</Text>
    </Stack>
  );
}
