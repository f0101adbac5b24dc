import { interfaceOf } from '@zb/core/model/gate';
import { matrixOf, sidesOf, type Crossing } from '@zb/core/rules/matrix';
import type { BoxGate } from '@zb/core/rules/forBox';
import type { Kept } from '@zb/core/rules/promises';
import { crossingWords, zoneWords } from '@zb/core/words/gatePlan';
import { CrossGrid } from '../../../ui/CrossGrid';
import { VerdictMark } from '../../../ui/Marks';
import { Data, Sub } from '../../../ui/Words';

/** Who may begin a conversation with whom. */
export function Matrix({
  of: { plan, networks },
  kept,
  onOpen,
}: {
  of: BoxGate;
  kept: readonly Kept[];
  onOpen: (crossing: Crossing) => void;
}) {
  const matrix = matrixOf(plan, networks, kept);
  const crossings = new Map(
    matrix.flatMap((r) => r.cells.flatMap((c) => (c ? [[`${c.from} ${c.to}`, c]] : []))),
  );
  return (
    <CrossGrid
      label="Who may begin with whom"
      corner="may begin with →"
      columns={sidesOf(plan).map((s) => zoneWords(plan, s))}
      rows={matrix.map(({ from, cells }) => ({
        key: from,
        head: (
          <>
            {zoneWords(plan, from)}
            {plan.ports
              .filter((p) => p.zoneId === from)
              .map((p) => (
                <Sub key={p.id}>
                  <Data>{interfaceOf(p)}</Data>
                </Sub>
              ))}
          </>
        ),
        cells: cells.map((c) => {
          if (!c) return null;
          const said = crossingWords(plan, c);
          return {
            key: `${c.from} ${c.to}`,
            label: `${zoneWords(plan, c.from)} to ${zoneWords(plan, c.to)}${c.broken ? ', where a promise fails' : ''}:`,
            marked: c.broken,
            body: (
              <>
                <VerdictMark kind={c.broken ? 'stop' : said.kind}>{said.word}</VerdictMark>
                {said.sub !== '' && <Sub>{said.sub}</Sub>}
              </>
            ),
          };
        }),
      }))}
      onOpen={(key) => {
        const found = crossings.get(key);
        if (found && typeof found !== 'string') onOpen(found);
      }}
    />
  );
}
