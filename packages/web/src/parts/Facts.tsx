import { useState } from 'react';
import { enterFact } from '@zb/core/acts/shelf';
import { factApplies } from '@zb/core/machine/applies';
import { knownFact } from '@zb/core/model/known';
import type { Machine } from '@zb/core/model/bench';
import { FACT_GROUPS } from '@zb/core/model/factTable';
import { factDefinition, factKeys, type FactKey } from '@zb/core/model/facts';
import { factText, parseFact } from '@zb/core/machine/text';
import { stamp, useAct } from '../storage/hooks';

function Editor({ machine, fact, onDone }: { machine: Machine; fact: FactKey; onDone: () => void }) {
  const act = useAct();
  const definition = factDefinition(fact);
  const known = knownFact(machine, fact);
  const [text, setText] = useState(
    known
      ? Array.isArray(known.value)
        ? known.value.join(definition.kind === 'slots' ? '; ' : ', ')
        : factText(fact, known.value).replace('-bit', '').toLowerCase()
      : '',
  );
  const [problem, setProblem] = useState('');
  const save = (): void => {
    try {
      void act(enterFact(machine, fact, parseFact(fact, text), stamp()));
      onDone();
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  const options =
    definition.kind === 'choice'
      ? definition.choices
      : definition.kind === 'flag'
        ? ['yes', 'no']
        : undefined;
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
      style={{
        gridColumn: '1 / 4',
        display: 'flex',
        gap: 8,
        flexWrap: 'wrap',
        padding: '4px 0',
        alignItems: 'center',
      }}
    >
      <label style={{ flex: '1 1 100%' }} htmlFor={`fact-${fact}`}>
        {definition.ask}
        {definition.kind === 'slots' && (
          <span className="sub">Such as “M 2280 nvme x4”; several with semicolons; “none” for none.</span>
        )}
        {definition.kind === 'list' && (
          <span className="sub">Of {definition.choices?.join(', ')}; in order, with commas.</span>
        )}
      </label>
      {options ? (
        <select
          id={`fact-${fact}`}
          className="in"
          style={{ width: 'auto', flex: 1 }}
          value={text}
          autoFocus
          onChange={(e) => setText(e.target.value)}
        >
          <option value="">choose</option>
          {options.map((o) => (
            <option key={o}>{o}</option>
          ))}
        </select>
      ) : (
        <input
          id={`fact-${fact}`}
          className="in"
          style={{ flex: 1 }}
          autoFocus
          value={text}
          onChange={(e) => setText(e.target.value)}
          aria-invalid={problem !== ''}
        />
      )}
      <button className="link" type="submit">
        Enter
      </button>
      <button className="link" type="button" onClick={onDone}>
        Leave
      </button>
      {problem !== '' && (
        <span role="alert" style={{ color: 'var(--stop)', flex: '1 1 100%' }}>
          {problem}
        </span>
      )}
    </form>
  );
}

function FactLine({ machine, fact }: { machine: Machine; fact: FactKey }) {
  const act = useAct();
  const [editing, setEditing] = useState(false);
  const known = knownFact(machine, fact);
  const record = machine.facts[fact];
  const label = factDefinition(fact).label;
  if (editing) {
    return (
      <div className="fact">
        <Editor machine={machine} fact={fact} onDone={() => setEditing(false)} />
      </div>
    );
  }
  return (
    <div className="fact">
      <span>{label}</span>
      <span className="value">
        {known ? (
          <>
            <b style={{ fontWeight: 620 }}>{factText(fact, known.value)}</b>
          </>
        ) : (
          <span className="soft">not known</span>
        )}
      </span>
      <span className="nowrap" style={{ fontSize: 12 }}>
        {known?.origin === 'assumed' && (
          <>
            <button
              type="button"
              className="link"
              aria-label={`${label}: so it is`}
              onClick={() => void act(enterFact(machine, fact, known.value, stamp()))}
            >
              so it is
            </button>{' '}
          </>
        )}
        {record?.entered && (
          <>
            <button
              type="button"
              className="link"
              aria-label={`Take back ${label}`}
              onClick={() => void act(enterFact(machine, fact, undefined, stamp()))}
            >
              take back
            </button>{' '}
          </>
        )}
        <button
          type="button"
          className="link"
          aria-label={`${known ? 'Correct' : 'Enter'} ${label}`}
          onClick={() => setEditing(true)}
        >
          {known ? 'correct' : 'enter'}
        </button>
      </span>
      {known && (
        <span className="sub m source" title={known.source}>
          {known.origin === 'entered' ? (
            <span className="hand">by hand</span>
          ) : known.origin === 'assumed' ? (
            <span className="assumed">assumed: {known.source}</span>
          ) : (
            known.source
          )}
          {known.origin === 'entered' &&
            record?.surveyed &&
            ` (survey: ${factText(fact, record.surveyed.value)})`}
        </span>
      )}
    </div>
  );
}

/** Inside a sentence only the first letter changes: HDMI stays HDMI. */
const lowerFirst = (t: string): string =>
  /^[A-Z][a-z]/.test(t) ? t.charAt(0).toLowerCase() + t.slice(1) : t;

/** Facts of a group that nobody knows yet, in one line: each is a press away from being entered. */
function Unknown({ machine, facts }: { machine: Machine; facts: readonly FactKey[] }) {
  const [editing, setEditing] = useState<FactKey | null>(null);
  if (facts.length === 0) return null;
  const open = editing !== null && facts.includes(editing) ? editing : null;
  return (
    <div className="fact unknown">
      <span className="soft">Not known:</span>
      <span className="value" style={{ gridColumn: '2 / 4' }}>
        {facts.map((k, i) => (
          <span key={k}>
            {i > 0 && ', '}
            <button
              type="button"
              className="link"
              aria-label={`Enter ${factDefinition(k).label}`}
              onClick={() => setEditing(k)}
            >
              {lowerFirst(factDefinition(k).label)}
            </button>
          </span>
        ))}
      </span>
      {open && <Editor key={open} machine={machine} fact={open} onDone={() => setEditing(null)} />}
    </div>
  );
}

/** The machine's facts as a person inspects a machine, each with its source; any can be corrected by hand. */
export function Facts({ machine, only }: { machine: Machine; only?: readonly FactKey[] }) {
  const keys = (only ?? factKeys).filter((k) => knownFact(machine, k) || factApplies(machine, k));
  return (
    <div className={only ? '' : 'facts'}>
      {FACT_GROUPS.map((group) => {
        const mine = keys.filter((k) => factDefinition(k).group === group);
        if (mine.length === 0) return null;
        // A short list of deciding facts shows each with its own line, known or not.
        const known = only ? mine : mine.filter((k) => knownFact(machine, k));
        return (
          <section className="factgroup" key={group}>
            <h2 className="h6">{group}</h2>
            {known.map((k) => (
              <FactLine key={k} machine={machine} fact={k} />
            ))}
            <Unknown machine={machine} facts={mine.filter((k) => !known.includes(k))} />
          </section>
        );
      })}
    </div>
  );
}
