import { useState } from 'react';
import { addEntry, type HandEntry } from '@zb/core/acts/box';
import type { Box } from '@zb/core/model/bench';
import type { Stop } from '@zb/core/model/stops';
import { stamp, useAct } from '../storage/hooks';
import { Quiet } from '../ui/Button';
import { smallPhoto } from './photo';

const TITLE = { note: 'Note', photo: 'Photo', setting: 'Setting changed' } as const;

/** Adds a line by hand: a note, a photo, or a setting changed from one value to another. */
export function LogEntryForm({
  box,
  stop,
  kinds = ['note', 'setting', 'photo'],
}: {
  box: Box | null;
  stop: Stop | null;
  kinds?: readonly HandEntry['kind'][];
}) {
  const act = useAct();
  const [kind, setKind] = useState<HandEntry['kind']>(kinds[0] ?? 'note');
  const [text, setText] = useState('');
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const [photo, setPhoto] = useState('');
  const [problem, setProblem] = useState('');
  const ready =
    kind === 'note'
      ? text.trim() !== ''
      : kind === 'photo'
        ? photo !== ''
        : text.trim() !== '' && to.trim() !== '';
  const add = (): void => {
    const entry: HandEntry =
      kind === 'note'
        ? { kind, text: text.trim() }
        : kind === 'photo'
          ? { kind, text: text.trim() || 'Photo', photo }
          : { kind, text: text.trim(), from: from.trim() || 'not noted', to: to.trim() };
    void act(addEntry(box, stop, entry, stamp()));
    setText('');
    setFrom('');
    setTo('');
    setPhoto('');
  };
  const read = (file: File | undefined): void => {
    if (!file) return;
    smallPhoto(file).then(
      (data) => {
        setPhoto(data);
        setProblem('');
      },
      (error: unknown) => setProblem(error instanceof Error ? error.message : String(error)),
    );
  };
  return (
    <form
      className="stack no-print"
      style={{ gap: 6 }}
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) add();
      }}
    >
      <div className="actions" role="radiogroup" aria-label="Kind of line">
        <h2 className="h6">Add to the log</h2>
        {kinds.map((k) => (
          <label key={k}>
            <input
              type="radio"
              name={`kind-${stop ?? 'bench'}`}
              checked={kind === k}
              onChange={() => setKind(k)}
            />{' '}
            {TITLE[k]}
          </label>
        ))}
      </div>
      <div className="actions">
        <input
          className="in"
          style={{ flex: '2 1 160px' }}
          aria-label={kind === 'setting' ? 'Setting' : 'Text'}
          placeholder={
            kind === 'setting'
              ? 'Setting, such as graphics memory'
              : kind === 'photo'
                ? 'What it shows'
                : 'What happened'
          }
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        {kind === 'setting' && (
          <>
            <input
              className="in"
              style={{ flex: '1 1 80px' }}
              aria-label="From"
              placeholder="from"
              value={from}
              onChange={(e) => setFrom(e.target.value)}
            />
            <input
              className="in"
              style={{ flex: '1 1 80px' }}
              aria-label="To"
              placeholder="to"
              value={to}
              onChange={(e) => setTo(e.target.value)}
            />
          </>
        )}
        {kind === 'photo' && (
          <input
            type="file"
            accept="image/*"
            aria-label="Picture"
            onChange={(e) => read(e.target.files?.[0])}
          />
        )}
        <Quiet type="submit" disabled={!ready}>
          Add
        </Quiet>
      </div>
      {photo !== '' && <img className="photo" src={photo} alt="The picture to add" />}
      {problem !== '' && (
        <p className="said said-stop" role="alert">
          {problem}
        </p>
      )}
    </form>
  );
}
