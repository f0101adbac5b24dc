import { fstabLine } from '../formats/writer/octal';
import { fixedShell, sh, shellComment, shellScript, type Shell } from '../formats/writer/shell';
import type { PoolDrive } from '../model/storage';
import { formatBoth } from '../units/bytes';
import { follows } from '../units/grammar';
import { asNamed, boundBy, type PlacedPool } from './placed';
import { profilesOf, sectorOf } from './room';
import { shiftOf } from './usable/padded';

/** A step in making or keeping a pool, with what is typed for it; words/storage.ts says what it does. */
export interface PoolStep {
  code:
    | 'find drives'
    | 'wipe marks'
    | 'make rows'
    | 'record rows'
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

/** The variable that holds the path of a drive: no value of the bench stands in it. */
const q = (n: number): Shell => fixedShell(`"$d${n}"`);
const step = (code: PoolStep['code'], lines: readonly { text: string }[], erases = false): PoolStep => ({
  code,
  text: lines.map((l) => l.text).join('\n'),
  erases,
});

/** Finds the one drive of a serial, and goes no further where there is none or more than one. */
const FIND = [
  'drive() {',
  `  found=$(lsblk -dnpo NAME,SERIAL | awk -v s="$1" '$2 == s { print $1 }')`,
  `  test "$(printf '%s\\n' "$found" | grep -c .)" = 1 || { echo "not one drive of serial $1; nothing was done" >&2; exit 1; }`,
  `  printf '%s\\n' "$found"`,
  '}',
].map(fixedShell);

const RAID: Record<number, string> = { 1: '5', 2: '6' };

/**
 * Rows are named in mdadm.conf(5) and in the initial disk, or the next boot calls them md127 and the line of fstab may not find
 * them. The file lies in one of two places; the initial disk is made by one of three tools.
 */
const RECORD: PoolStep = step('record rows', [
  fixedShell(`conf=/etc/mdadm/mdadm.conf
test -e /etc/mdadm || conf=/etc/mdadm.conf
mdadm --detail --scan | while IFS= read -r line; do
  grep -qxF -- "$line" "$conf" 2>/dev/null || printf '%s\\n' "$line" >>"$conf"
done
if command -v update-initramfs >/dev/null; then update-initramfs -u
elif command -v dracut >/dev/null; then dracut --force
elif command -v mkinitcpio >/dev/null; then mkinitcpio -P
fi`),
]);

function plain({ way, rows, spare }: PlacedPool, name: string, of: (d: PoolDrive) => Shell): PoolStep[] {
  const waits = spare ? of(spare) : null;
  const row = (members: readonly PoolDrive[], as: string, first: boolean): Shell => {
    const level = way.shape === 'parity' ? sh`--level=${RAID[way.level] ?? '5'} --chunk=512K` : sh`--level=1`;
    const options = [
      sh`--raid-devices=${members.length}`,
      ...(waits && first ? [sh`--spare-devices=1`] : []),
    ];
    const drives = [...members.map(of), ...(waits && first ? [waits] : [])];
    return sh`mdadm --create ${as} --metadata=1.2 ${level} ${options} ${drives}`;
  };
  const at = way.shape === 'pairs' || way.shape === 'joined' ? `/dev/${name}/data` : `/dev/md/${name}`;
  const volume = (parts: readonly (string | Shell)[]): PoolStep =>
    step('make volume', [
      sh`pvcreate ${parts}`,
      sh`vgcreate ${name} ${parts}`,
      sh`lvcreate -l 100%FREE -n data ${name}`,
    ]);
  const mounts = (device: string | Shell): PoolStep[] => [
    step('make file system', [sh`mkfs.ext4 -m 0 -L ${name} ${device}`], true),
    step('mount', [sh`mkdir -p /srv/${name}`, sh`mount LABEL=${name} /srv/${name}`]),
    step('mount at every start', [fstabLine`LABEL=${name} /srv/${name} ext4 defaults,nofail 0 2`]),
  ];
  if (way.shape === 'single') {
    const [one] = rows.flat();
    const d = one ? of(one) : fixedShell('');
    return [
      step('make rows', [sh`printf 'label: gpt\\n,,L\\n' | sfdisk ${d}`], true),
      ...mounts(fixedShell(`"$(lsblk -nrpo NAME,TYPE ${d.text} | awk '$2 == "part" { print $1; exit }')"`)),
      step('state', [sh`smartctl -H ${d}`]),
    ];
  }
  if (way.shape === 'joined')
    return [volume(rows.flat().map(of)), ...mounts(at), step('state', [sh`pvs; lvs ${name}`])];
  const arrays = rows.map((_, i) => (rows.length > 1 ? `/dev/md/${name}${i + 1}` : `/dev/md/${name}`));
  return [
    step(
      'make rows',
      rows.map((members, i) => row(members, arrays[i] ?? '', i === 0)),
      true,
    ),
    RECORD,
    ...(rows.length > 1 ? [volume(arrays)] : []),
    ...mounts(at),
    step('state', [sh`cat /proc/mdstat`, sh`mdadm --detail ${arrays}`]),
    step(
      'read through',
      arrays.map((a) => sh`mdadm --action=check ${a}`),
    ),
    step('replace', [
      sh`mdadm ${arrays[0] ?? ''} --fail OLD --remove OLD`,
      sh`mdadm ${arrays[0] ?? ''} --add NEW`,
    ]),
  ];
}

function padded(
  { way, rows, spare }: PlacedPool,
  name: string,
  recordBytes: number,
  of: (d: PoolDrive) => Shell,
): PoolStep[] {
  const kind =
    way.shape === 'parity'
      ? [`raidz${way.level}`]
      : way.shape === 'mirror' || way.shape === 'pairs'
        ? ['mirror']
        : [];
  const uneven = rows.some((r) => new Set(r.map((d) => d.bytes)).size > 1);
  const shift = shiftOf(sectorOf(rows.flat()));
  const drives = rows.flatMap((r) => [...kind, ...r.map(of)]);
  const force = uneven ? [sh`-f`] : [];
  const waiting = spare ? [sh`spare`, of(spare)] : [];
  return [
    step(
      'make pool',
      [
        sh`zpool create ${[...force, sh`-o ashift=${shift} -O recordsize=${recordBytes} -O compression=on -O atime=off -m /srv/${name} ${name}`, ...drives, ...waiting]}`,
      ],
      true,
    ),
    step('state', [sh`zpool status ${name}`]),
    step('read through', [sh`zpool scrub ${name}`]),
    step('replace', [sh`zpool replace ${name} OLD NEW`]),
  ];
}

/** What mkfs.btrfs(8) calls a profile. */
function profileName(p: { copies: number; parity: number; onOne?: boolean }): string {
  if (p.parity > 0) return p.parity === 1 ? 'raid5' : 'raid6';
  if (p.onOne) return 'dup';
  return p.copies === 1 ? 'single' : p.copies === 2 ? 'raid1' : `raid1c${p.copies}`;
}

function groups(pool: PlacedPool, name: string, of: (d: PoolDrive) => Shell): PoolStep[] {
  const { data, metadata } = profilesOf(pool.way);
  const named = asNamed(pool);
  return [
    step(
      'make file system',
      [sh`mkfs.btrfs -L ${name} -d ${profileName(data)} -m ${profileName(metadata)} ${named.map(of)}`],
      true,
    ),
    step('mount', [sh`mkdir -p /srv/${name}`, sh`mount LABEL=${name} /srv/${name}`]),
    step('mount at every start', [fstabLine`LABEL=${name} /srv/${name} btrfs defaults,nofail,noatime 0 0`]),
    step('state', [sh`btrfs filesystem usage /srv/${name}`, sh`btrfs device stats /srv/${name}`]),
    step('read through', [sh`btrfs scrub start -B /srv/${name}`]),
    ...(named.length > 1 ? [step('replace', [sh`btrfs replace start OLD NEW /srv/${name}`])] : []),
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
  const unnamed = drives.filter((d) => d.serial === null || !follows('driveSerial', d.serial));
  if (unnamed.length > 0) return { code: 'no serial', drives: unnamed.map((d) => d.name) };
  const seen = new Set<string>();
  for (const { serial } of drives) {
    if (serial !== null && seen.has(serial)) return { code: 'serial twice', serial };
    seen.add(serial ?? '');
  }
  const of = (d: PoolDrive): Shell => q(drives.indexOf(d) + 1);
  const made =
    pool.way.manner === 'plain'
      ? plain(pool, named.name, of)
      : pool.way.manner === 'padded'
        ? padded(pool, named.name, named.recordBytes, of)
        : groups(pool, named.name, of);
  return {
    steps: [
      step('find drives', [...FIND, ...drives.map((d, i) => sh`d${i + 1}=$(drive ${d.serial ?? ''})`)]),
      step('wipe marks', [sh`wipefs -a ${drives.map((_, i) => q(i + 1))}`], true),
      ...made,
    ],
  };
}

/** Steps that make a pool; the others are for later. */
const MAKING: readonly PoolStep['code'][] = [
  'find drives',
  'wipe marks',
  'make rows',
  'record rows',
  'make volume',
  'make file system',
  'make pool',
  'mount',
];

/** All that makes a pool as one script for a POSIX shell: it stops at the first thing that is not as planned. */
export function poolScript(pool: PlacedPool, name: string, steps: readonly PoolStep[]): string {
  return shellScript([
    fixedShell('#!/bin/sh'),
    shellComment(`Makes the pool “${name}”. Read it first; nobody runs it but you.`),
    shellComment('Everything on these drives is lost:'),
    ...boundBy(pool).map((d) =>
      shellComment(`  ${d.name}, ${formatBoth(d.bytes)}, serial ${d.serial ?? ''}`),
    ),
    sh`set -eu`,
    ...steps.filter((s) => MAKING.includes(s.code)).flatMap((s) => [fixedShell(''), fixedShell(s.text)]),
  ]);
}
