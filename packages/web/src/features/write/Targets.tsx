import { refusalWords } from '@zb/core/words/guard';
import type { GuardedTarget } from '@zb/core/write/guard';
import { formatIec, formatSi } from '@zb/core/units/bytes';
import type { Store } from '@zb/core/model/bench';
import type { Fate } from '@zb/core/model/content';
import { Quiet } from '../../ui/Button';
import { Mark } from '../../parts/Marks';

function Decide({ store, onDecide }: { store: Store; onDecide: (store: Store, fate: Fate) => void }) {
  return (
    <span className="actions" style={{ marginTop: 4 }}>
      <Quiet size="sm" onClick={() => onDecide(store, 'may be lost')}>
        It may be lost
      </Quiet>
      <Quiet size="sm" onClick={() => onDecide(store, 'keep')}>
        Keep it
      </Quiet>
    </span>
  );
}

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
    <table className="t rows">
      <thead>
        <tr>
          <th scope="col">Plugged in</th>
          <th scope="col" className="num">
            Size
          </th>
          <th scope="col">Serial</th>
          <th scope="col">On it now</th>
          <th scope="col" style={{ width: 250 }}>
            The guard
          </th>
        </tr>
      </thead>
      <tbody>
        {targets.map((g) => (
          <tr key={g.target.id} className={picked === g.target.id ? 'here' : ''}>
            <th scope="row" className="whole">
              <label style={{ display: 'flex', gap: 8, alignItems: 'baseline' }}>
                <input
                  type="radio"
                  name="target"
                  disabled={!g.allowed}
                  checked={picked === g.target.id}
                  onChange={() => onPick(g)}
                />
                <span>
                  {g.known?.name ?? g.target.model}
                  <span className="sub nowrap">{g.target.port}</span>
                </span>
              </label>
            </th>
            <td className="num">
              {formatIec(g.target.bytes)}
              <span className="sub">{formatSi(g.target.bytes)}</span>
            </td>
            <td className="m nowrap">{g.target.serial}</td>
            <td className="whole">{holds(g)}</td>
            <td className="whole">
              {g.allowed ? (
                <Mark kind="yes">lets it pass</Mark>
              ) : (
                <Mark kind={g.refusals[0]?.rule === 'is being written' ? 'ask' : 'stop'}>
                  {g.refusals[0]?.rule}
                </Mark>
              )}
              {g.refusals.map((r) => (
                <span className="sub" key={r.rule}>
                  {refusalWords(r)}
                </span>
              ))}
              {g.known && g.refusals.some((r) => r.rule === 'not decided') && (
                <Decide store={g.known} onDecide={onDecide} />
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
