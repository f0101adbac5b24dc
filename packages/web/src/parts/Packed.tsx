import { Stack, Text } from '@chakra-ui/react';
import { packedWords } from '@zb/core/words/packed';
import type { Inspection } from '@zb/core/model/inspection';
import { groupedHex } from '@zb/core/checksum/compare';
import { Said } from '../ui/Said';
import { Head } from '../ui/Words';
import { Digest } from './HashPanel';

/** A packed file: what it is, what is inside, and what that means for writing it. */
export function Packed({ inspection }: { inspection: Inspection }) {
  const words = packedWords(inspection);
  if (!words) return null;
  return (
    <Stack gap="1.5">
      <Head>{words.title}</Head>
      <Text>{words.inside}</Text>
      {inspection.container.innerSha256 !== null && (
        <Digest label="SHA-256 inside" kind="plain">
          {groupedHex(inspection.container.innerSha256)}
        </Digest>
      )}
      <Said>{words.writing}</Said>
    </Stack>
  );
}
