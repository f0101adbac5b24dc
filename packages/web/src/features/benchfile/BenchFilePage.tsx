import { useState } from 'react';
import { useNavigate } from 'react-router';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { emptyBench, theBench, type Bench } from '@zb/core/model/bench';
import { differences } from '@zb/core/model/changes';
import {
  BenchFileError,
  benchFromText,
  benchToText,
  previewImport,
  type FileProblem,
} from '@zb/core/model/file';
import { BenchLedger } from '../../parts/BenchLedger';
import { Primary, Quiet } from '../../parts/Button';
import { FileProblems } from '../../parts/FileProblems';
import { Sheet } from '../../parts/Sheet';
import { readTextFile } from '../../parts/textFile';
import { download, fileName } from '../../storage/download';
import { useAct, useBench } from '../../storage/hooks';

const title = (collection: string): string => {
  const many = theBench.table[collection]?.title.many ?? collection;
  return many.charAt(0).toUpperCase() + many.slice(1);
};

/** The whole bench as one file: save it, open one, see what would change before anything does. */
export default function BenchFilePage() {
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const [incoming, setIncoming] = useState<{ bench: Bench; file: string } | null>(null);
  const [problem, setProblem] = useState<{
    words: string;
    list: readonly FileProblem[];
    count: number;
  } | null>(null);
  const [name, setName] = useState(bench.name);
  const open = async (file: File): Promise<void> => {
    setIncoming(null);
    setProblem(null);
    try {
      setIncoming({ bench: benchFromText(await readTextFile(file, 'bench')), file: file.name });
    } catch (error) {
      const { problems: list, count } = error instanceof BenchFileError ? error : { problems: [], count: 0 };
      setProblem({ words: error instanceof Error ? error.message : String(error), list, count });
    }
  };
  const replace = async (to: Bench, label: string): Promise<void> => {
    if (await act({ label, changes: differences(bench, to) })) void go('/');
  };
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
              <Primary onClick={() => void replace(incoming.bench, `Bench “${incoming.bench.name}” opened`)}>
                Put it in place
              </Primary>
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
              {previewImport(bench, incoming.bench).map((p) => (
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
              <span className="sub">
                All of it is checked first; you see what it would add and replace before anything changes.
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
                {previewImport(bench, bench).map((c) => (
                  <tr key={c.collection}>
                    <th scope="row">{title(c.collection)}</th>
                    <td className="num">{c.same}</td>
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
