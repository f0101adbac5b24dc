import { Box, chakra, HStack } from '@chakra-ui/react';
import { formatSi } from '@zb/core/units/bytes';
import type { DriveShare } from '@zb/core/storage/room';
import { Sub } from '../ui/Words';
import { DriveColumn, type Stratum } from './DriveColumn';
import { colour, fillOf, type Pattern } from './patterns';

type Part = Exclude<keyof DriveShare, 'id'>;

/** What each stratum of a drive in a pool is, from the bottom up. */
const PARTS: readonly { part: Part; pattern: Pattern; word: string }[] = [
  { part: 'data', pattern: 'part', word: 'data' },
  { part: 'copy', pattern: 'new', word: 'its copy, on another drive' },
  { part: 'parity', pattern: 'code', word: 'parity' },
  { part: 'own', pattern: 'table', word: 'its own records' },
  { part: 'lost', pattern: 'gap', word: 'lost to smaller drives' },
  { part: 'spare', pattern: 'gap', word: 'waits' },
  { part: 'left', pattern: 'gap', word: 'left out' },
];
/** Thinner than this nothing can be seen. */
const THIN = 0.004;

const strataOf = (share: DriveShare): Stratum[] => {
  const whole = PARTS.reduce((sum, p) => sum + share[p.part], 0) || 1;
  return PARTS.filter((p) => share[p.part] / whole > THIN).map((p) => ({
    share: share[p.part] / whole,
    pattern: p.pattern,
    word: p.word,
  }));
};

/** Drives of a pool on one scale: what of each is data, its copy, parity, or lost to smaller ones. */
export function PoolColumns({
  drives,
  letters,
  shares,
}: {
  drives: readonly { id: string; name: string; bytes: number }[];
  /** What each is called for short, by its id. */
  letters: ReadonlyMap<string, string>;
  shares: readonly DriveShare[];
}) {
  const byLetter = (a: { id: string }, b: { id: string }): number =>
    (letters.get(a.id) ?? '').localeCompare(letters.get(b.id) ?? '');
  const largest = Math.max(1, ...drives.map((d) => d.bytes));
  const seen = new Set(shares.flatMap((s) => strataOf(s).map((x) => x.word)));
  return (
    <Box>
      <HStack
        align="flex-start"
        gap="3"
        overflowX="auto"
        tabIndex={0}
        role="group"
        aria-label="Drives of the pool"
      >
        {[...drives].sort(byLetter).map((d) => {
          const share = shares.find((s) => s.id === d.id);
          return (
            share && (
              <DriveColumn
                key={d.id}
                title={`${letters.get(d.id) ?? ''} ${d.name}`.trim()}
                narrow
                strata={strataOf(share)}
                tall={d.bytes / largest}
                outside={share.left > 0 || share.spare > 0}
                says={formatSi(d.bytes)}
              />
            )
          );
        })}
      </HStack>
      <HStack gap="3" rowGap="1" flexWrap="wrap" marginTop="2">
        {PARTS.filter((p) => seen.has(p.word)).map((p) => (
          <HStack key={p.part} gap="1.5">
            <chakra.svg aria-hidden="true" flexShrink="0" css={{ width: '16px', height: '12px' }}>
              <rect x=".5" y=".5" width="15" height="11" fill={fillOf(p.pattern)} stroke={colour('fg')} />
            </chakra.svg>
            <Sub>{p.word}</Sub>
          </HStack>
        ))}
      </HStack>
    </Box>
  );
}
