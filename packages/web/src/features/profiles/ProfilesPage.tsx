import { urlPart } from '@zb/core/units/url';
import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
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
import { BenchFileError, type FileProblem } from '@zb/core/model/problems';
import { BenchLedger } from '../../parts/BenchLedger';
import { Primary, Quiet } from '../../ui/Button';
import { FileProblems } from '../../parts/FileProblems';
import { Dialog } from '../../ui/Dialog';
import { NoProfiles } from '../../parts/NoProfiles';
import { Sheet } from '../../parts/Sheet';
import { readTextFile } from '../../parts/textFile';
import { download, fileName } from '../../storage/download';
import { stamp, useAct, useBench } from '../../storage/hooks';
import { PickFile } from '../../ui/PickFile';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { To } from '../../ui/To';
import { Acts, Soft, Sub } from '../../ui/Words';

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
    void go(`/profiles/${urlPart(fresh.id)}`);
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
            <PickFile
              label="Open a file of systems"
              accept={['.json', 'application/json']}
              onFile={(file) => void open(file)}
            />
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
          <Box marginBottom="3">
            <Said kind="stop" title={problem.words}>
              Nothing was changed; the systems on the bench are as they were.
              <FileProblems list={problem.problems} most={8} />
            </Said>
          </Box>
        )}
        {bench.profiles.length === 0 ? (
          <NoProfiles />
        ) : (
          <Ruled
            stacked
            label="Systems"
            heads={['System', 'For', 'Release taken first', 'Installer', 'In boxes']}
          >
            {bench.profiles.map((p) => {
              const { release } = optionOf(p);
              const boxes = bench.boxes.filter((b) => b.profileId === p.id).map((b) => b.name);
              return (
                <Line key={p.id}>
                  <LineHead whole>
                    <To to={`/profiles/${urlPart(p.id)}`}>{p.name}</To>
                    <Sub>{p.about}</Sub>
                  </LineHead>
                  <Cell>{p.purpose}</Cell>
                  <Cell>
                    {release.version}, {release.channel}
                    <Sub>{supportWords(release, supportDays(release, now))}</Sub>
                  </Cell>
                  <Cell>{p.installer}</Cell>
                  <Cell>{boxes.join(', ')}</Cell>
                </Line>
              );
            })}
          </Ruled>
        )}
      </Sheet>
      <BenchLedger bench={bench} />
      {arriving && (
        <Dialog open onClose={() => setArriving(null)} title="Systems in this file" size="md">
          <Stack gap="3">
            <Ruled label="Systems in this file" heads={['System', 'For', 'Taking it']}>
              {arriving.map((a) => (
                <Line key={a.profile.id}>
                  <LineHead>{a.profile.name}</LineHead>
                  <Cell>{a.profile.purpose}</Cell>
                  <Cell>
                    {a.does}
                    {a.does === 'replaces' && a.boxes.length > 0 && <Sub>chosen in {a.boxes.join(', ')}</Sub>}
                  </Cell>
                </Line>
              ))}
            </Ruled>
            <Acts>
              <Primary
                onClick={() => {
                  void act(takeProfiles(arriving.map((a) => a.profile)));
                  setArriving(null);
                }}
              >
                Take {arriving.length === 1 ? 'it' : `all ${arriving.length}`}
              </Primary>
              <Quiet onClick={() => setArriving(null)}>Leave</Quiet>
              <Soft>Undo takes it back.</Soft>
            </Acts>
          </Stack>
        </Dialog>
      )}
    </>
  );
}
