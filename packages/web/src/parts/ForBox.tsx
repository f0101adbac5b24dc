import { Box, Text } from '@chakra-ui/react';
import { boxAdvice } from '@zb/core/starting/forBox';
import { copyWords, modeCard, tableWords } from '@zb/core/words/forBox';
import type { ImageReading } from '@zb/core/model/inspection';
import type { Machine } from '@zb/core/model/bench';
import { Fold } from '../ui/Fold';
import { VerdictMark } from '../ui/Marks';
import { Head, Sub } from '../ui/Words';

const KIND = { 'whole image': 'yes', 'file copy': 'change', neither: 'stop' } as const;
const WORD = {
  'whole image': 'copy the whole image',
  'file copy': 'copy its files',
  neither: 'not from a stick',
} as const;

/** How to bring the image onto a stick for the machine of this box, and the card that explains its firmware mode. */
export function ForBox({ machine, reading }: { machine: Machine; reading: ImageReading }) {
  const advice = boxAdvice(machine, reading);
  const mode = modeCard(machine, advice);
  return (
    <Box as="section" aria-label={`For ${machine.name}`}>
      <Head>For {machine.name}</Head>
      <Text>
        <VerdictMark kind={KIND[advice.copy]}>{WORD[advice.copy]}</VerdictMark>{' '}
        <span>{copyWords(advice.reason)}</span>
      </Text>
      <Sub>{tableWords[advice.table]}</Sub>
      <Fold title={mode.title}>
        {mode.lines.map((line) => (
          <Sub key={line}>{line}</Sub>
        ))}
      </Fold>
    </Box>
  );
}
