import { RadioGroup } from '@chakra-ui/react';
import { refusalWords } from '@zb/core/words/guard';
import type { GuardedTarget } from '@zb/core/write/guard';
import { formatIec, formatSi } from '@zb/core/units/bytes';
import type { Store } from '@zb/core/model/bench';
import type { Fate } from '@zb/core/model/content';
import { Quiet } from '../../ui/Button';
import { VerdictMark } from '../../ui/Marks';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Acts, Sub } from '../../ui/Words';

/** Everything attached, with what tells it apart and what the guard says of it. */
export function Targets({
  targets,
  picked,
  onPick,
  holds,
  onDecide,
}: {
  targets: GuardedTarget[];
  picked: string | null;
  onPick: (g: GuardedTarget) => void;
  holds: (g: GuardedTarget) => string;
  onDecide: (store: Store, fate: Fate) => void;
}) {
  return (
    <RadioGroup.Root
      display="block"
      aria-label="Which stick is written?"
      value={picked}
      onValueChange={(e) => {
        const g = targets.find((t) => t.target.id === e.value);
        if (g) onPick(g);
      }}
    >
      <Ruled
        stacked
        label="Plugged in"
        heads={[
          'Plugged in',
          { words: 'Size', figure: true },
          'Serial',
          'On it now',
          { words: 'The guard', width: '250px' },
        ]}
      >
        {targets.map((g) => (
          <Line key={g.target.id} here={picked === g.target.id}>
            <LineHead whole>
              <RadioGroup.Item value={g.target.id} disabled={!g.allowed}>
                <RadioGroup.ItemHiddenInput />
                <RadioGroup.ItemControl />
                <RadioGroup.ItemText>
                  {g.known?.name ?? g.target.model}
                  <Sub>{g.target.port}</Sub>
                </RadioGroup.ItemText>
              </RadioGroup.Item>
            </LineHead>
            <Num>
              {formatIec(g.target.bytes)}
              <Sub>{formatSi(g.target.bytes)}</Sub>
            </Num>
            <Cell textStyle="data" whiteSpace="nowrap">
              {g.target.serial}
            </Cell>
            <Cell whole>{holds(g)}</Cell>
            <Cell whole>
              {g.allowed ? (
                <VerdictMark kind="yes">lets it pass</VerdictMark>
              ) : (
                <VerdictMark kind={g.refusals[0]?.rule === 'is being written' ? 'ask' : 'stop'}>
                  {g.refusals[0]?.rule}
                </VerdictMark>
              )}
              {g.refusals.map((r) => (
                <Sub key={r.rule}>{refusalWords(r)}</Sub>
              ))}
              {g.known && g.refusals.some((r) => r.rule === 'not decided') && (
                <Decide store={g.known} onDecide={onDecide} />
              )}
            </Cell>
          </Line>
        ))}
      </Ruled>
    </RadioGroup.Root>
  );
}

function Decide({ store, onDecide }: { store: Store; onDecide: (store: Store, fate: Fate) => void }) {
  return (
    <Acts marginTop="1">
      <Quiet size="sm" onClick={() => onDecide(store, 'may be lost')}>
        It may be lost
      </Quiet>
      <Quiet size="sm" onClick={() => onDecide(store, 'keep')}>
        Keep it
      </Quiet>
    </Acts>
  );
}
