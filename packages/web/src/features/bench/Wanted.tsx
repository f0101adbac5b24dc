import { saveWish } from '@zb/core/acts/wishes';
import type { Bench } from '@zb/core/model/bench';
import { useAct } from '../../storage/hooks';
import { Fold } from '../../ui/Fold';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Segments } from '../../ui/Segments';
import { To } from '../../ui/To';

/** How much each box is wanted, as its wish says: more of what is wanted most is planned to be done in time. */
export function Wanted({ bench, boxIds }: { bench: Bench; boxIds: readonly string[] }) {
  const act = useAct();
  return (
    <Fold title="What is wanted most">
      <Ruled dense label="What is wanted most" heads={['Box', 'Wanted, of 5']}>
        {bench.boxes
          .filter((b) => boxIds.includes(b.id))
          .map((b) => {
            const wish = bench.wishes.find((w) => w.id === b.wishId);
            return (
              <Line key={b.id}>
                <LineHead>{b.name}</LineHead>
                <Cell>
                  {wish ? (
                    <Segments
                      label={`How much ${b.name} is wanted`}
                      options={['1', '2', '3', '4', '5']}
                      value={String(wish.importance)}
                      onTake={(n) =>
                        void act(
                          saveWish(wish, { ...wish, importance: Number(n) }, `${wish.name}: ${n} of 5`),
                        )
                      }
                    />
                  ) : (
                    <>
                      3: it answers no wish. <To to="/match">Wishes</To>
                    </>
                  )}
                </Cell>
              </Line>
            );
          })}
      </Ruled>
    </Fold>
  );
}
