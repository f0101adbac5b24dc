import type { PoolDrive } from '../model/storage';
import { formatBoth } from '../units/bytes';
import { span, type Span } from '../units/duration';
import { asNamed, boundBy, membersOf, type PlacedPool } from './placed';
import { writeRateOf } from './poolDrive';
import { givenBy, profilesOf, sectorOf, type PoolRoom } from './room';
import { shiftOf } from './usable/padded';

/** A step in making or keeping a pool, with what is typed for it; words/storage.ts says what it does. */
export interface PoolStep {
  code:
    | 'find drives'
    | 'wipe marks'
    | 'make rows'
    | 'make volume'
    | 'make file system'
    | 'make pool'
    | 'mount'
    | 'mount at every start'
    | 'state'
    | 'read through'
    | 'replace';
  text: string;
  /** It destroys what is on the drives. */
  erases: boolean;
}

/** Why no commands are given. */
export type NoCommands = { code: 'no serial'; drives: string[] } | { code: 'serial twice'; serial: string };

/** What a shell takes for a serial without a second thought. */
const SAFE = /^[\w.-]{4,}$/;

const q = (n: number): string => `"$d${n}"`;
const step = (code: PoolStep['code'], lines: readonly string[], erases = false): PoolStep => ({
  code,
  text: lines.join('\n'),
  erases,
});

/** Finds the one drive of a serial, and goes no further where there is none or more than one. */
const FIND = [
  'drive() {',
  `  found=$(lsblk -dnpo NAME,SERIAL | awk -v s="$1" '$2 == s { print $1 }')`,
  `  test "$(printf '%s\\n' "$found" | grep -c .)" = 1 || { echo "not one drive of serial $1; nothing was done" >&2; exit 1; }`,
  `  printf '%s\\n' "$found"`,
  '}',
];

const RAID: Record<number, string> = { 1: '5', 2: '6' };

function plain({ way, rows, spare }: PlacedPool, name: string, of: (d: PoolDrive) => string): PoolStep[] {
  const waits = spare ? of(spare) : null;
  const row = (members: readonly PoolDrive[], as: string, first: boolean): string => {
    const level = way.shape === 'parity' ? `--level=${RAID[way.level] ?? '5'} --chunk=512K` : '--level=1';
    const extra = waits && first ? ` --spare-devices=1` : '';
    return `mdadm --create ${as} --metadata=1.2 ${level} --raid-devices=${members.length}${extra} ${members.map(of).join(' ')}${waits && first ? ` ${waits}` : ''}`;
  };
  const at = way.shape === 'pairs' || way.shape === 'joined' ? `/dev/${name}/data` : `/dev/md/${name}`;
  const volume = (parts: readonly string[]): PoolStep =>
    step('make volume', [
      `pvcreate ${parts.join(' ')}`,
      `vgcreate ${name} ${parts.join(' ')}`,
      `lvcreate -l 100%FREE -n data ${name}`,
    ]);
  const mounts = (device: string): PoolStep[] => [
    step('make file system', [`mkfs.ext4 -m 0 -L ${name} ${device}`], true),
    step('mount', [`mkdir -p /srv/${name}`, `mount LABEL=${name} /srv/${name}`]),
    step('mount at every start', [`LABEL=${name} /srv/${name} ext4 defaults,nofail 0 2`]),
  ];
  if (way.shape === 'single') {
    const [one] = rows.flat();
    const d = one ? of(one) : '';
    return [
      step('make rows', [`printf 'label: gpt\\n,,L\\n' | sfdisk ${d}`], true),
      ...mounts(`"$(lsblk -nrpo NAME,TYPE ${d} | awk '$2 == "part" { print $1; exit }')"`),
      step('state', [`smartctl -H ${d}`]),
    ];
  }
  if (way.shape === 'joined')
    return [volume(rows.flat().map(of)), ...mounts(at), step('state', [`pvs; lvs ${name}`])];
  const arrays = rows.map((_, i) => (rows.length > 1 ? `/dev/md/${name}${i + 1}` : `/dev/md/${name}`));
  return [
    step(
      'make rows',
      rows.map((members, i) => row(members, arrays[i] ?? '', i === 0)),
      true,
    ),
    ...(rows.length > 1 ? [volume(arrays)] : []),
    ...mounts(at),
    step('state', ['cat /proc/mdstat', `mdadm --detail ${arrays.join(' ')}`]),
    step(
      'read through',
      arrays.map((a) => `mdadm --action=check ${a}`),
    ),
    step('replace', [`mdadm ${arrays[0]} --fail OLD --remove OLD`, `mdadm ${arrays[0]} --add NEW`]),
  ];
}

function padded(
  { way, rows, spare }: PlacedPool,
  name: string,
  recordBytes: number,
  of: (d: PoolDrive) => string,
): PoolStep[] {
  const kind =
    way.shape === 'parity'
      ? `raidz${way.level} `
      : way.shape === 'mirror' || way.shape === 'pairs'
        ? 'mirror '
        : '';
  const uneven = rows.some((r) => new Set(r.map((d) => d.bytes)).size > 1);
  const shift = shiftOf(sectorOf(rows.flat()));
  const rowsText = rows.map((r) => `${kind}${r.map(of).join(' ')}`).join(' ');
  return [
    step(
      'make pool',
      [
        `zpool create ${uneven ? '-f ' : ''}-o ashift=${shift} -O recordsize=${recordBytes} -O compression=on -O atime=off -m /srv/${name} ${name} ${rowsText}${spare ? ` spare ${of(spare)}` : ''}`,
      ],
      true,
    ),
    step('state', [`zpool status ${name}`]),
    step('read through', [`zpool scrub ${name}`]),
    step('replace', [`zpool replace ${name} OLD NEW`]),
  ];
}

/** What mkfs.btrfs(8) calls a profile. */
function profileName(p: { copies: number; parity: number; onOne?: boolean }): string {
  if (p.parity > 0) return p.parity === 1 ? 'raid5' : 'raid6';
  if (p.onOne) return 'dup';
  return p.copies === 1 ? 'single' : p.copies === 2 ? 'raid1' : `raid1c${p.copies}`;
}

function groups(pool: PlacedPool, name: string, of: (d: PoolDrive) => string): PoolStep[] {
  const { data, metadata } = profilesOf(pool.way);
  const named = asNamed(pool);
  return [
    step(
      'make file system',
      [
        `mkfs.btrfs -L ${name} -d ${profileName(data)} -m ${profileName(metadata)} ${named.map(of).join(' ')}`,
      ],
      true,
    ),
    step('mount', [`mkdir -p /srv/${name}`, `mount LABEL=${name} /srv/${name}`]),
    step('mount at every start', [`LABEL=${name} /srv/${name} btrfs defaults,nofail,noatime 0 0`]),
    step('state', [`btrfs filesystem usage /srv/${name}`, `btrfs device stats /srv/${name}`]),
    step('read through', [`btrfs scrub start -B /srv/${name}`]),
    ...(named.length > 1 ? [step('replace', [`btrfs replace start OLD NEW /srv/${name}`])] : []),
  ];
}

/**
 * What is typed to make a pool and to keep it, step by step; drives are found by their serials. We run none of it.
 * Commands as in mdadm(8), lvm(8), mke2fs(8), zpool(8), mkfs.btrfs(8) and btrfs(8).
 */
export function poolSteps(
  pool: PlacedPool,
  named: { name: string; recordBytes: number },
): { steps: PoolStep[] } | NoCommands {
  const drives = boundBy(pool);
  const unnamed = drives.filter((d) => d.serial === null || !SAFE.test(d.serial));
  if (unnamed.length > 0) return { code: 'no serial', drives: unnamed.map((d) => d.name) };
  const seen = new Set<string>();
  for (const { serial } of drives) {
    if (serial !== null && seen.has(serial)) return { code: 'serial twice', serial };
    seen.add(serial ?? '');
  }
  const of = (d: PoolDrive): string => q(drives.indexOf(d) + 1);
  const made =
    pool.way.manner === 'plain'
      ? plain(pool, named.name, of)
      : pool.way.manner === 'padded'
        ? padded(pool, named.name, named.recordBytes, of)
        : groups(pool, named.name, of);
  return {
    steps: [
      step('find drives', [...FIND, ...drives.map((d, i) => `d${i + 1}=$(drive '${d.serial ?? ''}')`)]),
      step('wipe marks', [`wipefs -a ${drives.map((_, i) => q(i + 1)).join(' ')}`], true),
      ...made,
    ],
  };
}

/** Steps that make a pool; the others are for later. */
const MAKING: readonly PoolStep['code'][] = [
  'find drives',
  'wipe marks',
  'make rows',
  'make volume',
  'make file system',
  'make pool',
  'mount',
];

/** All that makes a pool as one script for a POSIX shell: it stops at the first thing that is not as planned. */
export function poolScript(pool: PlacedPool, name: string, steps: readonly PoolStep[]): string {
  const drives = boundBy(pool);
  return [
    '#!/bin/sh',
    `# Makes the pool “${name}”. Read it first; nobody runs it but you.`,
    '# Everything on these drives is lost:',
    ...drives.map(
      (d) => `#   ${d.name.replaceAll('\n', ' ')}, ${formatBoth(d.bytes)}, serial ${d.serial ?? ''}`,
    ),
    'set -eu',
    ...steps.filter((s) => MAKING.includes(s.code)).flatMap((s) => ['', s.text]),
    '',
  ].join('\n');
}

/**
 * Seconds until a new pool is whole: rows of the plain manner are written through once, the others only mark themselves.
 * It can be used meanwhile. Common practice, no source.
 */
export function makingOf(pool: PlacedPool, room: PoolRoom): Span {
  const kept = pool.way.manner === 'plain' && pool.rows.some((r) => r.length > 1);
  if (!kept) return span(0, 0);
  const gives = givenBy(room);
  const each = membersOf(pool).map((d) => {
    const bytes = gives.get(d.id) ?? 0;
    const rate = writeRateOf(d);
    return span(bytes / rate.fast, bytes / rate.slow);
  });
  return span(Math.max(...each.map((s) => s.low)), Math.max(...each.map((s) => s.high)));
}
