import { Box, HStack, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { keepBundle } from '@zb/core/acts/firstStart';
import { parseChecksumList, type ChecksumList } from '@zb/core/formats/checksumList';
import { bundleFrom, driverOf, type DriverFile } from '@zb/core/firststart/files';
import { bundleOf } from '@zb/core/firststart/forBox';
import { storesOf, type Bench, type Box as Build, type Profile } from '@zb/core/model/bench';
import { formatIec } from '@zb/core/units/bytes';
import { digestsElsewhere } from '../../workers/digestElsewhere';
import { useAct } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { Fold } from '../../ui/Fold';
import { Input } from '../../ui/Input';
import { SizeField } from '../../ui/SizeField';
import { FileDrop } from '../../ui/FileDrop';
import { HazardMark, VerdictMark } from '../../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import { Data, Head, Sub } from '../../ui/Words';

const LIST = /(sums?|\.sha256|checksums?)(\.txt)?$/i;
/** A list of sums is never larger. Bytes. */
const LIST_MOST = 8 * 1024 * 1024;

/** Files with their sums, on another thread. */
async function summed(files: readonly File[], tell: (name: string) => void): Promise<DriverFile[]> {
  const { start, end } = digestsElsewhere();
  try {
    const out: DriverFile[] = [];
    for (const file of files) {
      tell(file.name);
      const digest = await start(['sha256']);
      const reader = file.stream().getReader();
      for (;;) {
        const { done, value } = await reader.read();
        if (done) break;
        await digest.update(value);
      }
      const { sha256 = '' } = await digest.finish();
      out.push({ file: file.name, bytes: file.size, sha256 });
    }
    return out;
  } finally {
    end();
  }
}

/** Drivers fetched beforehand, in the order they go in: the files, the stick they lie on, and what a published list says of them. */
export function Bundle({ bench, box, profile }: { bench: Bench; box: Build; profile: Profile }) {
  const act = useAct();
  const [busy, setBusy] = useState('');
  const [problem, setProblem] = useState('');
  const [name, setName] = useState('');
  const [size, setSize] = useState<{ bytes: number | undefined; text: string }>({
    bytes: undefined,
    text: '',
  });
  const { lines, bytes, stick, fits } = bundleOf(bench, box);
  const record = box.first;
  const take = async (files: File[]): Promise<void> => {
    setProblem('');
    try {
      const listed = files.find((f) => LIST.test(f.name) && f.size <= LIST_MOST);
      const list: ChecksumList | undefined = listed && parseChecksumList(await listed.text());
      const found = await summed(
        files.filter((f) => f !== listed),
        setBusy,
      );
      await act(keepBundle(box, bundleFrom(found, profile.drivers, list), record?.stickId ?? null));
    } catch {
      setProblem('A file could not be read. Nothing was changed. Was it moved, or is its stick gone?');
    } finally {
      setBusy('');
    }
  };
  const others = record?.bundle.filter((f) => !profile.drivers.includes(f.driver)) ?? [];
  return (
    <Box as="section" aria-label="Drivers beforehand">
      <Head>Drivers, fetched beforehand</Head>
      <Stack gap="2">
        <Ruled label="Drivers in the order they go in" heads={['Driver', 'Files']}>
          {lines.map((l, i) => (
            <Line key={l.driver}>
              <LineHead>
                {i + 1}. {l.driver}
                {l.needed && <Sub>without it nothing else can be fetched</Sub>}
              </LineHead>
              <Cell>
                {l.files.length === 0 && <Sub>none yet</Sub>}
                {l.files.map((f) => (
                  <Box key={f.file} overflowWrap="anywhere">
                    <Data>{f.file}</Data> {formatIec(f.bytes)}{' '}
                    {f.matches === true && <VerdictMark kind="yes">as listed</VerdictMark>}
                    {f.matches === false && <HazardMark grade="stop" words="not as listed" />}
                  </Box>
                ))}
              </Cell>
            </Line>
          ))}
        </Ruled>
        {others.length > 0 && <Sub>Of no driver by its name: {others.map((f) => f.file).join(', ')}</Sub>}
        <FileDrop
          label="Files of drivers"
          act="Open what was fetched"
          words={
            busy === ''
              ? 'with their list of sums, if there is one; nothing is sent anywhere'
              : `reading ${busy}`
          }
          several
          first={false}
          onFiles={(files) => void take(files)}
        />
        <Fold title="Write one down that is still to be fetched">
          <HStack gap="3" align="flex-end" flexWrap="wrap">
            <Input label="Its file" value={name} onChange={(e) => setName(e.target.value)} />
            <SizeField
              label="Its size"
              text={size.text}
              onSize={(read, text) =>
                setSize({ bytes: read !== undefined && 'bytes' in read ? read.bytes : undefined, text })
              }
            />
            <Quiet
              disabled={name.trim() === '' || size.bytes === undefined}
              onClick={() => {
                const file = name.trim();
                const typed = {
                  driver: driverOf(file, profile.drivers) ?? '',
                  file,
                  bytes: size.bytes ?? 0,
                  sha256: null,
                  matches: null,
                };
                const before = (record?.bundle ?? []).filter((f) => f.file !== file);
                void act(keepBundle(box, [...before, typed], record?.stickId ?? null));
                setName('');
                setSize({ bytes: undefined, text: '' });
              }}
            >
              Write it down
            </Quiet>
          </HStack>
        </Fold>
        {problem !== '' && <Said kind="stop">{problem}</Said>}
        <Select
          label="On which stick they go"
          none="none yet"
          options={storesOf(bench)
            .filter((s) => s.removable)
            .map((s) => ({ value: s.id, words: `${s.name}, ${formatIec(s.bytes)}` }))}
          value={stick?.id ?? ''}
          onChange={(e) => void act(keepBundle(box, record?.bundle ?? [], e.target.value || null))}
        />
        {bytes > 0 && (
          <Sub>
            {formatIec(bytes)} in all{fits ? '' : ': more than the stick holds'}
          </Sub>
        )}
      </Stack>
    </Box>
  );
}
