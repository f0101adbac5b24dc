import { Box } from '@chakra-ui/react';
import type { GatePlan } from '@zb/core/model/gate';
import type { Ruleset } from '@zb/core/rules/ruleset';
import type { Unused } from '@zb/core/rules/unused';
import { ruleWords } from '@zb/core/words/packet';
import { unusedWords } from '@zb/core/words/rules';
import { Cell, Line, LineHead, Ruled } from '../../../ui/Ruled';
import { Head, Sub } from '../../../ui/Words';

const MOST = 40;

/** Rules no packet comes to, what takes their packets before them, and those that counted none so far. */
export function Idle({
  plan,
  ruleset,
  unused,
}: {
  plan: GatePlan;
  ruleset: Ruleset;
  unused: readonly Unused[];
}) {
  const said = new Map(
    unused.map((u) => {
      const words = unusedWords(plan, u, ruleset);
      // Lines of one rule that say the same are one line.
      return [
        `${ruleWords(plan, u.rule, ruleset)} ${words}`,
        { rule: ruleWords(plan, u.rule, ruleset), words },
      ];
    }),
  );
  const lines = [...said.values()];
  if (lines.length === 0) return null;
  return (
    <Box as="section" aria-label="Rules with nothing to do">
      <Head marginBottom="1">Rules, or parts of them, with nothing to do</Head>
      <Ruled dense silent label="Rules with nothing to do" heads={['Rule', 'Why']}>
        {lines.slice(0, MOST).map((l, i) => (
          <Line key={i}>
            <LineHead>{l.rule}</LineHead>
            <Cell>{l.words}</Cell>
          </Line>
        ))}
      </Ruled>
      {lines.length > MOST && <Sub>{lines.length - MOST} more; zb rules tells all.</Sub>}
    </Box>
  );
}
