import { useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { draftOf, profileOf, type DraftProblem, type ProfileDraft } from '@zb/core/system/draft';
import { profilesToText, removeProfile } from '@zb/core/system/exchange';
import { settled } from '@zb/core/system/fromImage';
import { notSaid } from '@zb/core/system/notSaid';
import { judge } from '@zb/core/system/judge';
import { judgedShort } from '@zb/core/words/fit/finding';
import { machineView } from '@zb/core/system/view';
import { machinesOf, type Bench, type Profile } from '@zb/core/model/bench';
import { edited } from '@zb/core/model/changes';
import NotFound from '../../parts/NotFound';
import { Primary, Quiet } from '../../ui/Button';
import { LedgerAside, LedgerGroup } from '../../parts/LedgerPane';
import { VerdictMark } from '../../parts/Marks';
import { Sheet } from '../../parts/Sheet';
import { download, fileName } from '../../storage/download';
import { useAct, useBench } from '../../storage/hooks';
import { EditingContext } from './fields';
import { SECTIONS } from './sections';

const holds = (paths: readonly string[], problem: DraftProblem): boolean =>
  paths.some((p) => problem.path === p || problem.path.startsWith(`${p}.`));

function Editor({ bench, profile }: { bench: Bench; profile: Profile }) {
  const act = useAct();
  const go = useNavigate();
  // What the user saw when the form was opened or saved last: only what differs from it is changed.
  const [seen, setSeen] = useState(profile);
  const form = useForm<ProfileDraft>({ defaultValues: draftOf(profile) });
  const [at, setAt] = useState<string>('purpose');
  const [problems, setProblems] = useState<readonly DraftProblem[]>([]);
  const section = SECTIONS.find((s) => s.id === at) ?? SECTIONS[0];
  const save = form.handleSubmit(async (draft) => {
    const read = profileOf(draft);
    if ('problems' in read) {
      setProblems(read.problems);
      const first = SECTIONS.find((s) => read.problems.some((p) => holds(s.paths, p)));
      if (first) setAt(first.id);
      return;
    }
    setProblems([]);
    const saved = settled(seen, read.profile);
    const kept = await act({
      label: `“${saved.name}” saved`,
      changes: [edited('profiles', seen, saved)],
    });
    if (kept) setSeen(saved);
    if (kept) form.reset(draftOf(saved));
  });
  const boxes = bench.boxes.filter((b) => b.profileId === profile.id);
  const open = notSaid({ origins: useWatch({ control: form.control, name: 'origins' }) });
  return (
    <EditingContext.Provider value={{ form, problems }}>
      <Sheet
        title={profile.name}
        mid={profile.purpose}
        right={form.formState.isDirty ? 'changed, not saved' : ''}
        headline={`What is ${profile.name}, and what does it need?`}
        foot={
          <>
            <Primary onClick={() => void save()}>Save the profile</Primary>
            <Quiet
              onClick={() =>
                download(fileName(profile.name, 'json'), profilesToText([profile]), 'application/json')
              }
              title="As it was last saved"
            >
              Save it to a file
            </Quiet>
            <Quiet
              onClick={() => {
                void act(removeProfile(bench, profile));
                void go('/profiles');
              }}
            >
              Remove it
            </Quiet>
          </>
        }
        hint={
          boxes.length > 0
            ? `Chosen in ${boxes.map((b) => b.name).join(', ')}`
            : 'Undo brings a removed one back'
        }
      >
        <form
          onSubmit={(e) => {
            e.preventDefault();
            void save();
          }}
        >
          {problems.length > 0 && (
            <p className="said said-stop" role="alert">
              {problems.length === 1 ? 'One field is wrong' : `${problems.length} fields are wrong`}. Nothing
              was saved; what you typed is still here.
            </p>
          )}
          {open.length > 0 && (
            <p className="said said-check">
              {open.length === 1 ? 'One value is' : `${open.length} values are`} a guess: the image does not
              tell {open.length === 1 ? 'it' : 'them'}. Each is marked in its section; change it, or say that
              it is right.
            </p>
          )}
          <div className="sections">
            <nav aria-label="Sections of the profile">
              {SECTIONS.map((s) => {
                const wrong = problems.filter((p) => holds(s.paths, p)).length;
                const asked = open.filter((path) => holds(s.paths, { path, why: '' })).length;
                return (
                  <button
                    key={s.id}
                    type="button"
                    className={s.id === section.id ? 'on' : ''}
                    aria-current={s.id === section.id ? 'true' : undefined}
                    onClick={() => setAt(s.id)}
                  >
                    {s.title}
                    {wrong > 0 && <b className="g g-stop"> {wrong} wrong</b>}
                    {asked > 0 && <span className="sub">{asked} to say</span>}
                  </button>
                );
              })}
            </nav>
            <div key={section.id}>
              <section.Body />
            </div>
          </div>
          <button type="submit" className="hidden-text" tabIndex={-1} aria-hidden="true">
            Save
          </button>
        </form>
      </Sheet>
      <LedgerAside label="On the shelf">
        <LedgerGroup title="On your machines, as last saved">
          {machinesOf(bench).map((m) => {
            const j = judge(machineView(bench, m), profile);
            return (
              <div key={m.id} style={{ padding: '3px 0' }}>
                <b style={{ marginRight: 8 }}>{m.name}</b>
                <VerdictMark verdict={j.verdict} />
                {j.verdict !== 'fits' && <span className="sub">{judgedShort(j)}</span>}
              </div>
            );
          })}
        </LedgerGroup>
      </LedgerAside>
    </EditingContext.Provider>
  );
}

export default function ProfilePage() {
  const { profileId } = useParams();
  const bench = useBench();
  const profile = bench.profiles.find((p) => p.id === profileId);
  if (!profile) return <NotFound what="This system is not on the bench" />;
  return <Editor key={profile.id} bench={bench} profile={profile} />;
}
