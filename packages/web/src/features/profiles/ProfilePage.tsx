import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { set, useWatch, type FieldErrors } from 'react-hook-form';
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
import { DraftLines } from '../../parts/DraftLines';
import { FitMark } from '../../parts/Marks';
import { Sheet } from '../../parts/Sheet';
import { download, fileName } from '../../storage/download';
import { refused, useDraftForm } from '../../parts/useDraftForm';
import { useAct, useBench } from '../../storage/hooks';
import { HazardMark } from '../../ui/Marks';
import { Said } from '../../ui/Said';
import { Tabs } from '../../ui/Tabs';
import { Sub } from '../../ui/Words';
import { EditingContext } from './fields';
import { SECTIONS } from './sections';

const holds = (paths: readonly string[], problem: DraftProblem): boolean =>
  paths.some((p) => problem.path === p || problem.path.startsWith(`${p}.`));

function Editor({ bench, profile }: { bench: Bench; profile: Profile }) {
  const act = useAct();
  const go = useNavigate();
  // What the user saw when the form was opened or saved last: only what differs from it is changed.
  const [seen, setSeen] = useState(profile);
  const [at, setAt] = useState<string>('purpose');
  const [problems, setProblems] = useState<readonly DraftProblem[]>([]);
  const section = SECTIONS.find((s) => s.id === at) ?? SECTIONS[0];
  const draft = useDraftForm<ProfileDraft, Profile>({
    values: draftOf(profile),
    draft: `profile ${profile.id}`,
    // The reader of core says what is wrong, and where.
    resolver: (typed) => {
      const read = profileOf(typed);
      if ('profile' in read) {
        setProblems([]);
        return { values: read.profile, errors: {} };
      }
      setProblems(read.problems);
      const errors: FieldErrors<ProfileDraft> = {};
      for (const p of read.problems) set(errors, p.path, { type: 'custom', message: p.why });
      return refused(errors);
    },
    save: async (read) => {
      const saved = settled(seen, read);
      const kept = await act({
        label: `“${saved.name}” saved`,
        changes: [edited('profiles', seen, saved)],
      });
      if (!kept) return false;
      setSeen(saved);
      return { now: draftOf(saved) };
    },
  });
  const { form } = draft;
  const save = async (e?: React.BaseSyntheticEvent): Promise<boolean> => {
    if (await draft.submit(e)) return true;
    const read = profileOf(form.getValues());
    // The section of the first field that is wrong comes up.
    const first = 'problems' in read && SECTIONS.find((s) => read.problems.some((p) => holds(s.paths, p)));
    if (first) setAt(first.id);
    return false;
  };
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
            {/* The button of the form below: Enter in a field presses it. */}
            <Primary type="submit" form="profile">
              Save the profile
            </Primary>
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
        <form id="profile" onSubmit={(e) => void save(e)}>
          <Stack gap="3">
            <DraftLines of={draft} />
            {problems.length > 0 && (
              <Said kind="stop">
                {problems.length === 1 ? 'One field is wrong' : `${problems.length} fields are wrong`}.
                Nothing was saved; what you typed is still here.
              </Said>
            )}
            {open.length > 0 && (
              <Said kind="check">
                {open.length === 1 ? 'One value is' : `${open.length} values are`} a guess: the image does not
                tell {open.length === 1 ? 'it' : 'them'}. Each is marked in its section; change it, or say
                that it is right.
              </Said>
            )}
            <Tabs
              label="Sections of the profile"
              at={section.id}
              onAt={setAt}
              upright
              sides={SECTIONS.map((s) => {
                const wrong = problems.filter((p) => holds(s.paths, p)).length;
                const asked = open.filter((path) => holds(s.paths, { path, why: '' })).length;
                return {
                  id: s.id,
                  title: (
                    <>
                      {s.title}
                      {wrong > 0 && <HazardMark grade="stop" words={`${wrong} wrong`} />}
                      {asked > 0 && <HazardMark grade="check" words={`${asked} to say`} />}
                    </>
                  ),
                  body: <s.Body />,
                };
              })}
            />
          </Stack>
        </form>
      </Sheet>
      <LedgerAside label="On the shelf">
        <LedgerGroup title="On your machines, as last saved">
          {machinesOf(bench).map((m) => {
            const j = judge(machineView(bench, m), profile);
            return (
              <Box key={m.id} paddingBlock="0.5">
                <b>{m.name}</b> <FitMark verdict={j.verdict} />
                {j.verdict !== 'fits' && <Sub>{judgedShort(j)}</Sub>}
              </Box>
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
