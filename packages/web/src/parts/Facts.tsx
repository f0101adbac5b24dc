import { useState } from 'react';
import { enterFact } from '@zb/core/acts/shelf';
import { factApplies } from '@zb/core/fit/applies';
import { knownFact } from '@zb/core/fit/view';
import type { Machine } from '@zb/core/schema/bench';
import { factDefinition, factKeys, type FactKey } from '@zb/core/schema/facts';
import { factText, parseFact } from '@zb/core/survey/text';
import { stamp, useAct } from '../storage/hooks';

const GROUPS = ['Processor', 'Memory', 'Firmware', 'Graphics', 'Network', 'Ports and body'] as const;

function Editor({ machine, fact, onDone }: { machine: Machine; fact: FactKey; onDone: () => void }) {
  const act = useAct();
  const definition = factDefinition(fact);
  const known = knownFact(machine, fact);
  const [text, setText] = useState(
    known
      ? Array.isArray(known.value)
        ? known.value.join(', ')
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
          {known.origin === 'entered' ? <span className="hand">by hand</span> : known.source}
          {known.origin === 'entered' &&
            record?.surveyed &&
            ` (survey: ${factText(fact, record.surveyed.value)})`}
        </span>
      )}
    </div>
  );
}

/** The machine's facts as a person inspects a machine, each with its source; any can be corrected by hand. */
export function Facts({ machine, only }: { machine: Machine; only?: readonly FactKey[] }) {
  const keys = (only ?? factKeys).filter((k) => knownFact(machine, k) || factApplies(machine, k));
  return (
    <div className={only ? '' : 'facts'}>
      {GROUPS.map((group) => {
        const mine = keys.filter((k) => factDefinition(k).group === group);
        if (mine.length === 0) return null;
        return (
          <section className="factgroup" key={group}>
            <h2 className="h6">{group}</h2>
            {mine.map((k) => (
              <FactLine key={k} machine={machine} fact={k} />
            ))}
          </section>
        );
      })}
    </div>
  );
}
