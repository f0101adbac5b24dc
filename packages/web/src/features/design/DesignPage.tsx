import { Box, Grid, Heading, HStack, Kbd, Skeleton, Stack, Text, Theme } from '@chakra-ui/react';
import { Undo2 } from 'lucide-react';
import { useState } from 'react';
import { AddressStreet } from '../../drawing/AddressStreet';
import { DriveColumn } from '../../drawing/DriveColumn';
import { Ladder } from '../../drawing/Ladder';
import { Patterns } from '../../drawing/patterns';
import { Reel, type ReelDrive } from '../../drawing/Reel';
import { ScheduleFrame } from '../../drawing/ScheduleFrame';
import { Schematic } from '../../drawing/Schematic';
import { Primary, Quiet, Word } from '../../ui/Button';
import { Choices } from '../../ui/Choices';
import { Cards } from '../../ui/Cards';
import { Checkbox, Switch } from '../../ui/Checkbox';
import { DataTable } from '../../ui/DataTable';
import { Dialog } from '../../ui/Dialog';
import Drawer from '../../ui/Drawer';
import { Facts, Figure } from '../../ui/Facts';
import { FileDrop } from '../../ui/FileDrop';
import { Fold } from '../../ui/Fold';
import { IconButton } from '../../ui/IconButton';
import { Input, Lines } from '../../ui/Input';
import { HazardMark, Stamp, VerdictMark } from '../../ui/Marks';
import { Nothing } from '../../ui/Nothing';
import { NumberField, SliderField } from '../../ui/NumberField';
import { Said } from '../../ui/Said';
import { Segments } from '../../ui/Segments';
import { Select } from '../../ui/Select';
import { SizeField } from '../../ui/SizeField';
import { Tabs } from '../../ui/Tabs';
import { sayDone, Toaster } from '../../ui/toaster';
import { Why } from '../../ui/Why';
import { Working } from '../../ui/Working';

const TEXT = ['headline', 'title', 'strong', 'body', 'small', 'label', 'data'] as const;
const VIEWS = ['by place', 'by size', 'all'] as const;
const REEL: ReelDrive[] = [
  { name: 'old', tall: 1, pattern: 'erased', outline: 'lost', word: 'erased' },
  { name: 'A', tall: 0.5, pattern: 'part', outline: 'starts', word: 'starts' },
  { name: 'B', tall: 0.5, pattern: 'new', outline: 'taken', word: 'taken' },
];
const ROWS = [
  { id: 'a', name: 'Boot drive', size: 120, fate: 'may be lost' },
  { id: 'b', name: 'Scans', size: 224, fate: 'keep' },
  { id: 'c', name: 'Stick …7C20', size: 15, fate: 'not decided' },
];

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box as="section" borderTop="ink" paddingTop="2" minWidth="0">
      <Text textStyle="label" marginBottom="2">
        {title}
      </Text>
      <Stack gap="3" align="flex-start">
        {children}
      </Stack>
    </Box>
  );
}

function Fields() {
  const [value, setValue] = useState('4');
  const [watts, setWatts] = useState(45);
  const [view, setView] = useState<(typeof VIEWS)[number]>('by place');
  const [school, setSchool] = useState<string | null>('own');
  return (
    <>
      <Part title="Typed">
        <Input label="Name" help="as it stands on its label" defaultValue="Old Oak" />
        <Input label="Serial" data error="Another drive has this serial." defaultValue="SS24-77A0-1D52" />
        <SizeField label="Size" text="58.6 GiB" rest onSize={() => undefined} />
        <NumberField label="Cores" value={value} onValue={setValue} min={1} max={64} />
        <Lines label="Notes" defaultValue="One screw stays in the cover." />
      </Part>
      <Part title="Chosen">
        <Select label="Kind" options={['tower', 'handheld', 'board']} />
        <SliderField
          label="Power limit"
          value={watts}
          words={`${watts} W`}
          onValue={setWatts}
          min={10}
          max={60}
          step={5}
        />
        <Segments label="Order" options={VIEWS} value={view} onTake={setView} />
        <Choices
          label="How it is started"
          value={view}
          choices={VIEWS.map((v) => ({ value: v, words: v, means: 'what it means' }))}
          onTake={setView}
        />
        <Checkbox defaultChecked>It lies on the bench</Checkbox>
        <Checkbox disabled>Nobody can tick this</Checkbox>
        <Switch defaultChecked>Single letters are shortcuts</Switch>
        <Cards
          label="Where does the system go?"
          value={school}
          onTake={setSchool}
          cards={[
            {
              value: 'own',
              title: 'Its own drive',
              words: 'Nothing is shrunk, nothing is shared.',
              here: 'There is a free place.',
            },
            {
              value: 'beside',
              title: 'Beside the other',
              words: 'One drive less; both start from one menu.',
            },
          ]}
        />
      </Part>
    </>
  );
}

function Shown() {
  const [open, setOpen] = useState<'dialog' | 'drawer'>();
  return (
    <>
      <Part title="Acts">
        <HStack gap="3" flexWrap="wrap">
          <Primary>Sign off</Primary>
          <Quiet>Print</Quiet>
          <Word>Look again</Word>
          <Primary disabled>Write and compare</Primary>
          <IconButton word="Undo" icon={<Undo2 />} />
        </HStack>
        <HStack gap="3" flexWrap="wrap">
          <Quiet onClick={() => setOpen('dialog')}>A sheet over it</Quiet>
          <Quiet onClick={() => setOpen('drawer')}>From the side</Quiet>
          <Quiet onClick={() => sayDone('Drive renamed', () => sayDone('Taken back'))}>Do something</Quiet>
          <Text>
            Undo <Kbd>Ctrl</Kbd> <Kbd>Z</Kbd>
          </Text>
        </HStack>
        <Dialog open={open === 'dialog'} onClose={() => setOpen(undefined)} title="Serials">
          <Text>The last four are read off the stick.</Text>
        </Dialog>
        <Drawer open={open === 'drawer'} onClose={() => setOpen(undefined)} title="Boxes">
          <Text>Games corner</Text>
        </Drawer>
        <Why of="why it fits">Needs 8.00 GiB, has 7.74 GiB: firmware keeps some.</Why>
        <Fold title="All rules">
          <Text>Thirteen of them hold.</Text>
        </Fold>
      </Part>
      <Part title="Marks">
        <HStack gap="4" flexWrap="wrap">
          <VerdictMark kind="yes">fits</VerdictMark>
          <VerdictMark kind="change">after a change</VerdictMark>
          <VerdictMark kind="ask">cannot say yet</VerdictMark>
          <VerdictMark kind="no">does not fit</VerdictMark>
          <VerdictMark kind="stop">refused</VerdictMark>
        </HStack>
        <HStack gap="4">
          <HazardMark grade="stop" />
          <HazardMark grade="check" />
          <HazardMark grade="note" />
          <Stamp>PROVEN</Stamp>
          <Stamp kind="stop">REFUSED</Stamp>
        </HStack>
        <Said>Saved; undo takes it back.</Said>
        <Said kind="check">The boot order is not known.</Said>
        <Said kind="stop" title="It is cut short.">
          Nothing was written. Fetch it again.
        </Said>
        <Said kind="proven">Every byte was compared.</Said>
      </Part>
      <Part title="Work, waiting, nothing">
        <Box width="full">
          <Working
            label="Reading back"
            done={6.4e9}
            whole={1.6e10}
            rate={4.1e7}
            left={234}
            onCancel={() => undefined}
          />
        </Box>
        <Skeleton width="full">
          <Text>A line that is still being fetched</Text>
        </Skeleton>
        <Nothing
          title="No image yet"
          words="Open one: its tables are read at once, and nothing is sent anywhere."
        >
          <Quiet>Open an image</Quiet>
        </Nothing>
        <FileDrop label="Image file" act="Open an image" words="or drop it here" onFiles={() => undefined} />
      </Part>
      <Part title="Facts and tables">
        <HStack gap="8">
          <Figure label="Your hands" value="37–73 min" />
          <Figure label="In Gull" value="477 GiB" help="one drive" />
        </HStack>
        <Facts
          lines={[
            { what: 'Serial', is: 'SS24-77A0-1D52' },
            { what: 'Sits in', is: 'Tern' },
          ]}
        />
        <Tabs
          label="Sides"
          sides={[
            { id: 'before', title: 'Before', body: <Text>ext4, 224 GiB</Text> },
            { id: 'after', title: 'After', body: <Text>empty</Text> },
          ]}
        />
        <Box width="full">
          <DataTable
            label="Drives"
            rows={ROWS}
            columns={[
              { id: 'name', head: 'Drive', value: (r) => r.name },
              { id: 'size', head: 'GB', value: (r) => r.size, figure: true },
              { id: 'fate', head: 'May it be lost', value: (r) => r.fate },
            ]}
            empty={<Nothing title="No drive yet" />}
            onSelect={() => undefined}
          />
        </Box>
      </Part>
    </>
  );
}

const PATTERNS = ['part', 'code', 'table', 'gap', 'new', 'erased', 'beyond'] as const;

function Drawn() {
  return (
    <Part title="Drawings">
      <HStack gap="2" flexWrap="wrap">
        {PATTERNS.map((p) => (
          <DriveColumn key={p} title={p} strata={[{ share: 1, pattern: p, word: p }]} />
        ))}
      </HStack>
      <Box width="full">
        <Ladder
          label="A ladder"
          rungs={[
            {
              key: 'a',
              title: 'Stick …7C20',
              mark: 'stop',
              state: 'refused',
              lines: ['Secure Boot is on'],
              reached: false,
              dim: false,
            },
            {
              key: 'b',
              title: 'Internal drive',
              mark: 'yes',
              state: 'started',
              lines: [],
              reached: true,
              dim: false,
            },
          ]}
        />
      </Box>
      <Box width="full">
        <Schematic
          name="Old Oak"
          groups={[
            {
              title: 'SATA',
              places: [
                { label: 'port 1', holds: '112 GiB Oak boot' },
                { label: 'port 2', holds: null },
              ],
            },
            { title: 'M.2', places: [{ label: 'M 2280 nvme x4', holds: null, unsure: true }] },
          ]}
        />
      </Box>
      <Box width="full">
        <Reel
          label="A reel"
          frames={[
            { title: 'The stick is in', because: 'as planned', drives: REEL },
            { title: 'Old drive taken', because: 'it answers first', drives: REEL },
            { title: 'Old drive erased', because: '', drives: REEL, grade: 'lost' },
          ]}
        />
      </Box>
      <Box width="full">
        <ScheduleFrame
          label="An afternoon"
          rows={[
            {
              title: 'Games corner',
              stints: [
                { what: 'write', from: 0, seconds: 300, hands: true },
                { what: 'read back', from: 300, seconds: 900, hands: false },
              ],
            },
            { title: 'Film night', stints: [{ what: 'survey', from: 300, seconds: 600, hands: true }] },
          ]}
        />
      </Box>
      <Box width="full">
        <AddressStreet
          label="Addresses of 192.0.2.0/24"
          plots={[
            { key: 'a', from: '.1', count: 1, pattern: 'code', title: 'Gate', words: 'the way out' },
            { key: 'b', from: '.10', count: 40, pattern: 'gap', title: '', words: 'for boxes, 40 left' },
            {
              key: 'c',
              from: '.50',
              count: 1,
              pattern: 'new',
              title: 'Archive',
              words: 'reserved',
              here: true,
            },
            {
              key: 'd',
              from: '.51',
              count: 1,
              pattern: 'erased',
              title: 'Printer',
              words: 'nobody wrote it down',
              wrong: true,
            },
            { key: 'e', from: '.100', count: 100, pattern: 'table', title: '', words: 'handed out, 100' },
          ]}
        />
      </Box>
    </Part>
  );
}

function Side({ appearance }: { appearance: 'light' | 'dark' }) {
  return (
    <Theme appearance={appearance} hasBackground={false}>
      <Box layerStyle="sheet" padding="5" height="full">
        <Heading as="h2" textStyle="title" marginBottom="3">
          {appearance === 'light' ? 'On paper' : 'In the dark'}
        </Heading>
        <Stack gap="6">
          <Part title="Text">
            {TEXT.map((t) => (
              <Text key={t} textStyle={t}>
                {t}: 0/O, 1/l/I, 8/B · 15 931 539 456 bytes
              </Text>
            ))}
          </Part>
          <Fields />
          <Shown />
        </Stack>
      </Box>
    </Theme>
  );
}

/** Every component, state, mark and text style on one sheet, in light and dark: what a screen is made of. */
export default function DesignPage() {
  return (
    <Box as="main" bg="bg.ground" padding="5" minHeight="full" overflow="auto">
      <Heading as="h1" textStyle="headline" marginBottom="4">
        What the sheets are made of
      </Heading>
      <Grid templateColumns={{ base: 'minmax(0, 1fr)', lg: 'repeat(2, minmax(0, 1fr))' }} gap="5">
        <Side appearance="light" />
        <Side appearance="dark" />
      </Grid>
      <Patterns />
      <Box layerStyle="sheet" padding="5" marginTop="5">
        <Drawn />
      </Box>
      <Toaster />
    </Box>
  );
}
