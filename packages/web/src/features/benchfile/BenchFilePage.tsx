import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { emptyBench, theBench, type Bench } from '@zb/core/model/bench';
import { differences, type Change } from '@zb/core/model/changes';
import { BenchFileError, benchToText, previewImport, type FileProblem } from '@zb/core/model/file';
import { BenchLedger } from '../../parts/BenchLedger';
import { Primary, Quiet } from '../../ui/Button';
import { FileProblems } from '../../parts/FileProblems';
import { Sheet } from '../../parts/Sheet';
import { mayBe } from '../../parts/textFile';
import { download, fileName } from '../../storage/download';
import { useAct, useBench, useStore } from '../../storage/hooks';
import { differencesInTurns, readBench } from '../../workers/readBench';

const title = (collection: string): string => {
  const many = theBench.table[collection]?.title.many ?? collection;
  return many.charAt(0).toUpperCase() + many.slice(1);
};

interface Incoming {
  bench: Bench;
  file: string;
  /** The bench it was held against, and what leads from that to it. */
  against: Bench;
  changes: Change[];
}

/** The whole bench as one file: save it, open one, see what would change before anything does. */
export default function BenchFilePage() {
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const store = useStore();
  const [incoming, setIncoming] = useState<Incoming | null>(null);
  const [reading, setReading] = useState<string | null>(null);
  const [problem, setProblem] = useState<{
    words: string;
    list: readonly FileProblem[];
    count: number;
  } | null>(null);
  const [name, setName] = useState(bench.name);
  const open = async (file: File): Promise<void> => {
    setIncoming(null);
    setProblem(null);
    setReading(file.name);
    try {
      mayBe(file, 'bench');
      const read = await readBench(file);
      setIncoming({
        bench: read,
        file: file.name,
        against: bench,
        changes: await differencesInTurns(bench, read),
      });
    } catch (error) {
      const { problems: list, count } = error instanceof BenchFileError ? error : { problems: [], count: 0 };
      setProblem({ words: error instanceof Error ? error.message : String(error), list, count });
    } finally {
      setReading(null);
    }
  };
  const replace = async (to: Bench, label: string): Promise<void> => {
    if (await act({ label, changes: differences(bench, to) })) void go('/');
  };
  const putInPlace = async ({ bench: to, against, changes }: Incoming): Promise<void> => {
    // Another tab may have changed this bench while the question stood.
    const lead = against === bench ? changes : await differencesInTurns(bench, to);
    if (await store.replace(`Bench “${to.name}” opened`, to, lead)) void go('/');
  };
  const preview = useMemo(
    () => incoming && previewImport(incoming.against, incoming.bench, incoming.changes),
    [incoming],
  );
  return (
    <>
      <Sheet
        title="Bench file"
        mid={bench.name}
        headline={
          incoming ? `Put “${incoming.bench.name}” in place of this bench?` : 'Where does this bench live?'
        }
        foot={
          incoming ? (
            <>
              <Primary onClick={() => void putInPlace(incoming)}>Put it in place</Primary>
              <Quiet onClick={() => setIncoming(null)}>Leave all as it is</Quiet>
            </>
          ) : (
            <Primary
              onClick={() => download(fileName(bench.name, 'json'), benchToText(bench), 'application/json')}
            >
              Save the bench to a file
            </Primary>
          )
        }
        hint={incoming ? 'One undo takes it back' : 'One readable JSON file'}
      >
        {problem && (
          <div className="said said-stop" role="alert" style={{ marginBottom: 12 }}>
            <b>{problem.words}</b> Nothing on your bench was changed.
            <FileProblems list={problem.list} most={12} count={problem.count} />
          </div>
        )}
        {incoming ? (
          <table className="t" style={{ maxWidth: 640 }}>
            <thead>
              <tr>
                <th scope="col">{incoming.file}</th>
                {['Added', 'Replaced', 'Taken away', 'The same'].map((h) => (
                  <th scope="col" className="num" key={h}>
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {preview?.map((p) => (
                <tr key={p.collection}>
                  <th scope="row">{title(p.collection)}</th>
                  <td className="num">{p.added}</td>
                  <td className="num">{p.replaced}</td>
                  <td className="num">{p.removed}</td>
                  <td className="num">{p.same}</td>
                </tr>
              ))}
            </tbody>
          </table>
        ) : (
          <div className="stack" style={{ maxWidth: 620 }}>
            <p>
              In this browser, on this machine, and in the files you save. The server keeps only the
              stand-ins’ own state.
            </p>
            <form
              className="actions"
              onSubmit={(e) => {
                e.preventDefault();
                if (name.trim())
                  void act({
                    label: `Bench renamed “${name.trim()}”`,
                    changes: [{ in: 'name', id: 'name', to: name.trim(), saw: bench.name }],
                  });
              }}
            >
              <label className="field" style={{ flex: 1 }}>
                <span>Name of the bench</span>
                <input
                  className="in"
                  maxLength={120}
                  value={name}
                  onChange={(e) => setName(e.target.value)}
                />
              </label>
              <Quiet type="submit" alignSelf="flex-end">
                Rename
              </Quiet>
            </form>
            <label className="field">
              <span>Open a bench file</span>
              <input
                type="file"
                accept=".json,application/json"
                aria-label="Bench file"
                onChange={(e) => {
                  const file = e.target.files?.[0];
                  e.target.value = '';
                  if (file) void open(file);
                }}
              />
              <span className="sub" role="status">
                {reading === null
                  ? 'All of it is checked first; you see what it would add and replace before anything changes.'
                  : `Reading ${reading}…`}
              </span>
            </label>
            <table className="t">
              <thead>
                <tr>
                  <th scope="col">In the file now</th>
                  <th scope="col" className="num">
                    Records
                  </th>
                </tr>
              </thead>
              <tbody>
                {theBench.names.map((name) => (
                  <tr key={name}>
                    <th scope="row">{title(name)}</th>
                    <td className="num">{theBench.records(bench, name).length}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <div className="actions">
              <Quiet onClick={() => void replace(emptyBench(), 'Empty bench begun')}>
                Start an empty bench
              </Quiet>
              <Quiet onClick={() => void replace(saltmarshHall(), 'Demo bench loaded')}>
                Load the demo bench
              </Quiet>
            </div>
          </div>
        )}
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
