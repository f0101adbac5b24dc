import { Box, HStack } from '@chakra-ui/react';
import type { Purpose } from '@zb/core/model/profile';
import type { ReleaseCard } from '@zb/core/system/school';
import { judgedShort } from '@zb/core/words/fit/finding';
import { channelCase, supportWords, usualWords } from '@zb/core/words/fit/school';
import { FitMark } from '../../parts/Marks';
import { Word } from '../../ui/Button';
import { Choices } from '../../ui/Choices';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Head, Sub } from '../../ui/Words';

/** Long support, newest, development: each school's case, and what it means for this machine. */
export function SchoolCard({
  card,
  purpose,
  machine,
  onTake,
}: {
  card: ReleaseCard;
  purpose: Purpose;
  machine: string;
  onTake: (releaseId: string, variantId: string) => void;
}) {
  const release = card.releases.find((r) => r.taken)?.release.id ?? card.releases[0]?.release.id ?? '';
  const variant = card.variants.find((v) => v.taken)?.variant.id ?? card.variants[0]?.variant.id ?? '';
  return (
    <Box>
      <Head as="h3">Which release? {usualWords(purpose)}</Head>
      <Ruled
        dense
        label="Releases"
        heads={['Release', 'Its case', `On ${machine}`, { words: 'Take it', silent: true }]}
      >
        {card.releases.map((r) => (
          <Line key={r.release.id} here={r.taken}>
            <LineHead>
              {r.release.version}
              <Sub>{r.channel}</Sub>
            </LineHead>
            <Cell>
              {channelCase(r.channel)}
              <Sub>{supportWords(r.release, r.supportDays)}</Sub>
            </Cell>
            <Cell>
              <FitMark verdict={r.judged.verdict} />
              <Sub>{r.judged.verdict === 'fits' ? '' : judgedShort(r.judged)}</Sub>
            </Cell>
            <Cell textAlign="end">
              {r.taken ? (
                <b>taken</b>
              ) : (
                <Word
                  aria-label={`Take release ${r.release.version}`}
                  onClick={() => onTake(r.release.id, variant)}
                >
                  take
                </Word>
              )}
            </Cell>
          </Line>
        ))}
      </Ruled>
      {card.variants.length > 1 && (
        <HStack marginTop="2">
          <Choices
            across
            label="Variant"
            value={variant}
            choices={card.variants.map((v) => ({
              value: v.variant.id,
              words: v.variant.name,
              means: `${v.variant.drivers.join(' and ')} drivers, ${v.judged.verdict}`,
            }))}
            onTake={(id) => onTake(release, id)}
          />
        </HStack>
      )}
    </Box>
  );
}
