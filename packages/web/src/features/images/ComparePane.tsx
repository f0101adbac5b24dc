import { differenceWords, treeTitle } from '@zb/core/words/compare';
import { dumpWords } from '@zb/core/words/readback';
import { useRef, useState } from 'react';
import type { ImageComparison } from '@zb/core/write/compareImages';
import type { ImageItem } from '@zb/core/model/bench';
import { formatExact, formatIec } from '@zb/core/units/bytes';
import { progress } from '@zb/core/units/progress';
import { Stamp } from '../../parts/Marks';
import { compareFiles, type Comparing } from '../../workers/openImages';

/** How many paths of a tree are listed before the rest is counted. */
const SHOWN = 12;

function Paths({ title, paths }: { title: string; paths: string[] }) {
  if (paths.length === 0) return null;
  return (
    <p>
      {title}: <span className="m">{paths.slice(0, SHOWN).join(', ')}</span>
      {paths.length > SHOWN && ` and ${paths.length - SHOWN} more`}
    </p>
  );
}

function Result({ found, first, second }: { found: ImageComparison; first: string; second: string }) {
  const { blocks, differences, trees } = found;
  return (
    <div className="stack" style={{ gap: 8 }}>
      <div className={`said said-${blocks.result === 'proven' ? 'moss' : 'stop'}`} role="status">
        <Stamp kind={blocks.result === 'proven' ? 'good' : 'stop'}>
          {blocks.result === 'proven' ? 'SAME BYTES' : blocks.pattern.toUpperCase()}
        </Stamp>{' '}
        {dumpWords(blocks)}
      </div>
      {blocks.firstByte !== null && (
        <p className="sub">
          First difference at byte <span className="m">{blocks.firstByte}</span>;{' '}
          {formatExact(blocks.differingBytes)} differ, in {blocks.differing} blocks of{' '}
          {formatIec(blocks.blockBytes)}
          {blocks.stretches.length > 0 &&
            `: ${blocks.stretches.map((s) => `${s.title} (${s.blocks})`).join(', ')}`}
          .
        </p>
      )}
      {differences.length > 0 && (
        <table className="t">
          <thead>
            <tr>
              <th scope="col">What differs</th>
              <th scope="col">{first}</th>
              <th scope="col">{second}</th>
            </tr>
          </thead>
          <tbody>
            {differences.map(differenceWords).map((d) => (
              <tr key={d.what}>
                <th scope="row">{d.what}</th>
                <td>{d.first}</td>
                <td>{d.second}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {trees?.map((t) => (
        <div key={treeTitle(t)}>
          <h3 className="h6">Files on {treeTitle(t)}</h3>
          <p>
            {t.same} are the same by path and size.{' '}
            {t.onlyInFirst.length + t.onlyInSecond.length + t.sizes.length === 0 && 'None differs.'}
          </p>
          <Paths title={`Only in ${first}`} paths={t.onlyInFirst} />
          <Paths title={`Only in ${second}`} paths={t.onlyInSecond} />
          <Paths title="Other sizes" paths={t.sizes.map((s) => `${s.path} (${s.first} and ${s.second})`)} />
        </div>
      ))}
    </div>
  );
}

function FileEntry({
  label,
  name,
  onFile,
}: {
  label: string;
  name: string | null;
  onFile: (f: File) => void;
}) {
  return (
    <label className="field">
      <span>{label}</span>
      <input
        type="file"
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onFile(file);
        }}
      />
      {name !== null && <span className="sub">{name}</span>}
    </label>
  );
}

/** Holds an image against a dump of the stick it was written to, or against another image. */
export function ComparePane({ image, file }: { image: ImageItem; file: File | undefined }) {
  const [own, setOwn] = useState<File | null>(null);
  const [dump, setDump] = useState<File | null>(null);
  const [state, setState] = useState<Comparing | null>(null);
  const [problem, setProblem] = useState('');
  const first = file ?? own;
  const latest = useRef(0);
  const begin = (a: File, b: File): void => {
    // Another file chosen while one is compared: the first is called off, and nothing it still says is shown.
    if (state?.found === undefined) state?.cancel();
    latest.current += 1;
    const mine = latest.current;
    setDump(b);
    setProblem('');
    const tell = (now: Comparing): void => {
      if (latest.current === mine) setState(now);
    };
    compareFiles(a, b, tell).catch((error: unknown) => {
      if (latest.current !== mine) return;
      setState(null);
      setProblem(
        `The files could not be read to the end (${error instanceof Error ? error.message : String(error)}). Nothing was changed; open them again.`,
      );
    });
  };
  return (
    <details className="why">
      <summary>Compare with a dump of the stick, or with another image</summary>
      <div className="stack" style={{ gap: 8, marginTop: 8 }}>
        {!file && (
          <FileEntry
            label={`Open ${image.name} again: the browser forgets files`}
            name={own?.name ?? null}
            onFile={(f) => {
              if (f.size === image.bytes) setOwn(f);
              else setProblem('That is another file: its size differs. Nothing was changed.');
            }}
          />
        )}
        {first && <FileEntry label="Dump or other image" name={null} onFile={(f) => begin(first, f)} />}
        {problem !== '' && (
          <p className="said said-stop" role="alert">
            {problem}
          </p>
        )}
        {state && state.found === undefined && (
          <div className="row">
            <span className="m">
              {Math.round(100 * progress(state.done, state.total, 0).share)} % compared
            </span>
            <button type="button" className="link" onClick={state.cancel}>
              Cancel
            </button>
          </div>
        )}
        {state?.found === null && <p className="said said-check">Cancelled. Nothing was kept.</p>}
        {state?.found && <Result found={state.found} first={image.name} second={dump?.name ?? 'the other'} />}
      </div>
    </details>
  );
}
