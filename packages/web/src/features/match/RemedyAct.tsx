import { changeSettings, saveWish } from '@zb/core/acts/wishes';
import { amount } from '@zb/core/words/money';
import type { Remedy } from '@zb/core/assign/remedy';
import type { Bench, Wish } from '@zb/core/model/bench';
import { Quiet } from '../../ui/Button';
import { To } from '../../ui/To';
import { useAct } from '../../storage/hooks';

/** The next step towards a remedy, where the bench can take it; the plan then solves itself again. */
export function RemedyAct({ bench, wish, remedy }: { bench: Bench; wish: Wish; remedy: Remedy }) {
  const act = useAct();
  if (remedy.kind === 'parts' && remedy.price !== null) {
    const budget = bench.settings.budget + remedy.price;
    return (
      <Quiet
        marginTop="1.5"
        onClick={() =>
          void act(changeSettings(bench, { budget }, `Budget raised to ${amount(bench, budget)}`))
        }
      >
        Raise the budget to {amount(bench, budget)}
      </Quiet>
    );
  }
  if (remedy.kind === 'free')
    return (
      <Quiet
        marginTop="1.5"
        onClick={() => void act(saveWish(wish, { ...wish, pinned: null, forbid: [] }, 'Pins taken back'))}
      >
        Take them back
      </Quiet>
    );
  if (remedy.kind === 'fact')
    return <To to={`/shelf/${remedy.machineId}`}>Answer it on the machine’s sheet</To>;
  if (remedy.kind === 'machine' && remedy.price !== null)
    return <To to={`/shelf/${remedy.machine.id}`}>See the machine</To>;
  if (remedy.kind === 'system') return <To to="/profiles">To the profiles</To>;
  return null;
}
