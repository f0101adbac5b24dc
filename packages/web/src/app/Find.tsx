import Fuse from 'fuse.js';
import { useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { findEntries } from '@zb/core/model/bench';
import type { FindEntry } from '@zb/core/model/collection';
import type { Bench } from '@zb/core/model/bench';
import { Modal } from '../parts/Modal';

/** Find anything: boxes, stops, machines, drives, images, profiles, log lines. */
export function Find({ bench, open, onClose }: { bench: Bench; open: boolean; onClose: () => void }) {
  const [words, setWords] = useState('');
  const [at, setAt] = useState(0);
  const go = useNavigate();
  const input = useRef<HTMLInputElement>(null);
  const entries = useMemo(() => findEntries(bench), [bench]);
  const fuse = useMemo(
    () =>
      new Fuse(entries, {
        keys: [{ name: 'title', weight: 2 }, 'detail'],
        threshold: 0.32,
        ignoreLocation: true,
      }),
    [entries],
  );
  // Things come before the lines that speak of them.
  const found = words.trim() === '' ? entries : fuse.search(words, { limit: 40 }).map((h) => h.item);
  const spoken = (e: FindEntry): number => Number(e.detail.startsWith('log,'));
  const hits = [...found].sort((a, b) => spoken(a) - spoken(b)).slice(0, 9);
  const close = (): void => {
    setWords('');
    setAt(0);
    onClose();
  };
  const pick = (i: number): void => {
    const hit = hits[i];
    if (!hit) return;
    close();
    void go(hit.path);
  };
  return (
    <Modal open={open} onClose={close} title="Find" focusOn={() => input.current}>
      <input
        ref={input}
        className="in"
        aria-label="Find anything on the bench"
        role="combobox"
        aria-expanded="true"
        aria-controls="find-hits"
        aria-activedescendant={hits[at] ? `hit-${at}` : undefined}
        value={words}
        placeholder="A name, a serial, a word from the log"
        onChange={(e) => {
          setWords(e.target.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown') setAt((n) => Math.min(n + 1, hits.length - 1));
          else if (e.key === 'ArrowUp') setAt((n) => Math.max(n - 1, 0));
          else if (e.key === 'Enter') pick(at);
          else return;
          e.preventDefault();
        }}
      />
      <ul id="find-hits" role="listbox" aria-label="Found" style={{ marginTop: 8 }}>
        {hits.map((h, i) => (
          <li
            key={`${h.path}-${h.title}-${i}`}
            id={`hit-${i}`}
            role="option"
            aria-selected={i === at}
            onClick={() => pick(i)}
            style={{
              padding: '5px 8px',
              cursor: 'pointer',
              background: i === at ? 'var(--bluew)' : undefined,
              borderLeft: `3px solid ${i === at ? 'var(--blue)' : 'transparent'}`,
            }}
          >
            <b>{h.title}</b> <span className="soft">{h.detail}</span>
          </li>
        ))}
      </ul>
      {hits.length === 0 && <p className="soft">Nothing on the bench has these words.</p>}
    </Modal>
  );
}
