import { Stack } from '@chakra-ui/react';
import type { GatePlan } from '@zb/core/model/gate';
import type { Ruleset } from '@zb/core/rules/ruleset';
import { wayLines, type Walk } from '@zb/core/rules/walk';
import { differsWords, didWords, endWords, ruleWords } from '@zb/core/words/packet';
import { VerdictMark } from '../../../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../../../ui/Ruled';
import { Sub } from '../../../ui/Words';

/** A packet's way, rule by rule: those that were about something else by where it comes in and goes are counted, not shown. */
export function WayOf({
  plan,
  ruleset,
  walk,
  label,
}: {
  plan: GatePlan;
  ruleset: Ruleset;
  walk: Walk;
  label: string;
}) {
  const { lines, passed } = wayLines(walk, ruleset);
  return (
    <Stack gap="1">
      <Ruled dense silent label={label} heads={['What', 'Rule', 'Why']}>
        {lines.map((s, i) => {
          const last = s.met && s.rule === walk.by;
          return (
            <Line key={i} here={last}>
              <Cell>
                <VerdictMark
                  whiteSpace="nowrap"
                  kind={!s.met ? 'no' : last && walk.end !== 'passes' ? 'stop' : 'yes'}
                >
                  {s.met && s.did ? didWords(s.did) : 'passes by'}
                </VerdictMark>
              </Cell>
              <LineHead>{ruleWords(plan, s.rule, ruleset)}</LineHead>
              <Cell>{s.differs ? differsWords(s.differs) : ''}</Cell>
            </Line>
          );
        })}
      </Ruled>
      <Sub>
        {passed > 0 ? `${passed} rules about other ways were passed by. ` : ''}
        It {endWords(plan, walk)}.{walk.by?.startsWith('policy ') ? ' No rule lets it in.' : ''}
      </Sub>
    </Stack>
  );
}
