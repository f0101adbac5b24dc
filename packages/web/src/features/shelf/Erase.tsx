import { Stack } from '@chakra-ui/react';
import type { Store } from '@zb/core/model/bench';
import { formatSpan } from '@zb/core/units/duration';
import { caveatWords, eraseLevelWords, noCommandWords } from '@zb/core/words/erase';
import { erasePlan } from '@zb/core/write/erase';
import { Fold } from '../../ui/Fold';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Data, Sub } from '../../ui/Words';

/** Ways to erase a drive, a stick or a card before it is used again or passed on; none of them is run from here. */
export function Erase({ store }: { store: Store }) {
  const plan = erasePlan(store);
  return (
    <Fold title="Erase it before it is used again or given away">
      <Stack gap="2">
        {plan.not !== null && <Said kind="check">{noCommandWords(plan.not)}</Said>}
        {plan.find !== null && (
          <Sub>
            First, find it by its serial, so that a letter that moved cannot hit another:{' '}
            <Data overflowWrap="anywhere">{plan.find}</Data>
          </Sub>
        )}
        <Ruled stacked label="Ways to erase it" heads={['How sure', 'Way', 'Takes']}>
          {plan.ways.map((w) => (
            <Line key={`${w.level} ${w.method}`}>
              <LineHead whole>
                {w.level}
                <Sub>{eraseLevelWords(w.level)}</Sub>
              </LineHead>
              <Cell whole overflowWrap="anywhere">
                {w.method}
                {w.command !== null && <Sub textStyle="data">{w.command}</Sub>}
                <Sub>{caveatWords(w)}</Sub>
              </Cell>
              <Cell whiteSpace="nowrap">{w.seconds ? formatSpan(w.seconds) : ''}</Cell>
            </Line>
          ))}
        </Ruled>
        <Sub>
          By {plan.source}, for a {plan.kind}.
        </Sub>
      </Stack>
    </Fold>
  );
}
