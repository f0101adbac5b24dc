import { signatureWords } from '@zb/core/words/signature';
import { useState } from 'react';
import { recordComparisons } from '@zb/core/acts/images';
import { againstList } from '@zb/core/checksum/against';
import { parseChecksumList } from '@zb/core/formats/checksumList';
import type { ImageItem } from '@zb/core/model/bench';
import { Quiet } from '../../ui/Button';
import { PickFile } from '../../parts/PickFile';
import { readTextFile } from '../../parts/textFile';
import { setRoomList, useRoom, type RoomList } from '../../parts/room';
import { stamp, useAct } from '../../storage/hooks';
import { checkSignature } from '../../workers/openImages';

/** Checks the signature over the list: the key first, then the signature where it is not in the list itself. */
function Signature({ list }: { list: RoomList }) {
  const { text, bytes } = list;
  const [key, setKey] = useState<File | null>(null);
  const [problem, setProblem] = useState('');
  const clear = text.includes('-----BEGIN PGP SIGNED MESSAGE-----');
  const check = (keyFile: File, signature: File | null): void => {
    setProblem('');
    checkSignature(bytes, signature, keyFile).then(
      (found) => setRoomList({ ...list, signature: found }),
      (error: unknown) => setProblem(error instanceof Error ? error.message : String(error)),
    );
  };
  const found = list.signature;
  const said = found && signatureWords(found);
  return (
    <div className="stack" style={{ gap: 4 }}>
      <p>
        Is the list itself what they published?{' '}
        {key === null ? (
          <PickFile
            label="Open the publisher’s OpenPGP key"
            onFile={(f) => {
              setKey(f);
              if (clear) check(f, null);
            }}
          />
        ) : clear ? (
          <span className="sub">The signature is in the list itself.</span>
        ) : (
          <PickFile label="Open the signature beside the list" onFile={(f) => check(key, f)} />
        )}
      </p>
      {problem !== '' && (
        <p className="said said-stop" role="alert">
          {problem}
        </p>
      )}
      {found && said && (
        <div className={`said said-${found.state === 'good' ? 'moss' : 'stop'}`} role="status">
          <p>{said.found}</p>
          <p className="sub">{said.proves}</p>
        </div>
      )}
    </div>
  );
}

/** One checksum list against every image of the bench that has been read. */
export function ListPane({ images }: { images: ImageItem[] }) {
  const act = useAct();
  const { list } = useRoom();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  const take = (value: string, from: string, bytes = new Blob([value])): void => {
    const parsed = parseChecksumList(value);
    if (parsed.sums.length + parsed.sizes.length === 0) {
      setProblem(
        'No checksum is in this text: MD5 has 32 hexadecimal digits, SHA-1 40, SHA-256 64, SHA-512 128. Nothing was changed.',
      );
      return;
    }
    setProblem('');
    setText('');
    const s = stamp();
    setRoomList({ text: value, bytes, from, signature: null });
    if (images.length > 0) void act(recordComparisons(againstList(images, parsed, from, s.now), from, s));
  };
  const parsed = list && parseChecksumList(list.text);
  return (
    <section className="stack" style={{ gap: 8 }} aria-label="Checksum list">
      <h2 className="h6">One list for all of them</h2>
      <div style={{ display: 'flex', gap: 8, alignItems: 'start' }}>
        <textarea
          className="in mono"
          rows={2}
          aria-label="Published checksum list"
          placeholder="Paste the list they published"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <Quiet onClick={() => take(text, 'pasted list')} disabled={text.trim() === ''}>
          Compare
        </Quiet>
        <PickFile
          label="Open a list"
          onFile={(f) =>
            void readTextFile(f, 'list').then(
              (t) => take(t, f.name, f),
              (e: Error) => setProblem(e.message),
            )
          }
        />
      </div>
      {problem !== '' && (
        <p className="said said-check" role="alert">
          {problem}
        </p>
      )}
      {list && parsed && (
        <>
          <p className="sub">
            {list.from} lies open: {parsed.sums.length} sums
            {parsed.unreadCount > 0 && `, ${parsed.unreadCount} lines that could not be read`}. Every image
            above is held against it, and so is every file opened from now on.
          </p>
          <Signature key={list.text} list={list} />
          <p>
            <button type="button" className="link" onClick={() => setRoomList(null)}>
              Put the list away
            </button>
          </p>
        </>
      )}
    </section>
  );
}
