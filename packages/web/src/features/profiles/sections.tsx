import { Box, Stack } from '@chakra-ui/react';
import { useFieldArray } from 'react-hook-form';
import { blankRelease, draftOf, blankProfile } from '@zb/core/system/draft';
import { usualWords } from '@zb/core/words/fit/school';
import { channelKinds, firstQuestions } from '@zb/core/model/firstStart';
import {
  installerEnds,
  installerQuestions,
  installers,
  listColumns,
  loaderPlaces,
  sizeManners,
} from '@zb/core/model/installer';
import { architectures, cpuLevels } from '@zb/core/model/architectures';
import {
  channels,
  layoutHabits,
  loginPolicies,
  purposes,
  secureBootWays,
  swapHabits,
  writeModes,
} from '@zb/core/model/profile';
import { Quiet, Word } from '../../ui/Button';
import { FormGrid } from '../../ui/FormGrid';
import { Head, Soft } from '../../ui/Words';
import { Paragraph, Pick, Several, Text, Tick, useEditing } from './fields';

const freshId = (prefix: string, taken: readonly { id: string }[]): string => {
  let n = taken.length + 1;
  while (taken.some((t) => t.id === `${prefix}${n}`)) n += 1;
  return `${prefix}${n}`;
};

function Purpose() {
  return (
    <FormGrid>
      <Text path="name" label="Name" />
      <Pick path="purpose" label="Purpose" options={purposes} />
      <Box gridColumn="1 / -1">
        <Paragraph path="about" label="What it is, in a sentence" />
      </Box>
    </FormGrid>
  );
}

function Needs() {
  return (
    <FormGrid>
      <Head gridColumn="1 / -1">It does not run without</Head>
      <Text path="needs.memoryBytes" label="Memory" hint="with its unit, such as 8 GiB" mono />
      <Text path="needs.bootBytes" label="Boot drive" hint="such as 16 GB" mono />
      <Text path="needs.cores" label="Cores" mono />
      <Text path="needs.dataDrives" label="Data drives beside it" mono />
      <Text path="needs.wiredPorts" label="Wired network ports" mono />
      <Several path="needs.firmware" label="Starts under" options={['bios', 'uefi', 'board']} />
      <Tick path="needs.graphics" label="Graphics with a driver" />
      <Tick path="needs.virtualisation" label="Virtualisation in hardware" />
      <Head gridColumn="1 / -1">It runs better with (may stay empty)</Head>
      <Text path="prefers.memoryBytes" label="Memory" mono />
      <Text path="prefers.cores" label="Cores" mono />
      <Text path="prefers.wiredMbps" label="Wired speed, Mb/s" mono />
      <Tick path="prefers.remoteLine" label="Remote-control line on HDMI" />
      <Tick path="prefers.aes" label="Ciphers in hardware" />
    </FormGrid>
  );
}

function Releases() {
  const { form } = useEditing();
  const { fields, append, remove } = useFieldArray({
    control: form.control,
    name: 'releases',
    keyName: 'key',
  });
  const purpose = form.watch('purpose');
  return (
    <Stack gap="3" align="flex-start">
      <Soft>{usualWords(purpose)} It is taken first; the others are there for machines it does not fit.</Soft>
      {fields.map((f, i) => (
        <FormGrid
          key={f.key}
          role="group"
          aria-label={`Release ${f.version}`}
          borderTop="ink"
          paddingTop="1.5"
          width="full"
        >
          <Head as="h3" gridColumn="1 / -1">
            Release {f.version}
          </Head>
          <Text path={`releases.${i}.version`} label="Version" />
          <Pick path={`releases.${i}.channel`} label="Channel" options={channels} />
          <Text path={`releases.${i}.released`} label="Released" hint="a day, such as 2026-04-20" mono />
          <Text
            path={`releases.${i}.supportEnd`}
            label="Support ends"
            hint="a day; empty where not known"
            mono
          />
          <Pick
            path={`releases.${i}.cpuLevel`}
            label="Lowest x86-64 level"
            options={cpuLevels}
            none="not x86-64"
          />
          <Text path={`releases.${i}.oldestYear`} label="Oldest hardware, year" mono />
          <Text path={`releases.${i}.newestYear`} label="Newest hardware it knows, year" mono />
          <Several path={`releases.${i}.archs`} label="Built for" options={architectures} />
          {fields.length > 1 && <Word onClick={() => remove(i)}>Remove release {f.version}</Word>}
        </FormGrid>
      ))}
      <div>
        <Quiet
          onClick={() => {
            const [draft] = draftOf({
              ...blankProfile('x'),
              releases: [blankRelease(freshId('r', fields))],
            }).releases;
            if (draft) append(draft);
          }}
        >
          Add a release
        </Quiet>
      </div>
    </Stack>
  );
}

function Variants() {
  const { form } = useEditing();
  const { fields, append, remove } = useFieldArray({
    control: form.control,
    name: 'variants',
    keyName: 'key',
  });
  return (
    <Stack gap="3" align="flex-start">
      <Soft>
        Builds of every release that differ in the graphics drivers they carry. Check before the download, not
        after.
      </Soft>
      {fields.map((f, i) => (
        <FormGrid
          key={f.key}
          role="group"
          aria-label={`Variant ${f.name}`}
          borderTop="ink"
          paddingTop="1.5"
          width="full"
        >
          <Head as="h3" gridColumn="1 / -1">
            Variant {f.name}
          </Head>
          <Text path={`variants.${i}.name`} label="Name" />
          <Several
            path={`variants.${i}.drivers`}
            label="Drivers it carries"
            options={['in-kernel', 'out-of-tree']}
          />
          {fields.length > 1 && <Word onClick={() => remove(i)}>Remove variant {f.name}</Word>}
        </FormGrid>
      ))}
      <div>
        <Quiet
          onClick={() =>
            append({ id: freshId('v', fields), name: 'closed driver', drivers: ['in-kernel', 'out-of-tree'] })
          }
        >
          Add a variant
        </Quiet>
      </div>
    </Stack>
  );
}

function Install() {
  return (
    <FormGrid>
      <Pick path="secureBoot" label="Secure Boot" options={secureBootWays} />
      <Pick path="installer" label="Its installer" options={installers} />
      <Tick path="growsAtFirstStart" label="Grows to the whole drive at its first start" />
      <Pick path="writeMode" label="Written as" options={writeModes} />
      <Text path="stickBytes" label="Stick it fits on" hint="such as 8 GB" mono />
      <Tick path="networkAtInstall" label="Needs the network while installing" />
      <Text path="installFrom" label="Install, minutes: from" mono />
      <Text path="installTo" label="to" mono />
      <Pick path="layout" label="Layout" options={layoutHabits} />
      <Pick path="swap" label="Swap" options={swapHabits} />
      <Head gridColumn="1 / -1">How its installer behaves</Head>
      <Several
        path="manner.lists"
        label="Its list of drives shows, besides the place"
        options={listColumns}
      />
      <Tick path="manner.listsItself" label="Its own stick stands in the list too" />
      <Pick
        path="manner.loader"
        label="Its loader goes to"
        options={loaderPlaces}
        none="nobody has seen it"
      />
      <Pick path="manner.entry" label="Boot entry under UEFI" options={['made', 'fallback path only']} />
      <Pick path="manner.ends" label="How it ends" options={installerEnds} />
      <Text path="manner.confirms" label="Asks before it erases, times" mono />
      <Pick path="manner.typed" label="Sizes are typed in" options={sizeManners} />
      <Pick path="manner.shown" label="and shown back in" options={sizeManners} />
      <Pick path="manner.screen" label="Its screens" options={['text', 'graphical']} />
      <Tick path="manner.basicGraphics" label="Has an entry with basic graphics" />
      <Tick path="manner.asksArchitecture" label="Asks for the target’s processor again" />
      <Several
        path="manner.asks"
        label="It asks for, in its order (first start then does not ask again)"
        options={installerQuestions}
      />
      <Tick path="manner.beside" label="Can install beside another system" />
    </FormGrid>
  );
}

function FirstStart() {
  return (
    <FormGrid>
      <Several path="first.asks" label="It asks for" options={firstQuestions} />
      <Tick path="first.wantsNetwork" label="Does not go on without a network" />
      <Tick path="first.desktop" label="Has a desktop, whose wallet asks once" />
      <Tick path="first.gamepads" label="Is steered by gamepads" />
      <Text path="first.minutesFrom" label="First start, minutes: from" mono />
      <Text path="first.minutesTo" label="to" mono />
      <Text path="first.blackFrom" label="Its screen is black, minutes: from" mono />
      <Text path="first.blackTo" label="to" mono />
      <Text path="first.roundsFrom" label="Rounds of updates: from" mono />
      <Text path="first.roundsTo" label="to" mono />
      <Pick path="first.channel" label="Updates come from" options={channelKinds} />
      <Pick path="first.switchTo" label="and are switched to" options={channelKinds} none="not switched" />
      <Box gridColumn="1 / -1">
        <Paragraph path="first.switchPlaces" label="Places where that is switched on" hint="one a line" />
      </Box>
      <Box gridColumn="1 / -1">
        <Paragraph path="first.wayRound" label="The way round a network it insists on" />
      </Box>
    </FormGrid>
  );
}

function Running() {
  return (
    <FormGrid>
      <Pick path="admin.scheme" label="Administration page" options={['http', 'https']} none="none" />
      <Text path="admin.port" label="Port" mono />
      <Text path="admin.path" label="Path" mono />
      <Pick path="login" label="First login" options={loginPolicies} />
      <Box gridColumn="1 / -1">
        <Paragraph
          path="drivers"
          label="Drivers to fetch beforehand"
          hint="one a line, in the order they are installed"
        />
      </Box>
    </FormGrid>
  );
}

/** The sections of the editor, and which paths of the draft each holds. */
export const SECTIONS = [
  { id: 'purpose', title: 'Purpose', paths: ['name', 'purpose', 'about', 'id'], Body: Purpose },
  { id: 'needs', title: 'Needs', paths: ['needs', 'prefers'], Body: Needs },
  { id: 'releases', title: 'Releases', paths: ['releases'], Body: Releases },
  { id: 'variants', title: 'Variants', paths: ['variants'], Body: Variants },
  {
    id: 'install',
    title: 'Start and install',
    paths: [
      'secureBoot',
      'installer',
      'manner',
      'writeMode',
      'stickBytes',
      'installFrom',
      'installTo',
      'installMinutes',
      'growsAtFirstStart',
      'networkAtInstall',
      'layout',
      'swap',
    ],
    Body: Install,
  },
  { id: 'first', title: 'First start', paths: ['first'], Body: FirstStart },
  { id: 'running', title: 'Running it', paths: ['admin', 'login', 'drivers'], Body: Running },
] as const;
