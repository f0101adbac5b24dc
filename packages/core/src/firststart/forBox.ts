import { knownFact } from '../model/known';
import {
  findMachine,
  findProfile,
  hostsOfBox,
  storesOf,
  type Bench,
  type Box,
  type Machine,
  type Profile,
  type Store,
} from '../model/bench';
import { noFirst, type FirstRecord } from '../model/firstStart';
import type { FactKey, FactValue } from '../model/facts';
import { serves } from '../system/serves';
import { laidBox } from '../layout/forBox';
import { span, type Span } from '../units/duration';
import { driverKind, driversBefore, driversInOrder, type DriverKind } from '../system/drivers';
import { inOrder } from './order';
import type { FirstFault, FirstLine, FirstLineCode, FirstWhy } from './line';
import { firstStartTime, updatesDone, updatesLeft } from './waiting';

/** A machine of this age has its memory tested once before anything is trusted to it. Common practice, no source. */
const OLD_YEARS = 10;

/** The first start of a box: its lines in order, what is wrong with them, and how long they take. Seconds. */
export interface FirstStart {
  lines: FirstLine[];
  faults: FirstFault[];
  record: FirstRecord;
  /** The machine reaches the network before any driver goes in; undefined where that is not known. */
  online: boolean | undefined;
  hands: Span;
  waiting: Span;
}

interface Scene {
  bench: Bench;
  box: Box;
  machine: Machine;
  profile: Profile;
  record: FirstRecord;
  drive: Store | undefined;
  fact: (key: FactKey) => FactValue | undefined;
}

/** Whether the network works without a driver that has to be brought: a port whose driver comes with the kernel. */
function onlineAtOnce({ machine, profile }: Scene): boolean | undefined {
  if (!profile.drivers.some((d) => driverKind(d) === 'network')) return true;
  const ports = machine.networkPorts;
  if (ports.some((p) => p.kind === 'wired' && p.family === 'in-kernel')) return true;
  return ports.some((p) => p.family === null) ? undefined : false;
}

const SECONDS: Partial<Record<FirstLineCode, Span>> = {
  'memory test': span(2 * 3600, 8 * 3600),
  keyboard: span(30, 120),
  password: span(60, 240),
  'default password': span(60, 240),
  'set of software': span(30, 60),
  network: span(60, 300),
  'sound output': span(60, 240),
  'gamepads paired': span(60, 240),
  'gamepads mapped': span(120, 600),
  driver: span(60, 300),
  'screen sheet': span(60, 180),
};
const SHORT = span(15, 45);

class Lines {
  readonly all: FirstLine[] = [];
  constructor(private readonly record: FirstRecord) {}

  add(
    code: FirstLineCode,
    why: FirstWhy,
    more: { after?: string[]; of?: string; key?: string; seconds?: Span; may?: boolean; done?: boolean } = {},
  ): string {
    const key = more.key ?? code;
    this.all.push({
      key,
      code,
      of: more.of ?? null,
      why,
      seconds: more.seconds ?? SECONDS[code] ?? SHORT,
      after: more.after ?? [],
      may: more.may ?? true,
      done: more.done ?? this.record.done.includes(key),
      left: this.record.left.includes(key),
    });
    return key;
  }
  has = (key: string): boolean => this.all.some((l) => l.key === key);
  /** Those of these that are in the list. */
  of = (...keys: string[]): string[] => keys.filter(this.has);
}

const DRIVER = 'driver ';
const driverKey = (name: string): string => `${DRIVER}${name}`;
/** Those of some keys whose driver is of a kind. */
const ofKind = (keys: readonly string[], is: (kind: DriverKind) => boolean): string[] =>
  keys.filter((key) => {
    const kind = driverKind(key.slice(DRIVER.length));
    return kind !== undefined && is(kind);
  });

/** Drivers in their order, each after those it needs; the network's own before or after the updates. */
function drivers({ profile }: Scene, online: boolean, lines: Lines, after: string[]): string[] {
  return driversInOrder(profile.drivers).map((name) => {
    const needs = driversBefore(name, profile.drivers).map(driverKey);
    return lines.add(
      'driver',
      online
        ? { code: 'driver by the network', driver: name }
        : { code: 'driver from the stick', driver: name },
      { key: driverKey(name), of: name, after: [...after, ...needs] },
    );
  });
}

/** What the installer has asked is not asked again. Its “edition” is the set of software. */
const askedBefore = ({ profile }: Scene): Set<string> =>
  new Set(profile.manner.asks.map((q) => (q === 'edition' ? 'set of software' : q)));

function questions(s: Scene, lines: Lines, first: string): void {
  const { profile, fact } = s;
  const before = askedBefore(s);
  const asks = new Set(profile.first.asks.filter((q) => !before.has(q)));
  const asked: FirstWhy = { code: 'asked' };
  const upright = fact('display.portrait') === true;
  const turned = upright ? [lines.add('rotation', { code: 'upright panel' }, { after: [first] })] : [];
  const language = asks.has('language') ? [lines.add('language', asked, { after: [first, ...turned] })] : [];
  if (asks.has('zone')) lines.add('zone', asked, { after: [first, ...language] });
  // A password that is typed on another layout than it will be asked for on is a password nobody knows.
  if (!before.has('keyboard') && (asks.has('keyboard') || profile.login !== 'no login'))
    lines.add('keyboard', asked, { after: [first, ...language], may: false });
  if (asks.has('set of software')) lines.add('set of software', asked, { after: [first, ...language] });
}

function access(s: Scene, lines: Lines, first: string): string[] {
  const { box, profile } = s;
  const keyboard = lines.of('keyboard');
  const before = askedBefore(s);
  const asks = new Set(profile.first.asks.filter((q) => !before.has(q)));
  const user = asks.has('user')
    ? [lines.add('user', { code: 'asked' }, { after: [first, ...keyboard] })]
    : [];
  if (profile.login === 'no login' || (profile.login === 'set at install' && before.has('password')))
    return user;
  const code = profile.login === 'shipped default' ? 'default password' : 'password';
  const replaced =
    s.record.password !== null && (profile.login !== 'shipped default' || s.record.password.replaced);
  return [
    lines.add(
      code,
      profile.login === 'shipped default'
        ? { code: 'shipped default' }
        : serves(box.purpose)
          ? { code: 'serves' }
          : { code: 'real password' },
      { after: [first, ...user, ...keyboard], may: false, done: replaced },
    ),
  ];
}

function channel({ profile }: Scene, lines: Lines, after: string[]): string[] {
  const { channel: from, switchTo: to, switchPlaces } = profile.first;
  if (to === null || to === from) return [];
  const places = switchPlaces.length > 0 ? switchPlaces : [''];
  return places.map((place, i) =>
    lines.add(
      i === 0 ? 'channel' : 'channel, second place',
      { code: 'needs switching', from, to, place },
      {
        key: i === 0 ? 'channel' : `channel ${i + 1}`,
        after: [...after, ...lines.of('channel')],
      },
    ),
  );
}

/** Sound outputs that are there, by their names: a screen that plays, and what the machine has itself. */
function outputs({ fact }: Scene): string[] {
  return [
    ...(fact('display.audio') === true ? ['the screen (HDMI or DisplayPort)'] : []),
    'the machine’s own',
  ];
}

function build(s: Scene, online: boolean): Lines {
  const { bench, box, profile, record, drive, fact } = s;
  const lines = new Lines(record);
  const year = fact('cpu.year');
  const now = new Date(box.createdAt).getUTCFullYear();
  const tested =
    typeof year === 'number' && now - year >= OLD_YEARS
      ? [lines.add('memory test', { code: 'old machine', year })]
      : [];
  const time = firstStartTime(profile.first, profile.growsAtFirstStart, drive).value;
  const first = lines.add(
    'first start',
    { code: 'grows', drive: profile.growsAtFirstStart ? (drive?.name ?? null) : null },
    {
      after: tested,
      seconds: time,
      may: false,
      done: record.seconds !== null || record.done.includes('first start'),
    },
  );
  questions(s, lines, first);
  if (profile.first.wantsNetwork && !online)
    lines.add(
      'way round the network',
      { code: 'network needed', way: profile.first.wayRound },
      { after: [first] },
    );
  const locked = access(s, lines, first);
  const round = lines.of('way round the network');
  // Without a network of its own the drivers come first, the network’s among them; with one, updates bring the rest.
  const brought = online ? [] : drivers(s, online, lines, [first, ...locked, ...round]);
  const network = lines.add(
    'network',
    { code: 'asked' },
    {
      after: [first, ...locked, ...ofKind(brought, (kind) => kind === 'network')],
      may: false,
    },
  );
  const switched = channel(s, lines, [network]);
  const updates = lines.add(
    'updates',
    { code: 'until nothing is offered', rounds: profile.first.rounds },
    {
      after: [network, ...switched, ...brought],
      seconds: updatesLeft(profile.first, record),
      may: false,
      done: updatesDone(record),
    },
  );
  const all = online ? drivers(s, online, lines, [updates]) : brought;
  const plays =
    profile.purpose === 'games' ||
    profile.purpose === 'film' ||
    profile.purpose === 'music' ||
    profile.first.desktop;
  if (plays)
    lines.add(
      'sound output',
      { code: 'sound goes astray', outputs: outputs(s) },
      {
        after: [first, ...ofKind(all, (kind) => kind.startsWith('audio'))],
      },
    );
  if (profile.first.gamepads || profile.purpose === 'games') {
    const paired = lines.add('gamepads paired', { code: 'buttons do nothing' }, { after: [first, ...all] });
    lines.add('gamepads mapped', { code: 'buttons do nothing' }, { after: [paired] });
  }
  if (profile.first.desktop || profile.first.asks.includes('keyring'))
    lines.add('keyring', { code: 'asked once' }, { after: [network, ...locked] });
  if (profile.needs.graphics || fact('display.native') !== undefined)
    lines.add(
      'screen sheet',
      { code: 'look at it' },
      {
        after: [first, ...lines.of('rotation'), ...ofKind(all, (kind) => kind === 'graphics')],
      },
    );
  if (serves(box.purpose) || profile.admin !== null || hostsOfBox(bench, box.id).length > 0)
    lines.add('shell', { code: 'before the monitor goes' }, { after: [network, updates, ...locked] });
  return lines;
}

/** Why a box has no list yet. */
export interface NoFirst {
  code: 'no machine' | 'no system';
}

/** The list of a box, made from its system, its machine and what was decided. */
export function firstStartOf(bench: Bench, box: Box): FirstStart | NoFirst {
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  if (!machine) return { code: 'no machine' };
  if (!profile) return { code: 'no system' };
  const record = box.first ?? noFirst();
  const drive = laidBox(bench, box).drive ?? undefined;
  const scene: Scene = {
    bench,
    box,
    machine,
    profile,
    record,
    drive,
    fact: (key) => knownFact(machine, key)?.value,
  };
  const online = onlineAtOnce(scene);
  const { order, faults } = inOrder(build(scene, online ?? false).all);
  const open = order.filter((l) => !l.done && !l.left);
  const waits = new Set<FirstLineCode>(['first start', 'updates', 'memory test', 'driver']);
  const sum = (all: readonly FirstLine[]): Span =>
    all.reduce((t, l) => span(t.low + l.seconds.low, t.high + l.seconds.high), span(0));
  return {
    lines: order,
    faults,
    record,
    online,
    hands: sum(open.filter((l) => !waits.has(l.code))),
    waiting: sum(open.filter((l) => waits.has(l.code))),
  };
}

/** Drivers of a box’s system that are to be fetched beforehand, with what lies on the stick for each. */
export interface BundleLine {
  driver: string;
  /** It brings the network itself: without it nothing else can be fetched. */
  needed: boolean;
  files: FirstRecord['bundle'];
}

/** What is fetched beforehand, in the order it goes in; empty where the system brings all. */
export function bundleOf(
  bench: Bench,
  box: Box,
): { lines: BundleLine[]; bytes: number; stick: Store | undefined; fits: boolean } {
  const profile = findProfile(bench, box.profileId);
  const record = box.first ?? noFirst();
  const names = profile?.drivers ?? [];
  const stick = storesOf(bench).find((s) => s.id === record.stickId);
  const bytes = record.bundle.reduce((n, f) => n + f.bytes, 0);
  return {
    lines: driversInOrder(names).map((driver) => ({
      driver,
      needed: driverKind(driver) === 'network',
      files: record.bundle.filter((f) => f.driver === driver),
    })),
    bytes,
    stick,
    fits: stick === undefined || bytes <= stick.bytes,
  };
}
