import type { Store } from '@zb/core/model/bench';
import { fates, type Fate } from '@zb/core/model/content';
import { firmwareKinds, firmwareTitle } from '@zb/core/model/inspection';
import { contentByHand, handKind, learntWords } from '@zb/core/words/content';
import { stamp } from '../../storage/hooks';
import { StoreParts } from '../../parts/StoreParts';
import { TableDump } from './TableDump';

const FATE: Record<Fate, [title: string, means: string]> = {
  keep: ['Keep it', 'Nothing is ever written to it.'],
  'may be lost': ['It may be lost', 'A write may erase all of it.'],
  'not decided': ['Not decided', 'Whatever could erase it stops here first.'],
};

/** What lies on a drive, where that is known from, and whether it may be lost. */
export function Content({ store, onChange }: { store: Store; onChange: (change: Partial<Store>) => void }) {
  const { content } = store;
  return (
    <fieldset style={{ gridColumn: '1 / -1', border: 0, padding: 0, margin: 0 }}>
      <div className="two">
        <div className="stack" style={{ gap: 8 }}>
          <label className="field">
            <span>What lies on it</span>
            <select
              className="in"
              value={handKind(content)}
              onChange={(e) => onChange({ content: contentByHand(e.target.value, content, stamp().now) })}
            >
              {handKind(content) === 'as learnt' && <option value="as learnt">as it was learnt</option>}
              <option value="not known">not known</option>
              <option value="nothing">nothing: it is empty</option>
              <option value="data">data, nothing that starts</option>
              {firmwareKinds.map((f) => (
                <option key={f} value={f}>
                  a system that starts by {firmwareTitle[f]}
                </option>
              ))}
            </select>
            <span className="sub">{learntWords(content)}</span>
          </label>
          {content && content.parts.length > 0 && <StoreParts content={content} />}
          <TableDump content={content} onContent={(learnt) => onChange({ content: learnt })} />
        </div>
        <div role="radiogroup" aria-label="May what is on it be lost?" className="stack" style={{ gap: 4 }}>
          <span className="h6">May what is on it be lost?</span>
          {fates.map((fate) => (
            <label key={fate} style={{ display: 'flex', gap: 8, alignItems: 'baseline' }}>
              <input
                type="radio"
                name="fate"
                checked={store.fate === fate}
                onChange={() => onChange({ fate })}
              />
              <span>
                <b>{FATE[fate][0]}.</b> {FATE[fate][1]}
              </span>
            </label>
          ))}
        </div>
      </div>
    </fieldset>
  );
}
