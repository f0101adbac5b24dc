import { Box, Stack } from '@chakra-ui/react';
import type { SurveyChange } from '@zb/core/machine/compare';
import { formatDay } from '@zb/core/units/date';
import { Primary, Quiet } from '../ui/Button';
import { Cell, Line, LineHead, Ruled } from '../ui/Ruled';
import { Acts, Head, Sub } from '../ui/Words';

/** What a new survey says differently, before it is taken. */
export function SurveyChanges({
  changes,
  before,
  onTake,
  onLeave,
}: {
  changes: SurveyChange[];
  before: string;
  onTake: () => void;
  onLeave: () => void;
}) {
  return (
    <Box as="section" layerStyle="said.note" aria-label="What the new survey changes">
      <Stack gap="2">
        <Head>
          {changes.length === 0
            ? `The new survey says the same as the one of ${formatDay(before)}`
            : `Since ${formatDay(before)}: ${changes.length} ${changes.length === 1 ? 'difference' : 'differences'}`}
        </Head>
        {changes.length > 0 && (
          <Ruled label="Differences" heads={['What', 'Was', 'Is now']}>
            {changes.map((c) => (
              <Line key={c.what}>
                <LineHead>{c.what}</LineHead>
                <Cell>{c.was}</Cell>
                <Cell>
                  <b>{c.now}</b>
                  {c.byHand && <Sub>what you entered by hand stays and counts</Sub>}
                </Cell>
              </Line>
            ))}
          </Ruled>
        )}
        <Acts>
          <Primary onClick={onTake}>Take the new survey</Primary>
          <Quiet onClick={onLeave}>Leave the old one</Quiet>
        </Acts>
      </Stack>
    </Box>
  );
}
