import { gatherList } from '../gather/list';
import { verdictWords } from '../words/fit/finding';
import { judge } from '../system/judge';
import { machineView } from '../system/view';
import { emptyBench, findMachine, type Bench, type Box, type LogEntry } from '../model/bench';
import { stops, stopTitle, type Stop } from '../model/stops';
import { moment } from './make';
import { demoProfiles } from './profiles';
import { archiveFirst, archiveReach, demoHosts, demoNetworks } from './network';
import { demoParts } from './parts';
import { hallGate } from './gate';
import { archiveRun } from './run';
import { gamesRuns, gamesTune } from './tune';
import { bookingGuests } from './guests';
import { archivePool, archiveSharing, archiveThings } from './storage';
import { demoMachines } from './shelf';
import { demoStores } from './stores';
import { demoWishes } from './wishes';
import { noBoxLayout } from '../model/layout';
import { emptyStopRecords } from '../model/stopRecords';
import { systemTitle } from '../system/title';

interface Plan {
  id: string;
  name: string;
  purpose: Box['purpose'];
  machineId: string | null;
  profileId: string | null;
  /** How many stops are signed off, in order. */
  signed: number;
  day: number;
  startBy?: Box['startBy'];
  wishId: string;
  /** The drive that takes its system. */
  driveId?: string;
}

const PLANS: Plan[] = [
  {
    id: 'games-corner',
    wishId: 'w-games',
    name: 'Games corner',
    purpose: 'games',
    machineId: 'gull',
    profileId: 'lantern-arcade',
    signed: 3,
    day: 1,
  },
  {
    id: 'film-night',
    wishId: 'w-film',
    name: 'Film night',
    purpose: 'film',
    machineId: 'tern',
    profileId: 'curtain-player',
    driveId: 'loose-480',
    signed: 3,
    day: 2,
  },
  {
    id: 'guest-gate',
    wishId: 'w-gate',
    name: 'Guest gate',
    purpose: 'firewall',
    machineId: 'pebble',
    profileId: null,
    signed: 1,
    day: 6,
  },
  {
    id: 'archive',
    wishId: 'w-archive',
    name: 'Archive',
    purpose: 'file store',
    machineId: 'old-oak',
    profileId: 'coldstore',
    driveId: 'oak-boot',
    signed: 9,
    day: 3,
  },
  {
    id: 'booking-host',
    wishId: 'w-host',
    name: 'Booking host',
    purpose: 'virtual machines',
    machineId: 'clerk',
    profileId: null,
    signed: 0,
    day: 9,
  },
  {
    id: 'tea-room-music',
    wishId: 'w-music',
    name: 'Tea-room music',
    purpose: 'music',
    machineId: null,
    profileId: null,
    signed: 0,
    day: 10,
  },
];

const WORDS: Partial<Record<Stop, string>> = {
  gather: 'Dock, charger, keyboard and the blue stick are on the bench',
  install: 'System written to the boot drive; mirror left empty',
  'first-start': 'First start took eleven minutes; updated until nothing was offered',
  network: 'Address reserved on the router, remote shell turned on',
};

function build(base: Bench, plan: Plan): { box: Box; log: LogEntry[] } {
  const machine = findMachine(base, plan.machineId);
  const profile = base.profiles.find((p) => p.id === plan.profileId);
  const log: LogEntry[] = [];
  const add = (
    stop: Stop,
    minute: number,
    entry: { kind: 'note' | 'survey' | 'decision' | 'signoff'; text: string },
  ): void => {
    log.push({
      ...entry,
      id: `${plan.id}-${log.length + 1}`,
      at: moment(plan.day, minute),
      boxId: plan.id,
      stop,
    });
  };
  const decisions: Box['decisions'] = [];
  const judged = machine && profile && judge(machineView(base, machine), profile);
  stops.slice(0, plan.signed).forEach((stop, i) => {
    const minute = 12 * i;
    if (stop === 'survey' && machine)
      add(stop, minute, {
        kind: 'survey',
        text: `Survey of ${machine.name} read: ${Object.keys(machine.facts).length} facts`,
      });
    if (stop === 'choose' && judged) {
      const because = verdictWords(judged);
      decisions.push({
        id: `${plan.id}-system`,
        stop,
        what: 'System',
        value: systemTitle(judged),
        because,
        at: moment(plan.day, minute),
      });
      add(stop, minute, { kind: 'decision', text: `${systemTitle(judged)} chosen; ${because}` });
    }
    const said = WORDS[stop];
    if (said && (stop === 'gather' || plan.id === 'archive'))
      add(stop, minute + 3, { kind: 'note', text: said });
    add(stop, minute + 6, { kind: 'signoff', text: `${stopTitle[stop]} signed off` });
  });
  const box: Box = {
    ...emptyStopRecords(),
    id: plan.id,
    name: plan.name,
    purpose: plan.purpose,
    machineId: plan.machineId,
    profileId: plan.profileId,
    wishId: plan.wishId,
    releaseId: judged?.release.id ?? null,
    variantId: judged?.variant.id ?? null,
    imageId: null,
    targetSerial: null,
    written: null,
    startBy: plan.startBy ?? 'menu',
    ...(plan.driveId === undefined ? {} : { layout: { ...noBoxLayout(), driveId: plan.driveId } }),
    reach: plan.id === 'archive' ? archiveReach() : null,
    first: plan.id === 'archive' ? archiveFirst() : null,
    ...(plan.id === 'archive'
      ? { pool: archivePool(), things: archiveThings(), sharing: archiveSharing(), parts: ['sata-2'] }
      : {}),
    ...(plan.id === 'guest-gate' ? { gate: hallGate() } : {}),
    ...(plan.id === 'booking-host' ? { guests: bookingGuests() } : {}),
    ...(plan.id === 'games-corner' ? { tune: gamesTune() } : {}),
    run: plan.id === 'archive' ? archiveRun() : null,
    decisions,
    signoffs: stops.slice(0, plan.signed).map((stop, i) => ({ stop, at: moment(plan.day, 12 * i + 6) })),
    createdAt: moment(plan.day),
  };
  return { box, log };
}

/** The demo bench: a hall on a tidal island that refits donated machines. All of it is made up. */
export function saltmarshHall(): Bench {
  const base: Bench = {
    ...emptyBench('Saltmarsh Hall'),
    items: [...demoMachines, ...demoStores, ...demoParts],
    profiles: demoProfiles,
    wishes: demoWishes,
    networks: demoNetworks,
  };
  const built = PLANS.map((plan) => build(base, plan));
  const general: LogEntry[] = [
    // Earlier runs with the blue stick, so that its next write is foretold from its own record.
    {
      kind: 'write',
      id: 'blue-run-1',
      at: moment(-9),
      boxId: null,
      stop: 'write',
      text: 'An older image on stick …7C20: written and proven after 3 min, foretold 2–6 min.',
      serial: 'ST16-40A7-7C20',
      result: 'proven',
      bytes: 2_147_483_648,
      predicted: { low: 95, high: 358 },
      seconds: 182,
      writeSeconds: 119,
    },
    {
      kind: 'write',
      id: 'blue-run-2',
      at: moment(-4),
      boxId: null,
      stop: 'write',
      text: 'An older image on stick …7C20: written and proven after 2 min, foretold 1–2 min.',
      serial: 'ST16-40A7-7C20',
      result: 'proven',
      bytes: 1_073_741_824,
      predicted: { low: 83, high: 101 },
      seconds: 92,
      writeSeconds: 61,
    },
    {
      kind: 'setting',
      id: 'oak-fan',
      at: moment(3, 70),
      boxId: 'archive',
      stop: 'firmware',
      text: 'Case fan',
      from: 'full speed',
      to: 'quiet',
    },
    {
      kind: 'note',
      id: 'mill-note',
      at: moment(7),
      boxId: null,
      stop: null,
      text: 'Millrace stays in the cellar until two people have an hour.',
    },
  ];
  const bench: Bench = {
    ...base,
    hosts: demoHosts,
    runs: gamesRuns(),
    boxes: built.map((b) => b.box),
    log: [...general, ...built.flatMap((b) => b.log)],
  };
  // Where Gather is done, all of its list lies on the bench.
  const gathered = (box: Box): Box =>
    box.signoffs.some((s) => s.stop === 'gather')
      ? { ...box, gathered: gatherList(bench, box).lines.map((l) => l.key) }
      : box;
  return { ...bench, boxes: bench.boxes.map(gathered) };
}
