import { useState } from 'react';
import { saveItem } from '@zb/core/acts/shelf';
import { machinesOf } from '@zb/core/model/bench';
import { memoryKinds } from '@zb/core/model/facts';
import type { ShelfItem } from '@zb/core/model/shelf';
import { formatExact, formatIec, formatSi, parseBytes } from '@zb/core/units/bytes';
import { Primary } from '../../ui/Button';
import { useAct, useBench } from '../../storage/hooks';
import { Choice, Count } from '../../parts/Choice';
import { Content } from './Content';
import { DriveShape, Owning } from './PartFields';

type Editable = Exclude<ShelfItem, { kind: 'machine' }>;

const textOf = (item: object, key: string): string => {
  const value: unknown = Reflect.get(item, key);
  return typeof value === 'string' ? value : '';
};

/** The sheet of anything that is not a machine. Saved as a whole, refused as a whole. */
export function ItemForm({ item, store }: { item: Editable; store: boolean }) {
  const bench = useBench();
  const act = useAct();
  // What the user saw when the form was opened or saved last: only what differs from it is changed.
  const [seen, setSeen] = useState(item);
  const [draft, setDraft] = useState(item);
  const [size, setSize] = useState(
    'bytes' in item ? (store ? `${item.bytes} bytes` : formatSi(item.bytes)) : '',
  );
  const [problem, setProblem] = useState('');
  const set = (change: Partial<Record<string, unknown>>): void => setDraft({ ...draft, ...change });
  const save = (): void => {
    const bytes = 'bytes' in draft ? parseBytes(size) : 0;
    if (bytes === undefined || ('bytes' in draft && bytes <= 0))
      return setProblem('The size needs a number and a unit, such as 16 GB or 14.9 GiB. Nothing was saved.');
    if (draft.name.trim() === '') return setProblem('It needs a name. Nothing was saved.');
    setProblem('');
    const saved = { ...draft, name: draft.name.trim(), ...('bytes' in draft ? { bytes } : {}) };
    void act(saveItem(seen, saved)).then((kept) => kept && setSeen(saved));
  };
  const field = (label: string, key: string, mono = false) => (
    <label className="field">
      <span>{label}</span>
      <input
        className={mono ? 'in mono' : 'in'}
        value={textOf(draft, key)}
        maxLength={key === 'holds' ? 2000 : key === 'name' || key === 'serial' ? 200 : 120}
        onChange={(e) =>
          set({
            [key]: e.target.value === '' && (key === 'serial' || key === 'model') ? null : e.target.value,
          })
        }
      />
    </label>
  );
  return (
    <form
      style={{
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(230px, 1fr))',
        gap: 12,
        alignItems: 'start',
      }}
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
    >
      {field('Name', 'name')}
      {'bytes' in draft && (
        <label className="field">
          <span>Size</span>
          <input className="in mono" value={size} onChange={(e) => setSize(e.target.value)} />
          <span className="sub m">{formatExact(parseBytes(size) ?? 0)}</span>
        </label>
      )}
      {store && field('Serial', 'serial', true)}
      {store && field('Model', 'model')}
      {store && field('Label on it', 'label')}
      {draft.kind === 'adapter' && field('From', 'from')}
      {draft.kind === 'adapter' && field('To', 'to')}
      {draft.kind === 'memory' && field('Type', 'type')}
      {draft.kind === 'memory' && (
        <Choice
          label="Form"
          value={draft.form}
          options={['DIMM', 'SO-DIMM']}
          onPick={(form) => set({ form })}
        />
      )}
      {draft.kind === 'memory' && (
        <Choice
          label="Check bits (ECC)"
          value={draft.checked ?? 'not known'}
          options={['not known', ...memoryKinds]}
          onPick={(checked) => set({ checked: checked === 'not known' ? null : checked })}
        />
      )}
      {draft.kind === 'adapter' && (
        <>
          <Choice
            label="Goes into"
            value={draft.goesIn}
            options={['expansion slot', 'USB port', 'outside']}
            onPick={(goesIn) => set({ goesIn })}
          />
          <Count
            label="Wired network ports it adds"
            value={draft.wiredPorts}
            onPick={(wiredPorts) => set({ wiredPorts })}
          />
          <Count
            label="SATA ports it adds"
            value={draft.sataPorts}
            onPick={(sataPorts) => set({ sataPorts })}
          />
        </>
      )}
      {draft.kind === 'drive' && <DriveShape drive={draft} onChange={set} />}
      {'owned' in draft && <Owning owned={draft.owned} price={draft.price} onChange={set} />}
      {'in' in draft && (
        <label className="field">
          <span>Sits in</span>
          <select className="in" value={draft.in ?? ''} onChange={(e) => set({ in: e.target.value || null })}>
            <option value="">loose on the shelf</option>
            {machinesOf(bench).map((m) => (
              <option key={m.id} value={m.id}>
                {m.name}
              </option>
            ))}
          </select>
        </label>
      )}
      {store && field('What is on it, in your words', 'holds')}
      {'realBytes' in draft && draft.realBytes !== null && (
        <div className="said said-stop" style={{ gridColumn: '1 / -1' }}>
          A read-back found that it really holds about {formatIec(draft.realBytes)}.{' '}
          <button type="button" className="link" onClick={() => set({ realBytes: null })}>
            It is another stick now; forget that
          </button>
        </div>
      )}
      {'fate' in draft && <Content store={draft} onChange={set} />}
      <label className="field" style={{ gridColumn: '1 / -1' }}>
        <span>Notes</span>
        <textarea className="in" value={draft.notes} onChange={(e) => set({ notes: e.target.value })} />
      </label>
      {problem !== '' && (
        <p className="said said-stop" role="alert" style={{ gridColumn: '1 / -1' }}>
          {problem}
        </p>
      )}
      <div>
        <Primary type="submit">Save</Primary>
      </div>
    </form>
  );
}
