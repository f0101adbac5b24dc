import { Box } from '@chakra-ui/react';
import { identityLines } from '@zb/core/words/identity';
import type { ImageReading } from '@zb/core/model/inspection';
import { Cell, Line, LineHead, Ruled } from '../ui/Ruled';
import { Head, Sub } from '../ui/Words';

/** What the image says of itself, each with the place where it says it. */
export function Identity({ identity }: { identity: ImageReading['identity'] }) {
  const lines = identity ? identityLines(identity) : [];
  if (lines.length === 0) return null;
  return (
    <Box as="section" aria-label="What it says of itself">
      <Head>What it says of itself</Head>
      <Ruled dense label="What it says of itself">
        {lines.map((l) => (
          <Line key={`${l.title} ${l.value}`}>
            <LineHead>{l.title}</LineHead>
            <Cell overflowWrap="anywhere">
              {l.value}
              <Sub>{l.from}</Sub>
            </Cell>
          </Line>
        ))}
      </Ruled>
    </Box>
  );
}
