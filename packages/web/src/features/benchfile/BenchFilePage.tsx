import { Box, HStack, Link, Stack, Text } from '@chakra-ui/react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { emptyBench, theBench, type Bench } from '@zb/core/model/bench';
import { replaced, type Change } from '@zb/core/model/changes';
import { BenchFileError, benchToText, previewImport, type FileProblem } from '@zb/core/model/file';
import { BenchLedger } from '../../parts/BenchLedger';
import { checked } from '../../parts/checked';
import { FileProblems } from '../../parts/FileProblems';
import { Sheet } from '../../parts/Sheet';
import { useInstall } from '../../parts/install';
import { mayBe } from '../../parts/textFile';
import { useDraftForm } from '../../parts/useDraftForm';
import { download, fileName } from '../../storage/download';
import { useAct, useBench, useStore } from '../../storage/hooks';
import { Primary, Quiet } from '../../ui/Button';
import { FileDrop } from '../../ui/FileDrop';
import { Input } from '../../ui/Input';
import { Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Acts } from '../../ui/Words';
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

const nameSchema = z.object({ name: z.string().trim().min(1).max(120) });

/** The name of the bench, saved by its button. */
function Rename({ bench }: { bench: Bench }) {
  const act = useAct();
  const { form, submit } = useDraftForm({
    values: { name: bench.name },
    resolver: checked(nameSchema),
    draft: 'bench name',
    ask: false,
    save: ({ name }) =>
      act({
        label: `Bench renamed “${name}”`,
        changes: [{ in: 'name', id: 'name', to: name, saw: bench.name }],
      }),
  });
  return (
    <HStack asChild gap="2" align="flex-end">
      <form onSubmit={(e) => void submit(e)}>
        <Input
          label="Name of the bench"
          maxLength={120}
          error={form.formState.errors.name?.message}
          {...form.register('name')}
        />
        <Quiet type="submit">Rename</Quiet>
      </form>
    </HStack>
  );
}

/** The whole bench as one file: save it, open one, see what would change before anything does. */
export default function BenchFilePage() {
  const bench = useBench();
  const act = useAct();
  const go = useNavigate();
  const store = useStore();
  const install = useInstall();
  const [incoming, setIncoming] = useState<Incoming | null>(null);
  const [reading, setReading] = useState<string | null>(null);
  const [problem, setProblem] = useState<{
    words: string;
    list: readonly FileProblem[];
    count: number;
  } | null>(null);
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
  // Whoever has gone on to another sheet meanwhile is not fetched back.
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => void (here.current = false);
  }, []);
  const toBench = (): void => {
    if (here.current) void go('/');
  };
  const replace = async (to: Bench, label: string): Promise<void> => {
    if (await act(replaced(label, bench, to))) toBench();
  };
  const putInPlace = async ({ bench: to, against, changes }: Incoming): Promise<void> => {
    // Another tab may have changed this bench while the question stood.
    const lead = against === bench ? changes : await differencesInTurns(bench, to);
    if (await store.replace(`Bench “${to.name}” opened`, to, lead)) toBench();
  };
  const preview = useMemo(
    () => incoming && previewImport(incoming.against, incoming.bench, incoming.changes),
    [incoming],
  );
  const figure = (words: string) => ({ words, figure: true });
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
          <Box marginBottom="3">
            <Said kind="stop" title={problem.words}>
              Nothing on your bench was changed.
              <FileProblems list={problem.list} most={12} count={problem.count} />
            </Said>
          </Box>
        )}
        {incoming ? (
          <Box maxWidth="prose">
            <Ruled
              label="What it would change"
              heads={[incoming.file, ...['Added', 'Replaced', 'Taken away', 'The same'].map(figure)]}
            >
              {preview?.map((p) => (
                <Line key={p.collection}>
                  <LineHead>{title(p.collection)}</LineHead>
                  <Num>{p.added}</Num>
                  <Num>{p.replaced}</Num>
                  <Num>{p.removed}</Num>
                  <Num>{p.same}</Num>
                </Line>
              ))}
            </Ruled>
          </Box>
        ) : (
          <Stack gap="4" maxWidth="prose">
            <Text>
              In this browser, on this machine, and in the files you save. The server keeps only the
              stand-ins’ own state.
            </Text>
            <Rename key={bench.name} bench={bench} />
            <FileDrop
              label="Bench file"
              act="Open a bench file"
              first={false}
              accept={['.json', 'application/json']}
              words={
                reading === null
                  ? 'or drop it here. All of it is checked first; you see what it would change before anything does.'
                  : `Reading ${reading}…`
              }
              onFiles={([file]) => file && void open(file)}
            />
            <Ruled label="What the file holds" heads={['In the file now', figure('Records')]}>
              {theBench.names.map((name) => (
                <Line key={name}>
                  <LineHead>{title(name)}</LineHead>
                  <Num>{theBench.records(bench, name).length}</Num>
                </Line>
              ))}
            </Ruled>
            <Acts>
              <Quiet onClick={() => void replace(emptyBench(), 'Empty bench begun')}>
                Start an empty bench
              </Quiet>
              <Quiet onClick={() => void replace(saltmarshHall(), 'Demo bench loaded')}>
                Load the demo bench
              </Quiet>
              {install && <Quiet onClick={install}>Install the application on this device</Quiet>}
            </Acts>
            <Text>
              The application is under the MIT licence; what it ships with is named in the{' '}
              <Link href="/third-party-notices.txt">third-party notices</Link>.
            </Text>
          </Stack>
        )}
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
