import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { blankProfile } from '@zb/core/system/draft';
import {
  previewProfiles,
  profilesFromText,
  profilesToText,
  takeProfiles,
  type ProfileArrival,
} from '@zb/core/system/exchange';
import { optionOf, supportDays } from '@zb/core/system/options';
import { supportWords } from '@zb/core/words/fit/school';
import { BenchFileError, type FileProblem } from '@zb/core/model/file';
import { BenchLedger } from '../../parts/BenchLedger';
import { Primary, Quiet } from '../../ui/Button';
import { FileProblems } from '../../parts/FileProblems';
import { Dialog } from '../../ui/Dialog';
import { NoProfiles } from '../../parts/NoProfiles';
import { Sheet } from '../../parts/Sheet';
import { readTextFile } from '../../parts/textFile';
import { download, fileName } from '../../storage/download';
import { stamp, useAct, useBench } from '../../storage/hooks';

/** The systems of the bench, and how they are shared. */
export default function ProfilesPage() {
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const [arriving, setArriving] = useState<ProfileArrival[] | null>(null);
  const [problem, setProblem] = useState<{ words: string; problems: readonly FileProblem[] } | null>(null);
  const { now } = stamp();
  const open = async (file: File): Promise<void> => {
    try {
      setArriving(previewProfiles(bench, profilesFromText(await readTextFile(file, 'systems'))));
      setProblem(null);
    } catch (error) {
      setArriving(null);
      setProblem({
        words: error instanceof Error ? error.message : String(error),
        problems: error instanceof BenchFileError ? error.problems : [],
      });
    }
  };
  const add = async (): Promise<void> => {
    const fresh = blankProfile(stamp().id());
    await act({ label: 'System added', changes: [{ in: 'profiles', id: fresh.id, to: fresh }] });
    void go(`/profiles/${encodeURIComponent(fresh.id)}`);
  };
  return (
    <>
      <Sheet
        title="Profiles"
        mid={`${bench.profiles.length} ${bench.profiles.length === 1 ? 'system' : 'systems'}`}
        headline={
          bench.profiles.length === 0
            ? 'Which systems do you choose from?'
            : `${bench.profiles.length} ${bench.profiles.length === 1 ? 'system' : 'systems'} to choose from, each as data`
        }
        foot={
          <>
            <Primary onClick={() => void add()}>Add a system</Primary>
            <label className="link">
              Open a file of systems
              <input
                type="file"
                accept=".json,application/json"
                className="hidden-text"
                onChange={(e) => {
                  const file = e.target.files?.[0];
                  e.target.value = '';
                  if (file) void open(file);
                }}
              />
            </label>
            <Quiet
              disabled={bench.profiles.length === 0}
              onClick={() =>
                download(
                  fileName(`${bench.name} systems`, 'json'),
                  profilesToText(bench.profiles),
                  'application/json',
                )
              }
            >
              Save all to a file
            </Quiet>
          </>
        }
        hint="A file of systems holds nothing else of the bench"
      >
        {problem && (
          <div className="said said-stop" role="alert" style={{ marginBottom: 10 }}>
            <b>{problem.words}</b> Nothing was changed; the systems on the bench are as they were.
            <FileProblems list={problem.problems} most={8} />
          </div>
        )}
        {bench.profiles.length === 0 ? (
          <NoProfiles />
        ) : (
          <table className="t rows">
            <thead>
              <tr>
                <th scope="col">System</th>
                <th scope="col">For</th>
                <th scope="col">Release taken first</th>
                <th scope="col">Installer</th>
                <th scope="col">In boxes</th>
              </tr>
            </thead>
            <tbody>
              {bench.profiles.map((p) => {
                const { release } = optionOf(p);
                const boxes = bench.boxes.filter((b) => b.profileId === p.id).map((b) => b.name);
                return (
                  <tr key={p.id}>
                    <th scope="row">
                      <Link className="link" to={`/profiles/${encodeURIComponent(p.id)}`}>
                        {p.name}
                      </Link>
                      <span className="sub">{p.about}</span>
                    </th>
                    <td>{p.purpose}</td>
                    <td>
                      {release.version}, {release.channel}
                      <span className="sub">{supportWords(release, supportDays(release, now))}</span>
                    </td>
                    <td>{p.installer}</td>
                    <td>{boxes.join(', ')}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
      </Sheet>
      <BenchLedger bench={bench} />
      {arriving && (
        <Dialog open onClose={() => setArriving(null)} title="Systems in this file" size="md">
          <div className="stack">
            <table className="t">
              <thead>
                <tr>
                  <th scope="col">System</th>
                  <th scope="col">For</th>
                  <th scope="col">Taking it</th>
                </tr>
              </thead>
              <tbody>
                {arriving.map((a) => (
                  <tr key={a.profile.id}>
                    <th scope="row">{a.profile.name}</th>
                    <td>{a.profile.purpose}</td>
                    <td>
                      {a.does}
                      {a.does === 'replaces' && a.boxes.length > 0 && (
                        <span className="sub">chosen in {a.boxes.join(', ')}</span>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            <div className="actions">
              <Primary
                onClick={() => {
                  void act(takeProfiles(arriving.map((a) => a.profile)));
                  setArriving(null);
                }}
              >
                Take {arriving.length === 1 ? 'it' : `all ${arriving.length}`}
              </Primary>
              <Quiet onClick={() => setArriving(null)}>Leave</Quiet>
              <span className="soft">Undo takes it back.</span>
            </div>
          </div>
        </Dialog>
      )}
    </>
  );
}
