import { transports, type Store } from '@zb/core/model/shelf';
import { Choice } from '../../parts/Choice';

/** Shape and, for an M.2 drive, what decides whether it goes in: length, key, protocol and lanes. */
export function DriveShape({
  drive,
  onChange,
}: {
  drive: Store;
  onChange: (change: Partial<Store>) => void;
}) {
  const m2 = drive.m2 ?? { length: '2280' as const, key: 'M' as const, lanes: 4 as const };
  return (
    <>
      <Choice
        label="Connects by"
        value={drive.transport}
        options={transports}
        onPick={(transport) => onChange({ transport })}
      />
      <Choice
        label="Shape"
        value={drive.shape ?? 'not said'}
        options={['not said', '2.5 inch', '3.5 inch', 'M.2']}
        onPick={(shape) =>
          onChange({ shape: shape === 'not said' ? null : shape, m2: shape === 'M.2' ? m2 : null })
        }
      />
      {drive.shape === 'M.2' && (
        <>
          <Choice
            label="Length"
            value={m2.length}
            options={['2230', '2242', '2260', '2280', '22110']}
            onPick={(length) => onChange({ m2: { ...m2, length } })}
          />
          <Choice
            label="Key (notch)"
            value={m2.key}
            options={['B', 'M', 'B+M']}
            onPick={(key) => onChange({ m2: { ...m2, key } })}
          />
          <Choice
            label="PCIe lanes (0: SATA)"
            value={String(m2.lanes) as '0' | '1' | '2' | '4'}
            options={['0', '1', '2', '4']}
            onPick={(lanes) => onChange({ m2: { ...m2, lanes: Number(lanes) as 0 | 1 | 2 | 4 } })}
          />
        </>
      )}
    </>
  );
}

/** Whether it is here, or what it would cost. */
export function Owning({
  owned,
  price,
  onChange,
}: {
  owned: boolean;
  price: number | null;
  onChange: (change: { owned?: boolean; price?: number | null }) => void;
}) {
  return (
    <>
      <Choice
        label="Here or to buy"
        value={owned ? 'it is here' : 'could be bought'}
        options={['it is here', 'could be bought']}
        onPick={(v) => onChange({ owned: v === 'it is here' })}
      />
      {!owned && (
        <label className="field">
          <span>Price</span>
          <input
            className="in mono"
            type="number"
            min={0}
            step={0.01}
            value={price ?? ''}
            onChange={(e) => {
              const n = Number(e.target.value);
              onChange({ price: e.target.value === '' || !Number.isFinite(n) || n < 0 ? null : n });
            }}
          />
        </label>
      )}
    </>
  );
}
