import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { addItem, blankMachine } from '@zb/core/acts/shelf';
import { differences } from '@zb/core/model/changes';
import type { ShelfItem } from '@zb/core/model/bench';
import { contentTitle } from '@zb/core/model/content';
import { itemPlace, itemSummary, shelfHeadline } from '@zb/core/machine/summary';
import { BenchLedger } from '../../parts/BenchLedger';
import { Primary, Quiet } from '../../ui/Button';
import { Sheet } from '../../parts/Sheet';
import { stamp, useAct, useBench } from '../../storage/hooks';
import { blankItem, KIND_TITLES, type ItemKind } from './blank';

const ROW = 44;
const KINDS = Object.keys(KIND_TITLES) as ItemKind[];

function Rows({ items }: { items: ShelfItem[] }) {
  const bench = useBench();
  const scroller = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the compiler is not used; the hook is meant to be called so
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  return (
    <div ref={scroller} className="shelfgrid" tabIndex={0} role="region" aria-label="Items on the shelf">
      <div
        role="table"
        aria-rowcount={items.length}
        style={{ height: rows.getTotalSize(), position: 'relative' }}
      >
        {rows.getVirtualItems().map((v) => {
          const item = items[v.index];
          if (!item) return null;
          const fate = 'fate' in item && item.fate !== 'may be lost' ? item.fate : undefined;
          return (
            <div
              role="row"
              aria-rowindex={v.index + 1}
              key={item.id}
              className="shelfrow"
              style={{ top: v.start, height: ROW }}
            >
              <span
                role="cell"
                style={{
                  overflow: 'hidden',
                  textOverflow: 'ellipsis',
                  whiteSpace: 'nowrap',
                  fontWeight: 620,
                }}
              >
                <Link
                  className="link"
                  to={item.kind === 'image' ? `/images/${item.id}` : `/shelf/${item.id}`}
                  title={item.name}
                >
                  {item.name}
                </Link>
              </span>
              <span role="cell" className="soft">
                {item.kind === 'machine'
                  ? item.form.replace(' server', '').replace('office ', '')
                  : item.kind}
              </span>
              <span
                role="cell"
                style={{
                  overflow: 'hidden',
                  textOverflow: 'ellipsis',
                  whiteSpace: 'nowrap',
                  fontVariantNumeric: 'tabular-nums',
                }}
              >
                {itemSummary(item)}
                {'serial' in item && item.serial && <span className="sub m">{item.serial}</span>}
              </span>
              <span
                role="cell"
                style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
              >
                {itemPlace(bench, item)}
                <span className="sub" style={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>
                  {fate && <b style={{ color: 'var(--stop)' }}>{fate}: </b>}
                  {'holds' in item ? contentTitle(item) || 'empty' : item.notes}
                </span>
              </span>
            </div>
          );
        })}
      </div>
    </div>
  );
}

export default function ShelfPage() {
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const [params, setParams] = useSearchParams();
  const [words, setWords] = useState('');
  const kind = KINDS.find((k) => k === params.get('kind'));
  const shown = bench.items.filter(
    (i) =>
      (!kind || i.kind === kind) &&
      (words === '' ||
        `${i.name} ${'serial' in i ? (i.serial ?? '') : ''}`.toLowerCase().includes(words.toLowerCase())),
  );
  const add = async (k: ItemKind): Promise<void> => {
    const item = blankItem(k, stamp());
    await act(addItem(item, `${KIND_TITLES[k]} put on the shelf`));
    void go(`/shelf/${item.id}`);
  };
  const machine = async (): Promise<void> => {
    const item = blankMachine('New machine', 'office desktop', stamp());
    await act(addItem(item, 'Machine put on the shelf'));
    void go(`/shelf/${item.id}`);
  };
  const empty = bench.items.length === 0;
  return (
    <>
      <Sheet
        title="Shelf"
        mid={`${bench.items.length} ${bench.items.length === 1 ? 'thing' : 'things'}`}
        headline={shelfHeadline(bench)}
        foot={
          <>
            <Primary onClick={() => void machine()}>Add a machine</Primary>
            <label className="actions">
              <span className="hidden-text">Add something else</span>
              <select
                className="in"
                style={{ width: 'auto' }}
                value=""
                onChange={(e) => e.target.value && void add(e.target.value as ItemKind)}
              >
                <option value="">Add something else…</option>
                {KINDS.filter((k) => k !== 'machine' && k !== 'image').map((k) => (
                  <option key={k} value={k}>
                    {KIND_TITLES[k]}
                  </option>
                ))}
              </select>
            </label>
          </>
        }
        hint="What you mark to keep is never written to"
        fill
      >
        {empty ? (
          <div className="stack" style={{ maxWidth: 560 }}>
            <p>
              Begin with one real thing: add a machine and paste its survey, or open an image and see what it
              starts on.
            </p>
            <div className="actions">
              <Primary onClick={() => void machine()}>Paste a report</Primary>
              <Quiet onClick={() => void go('/images')}>Open an image</Quiet>
              <Quiet
                onClick={() =>
                  void act({ label: 'Demo bench loaded', changes: differences(bench, saltmarshHall()) })
                }
              >
                Load the demo bench
              </Quiet>
            </div>
          </div>
        ) : (
          <>
            <div className="actions" style={{ marginBottom: 8 }}>
              <input
                className="in"
                style={{ width: 220 }}
                aria-label="Narrow the shelf"
                placeholder="Name or serial"
                value={words}
                onChange={(e) => setWords(e.target.value)}
              />
              {[undefined, ...KINDS].map((k) => (
                <button
                  key={k ?? 'all'}
                  type="button"
                  className="link"
                  aria-pressed={k === kind}
                  style={
                    k === kind ? { color: 'var(--ink)', fontWeight: 650, textDecoration: 'none' } : undefined
                  }
                  onClick={() => setParams(k ? { kind: k } : {})}
                >
                  {k ? `${KIND_TITLES[k]}s`.replace('Memorys', 'Memory') : 'All'}{' '}
                  <span className="m soft">{bench.items.filter((i) => !k || i.kind === k).length}</span>
                </button>
              ))}
            </div>
            {shown.length === 0 ? (
              <p className="soft">Nothing on the shelf is called that.</p>
            ) : (
              <Rows items={shown} />
            )}
          </>
        )}
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
