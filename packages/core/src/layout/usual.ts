import { firmwareOf } from '../machine/firmware';
import type { Machine, Profile, Store } from '../model/bench';
import { knownFact } from '../model/known';
import type { DriveThere, DriveWant, PartSchool, PartWant, SwapSchool } from '../model/layout';
import type { Purpose } from '../model/profile';
import { GIB, MIB } from '../units/bytes';

/** What is asked of a system's drive; a school that nobody chose is the system's own habit. */
export interface UsualAsked {
  profile: Profile;
  machine: Machine;
  drive: Store;
  parts: PartSchool | null;
  swap: SwapSchool | null;
}

/** Why a drive is not laid out by a plan. */
export type NoLayout =
  | { code: 'the installer lays it out itself' }
  | { code: 'written straight to the drive' }
  | { code: 'memory not known' };

/** Purposes whose content is kept apart from the system, so that the system can be installed anew beside it. */
const CONTENT: readonly Purpose[] = ['games', 'film', 'music', 'file store'];
/** Common practice, no source: a system with room for updates, a start part for several kernels. */
const ROOM_FOR_UPDATES = 2;
const LEAST_SYSTEM = 16 * GIB;
const START_PART = 512 * MIB;
const MBR_ENDS = 2 ** 32 * 512;

const ext4 = (
  use: PartWant['use'],
  name: string,
  mount: string,
  size: PartWant['size'],
  minimum: number | null,
): PartWant => ({
  id: use,
  use,
  name,
  filesystem: 'ext4',
  mount,
  size,
  minimum,
  active: false,
});

/** The schools that hold for a system: those that were chosen, else its own habits. */
export const schoolsOf = (
  profile: Profile,
  chosen: Pick<UsualAsked, 'parts' | 'swap'>,
): { parts: PartSchool; swap: SwapSchool } => ({
  parts:
    chosen.parts ??
    (profile.layout === 'separate /var and /home' ? '/var and /home apart' : 'one system part'),
  swap: chosen.swap ?? profile.swap,
});

/** A drive of the shelf as the layout reads it. Parts whose place nobody told are left out: none of them can be kept. */
export function driveThere(drive: Store): DriveThere {
  const parts = drive.content?.parts ?? [];
  return {
    name: drive.name,
    bytes: drive.bytes,
    sectorSize: drive.content?.sectorSize ?? 512,
    table: drive.content?.table ?? 'unknown',
    tableId: drive.content?.tableId ?? null,
    parts: parts.flatMap((p, i) =>
      p.start === null || p.bytes === null
        ? []
        : [
            {
              number: i + 1,
              start: p.start,
              bytes: p.bytes,
              type: p.type,
              name: p.name.slice(0, 200),
              filesystem: p.filesystem?.slice(0, 200) ?? null,
              label: p.label?.slice(0, 200) ?? null,
              uuid: p.partitionId,
              attributes: p.attributes,
              active: false,
            },
          ],
    ),
  };
}

/** How the machine starts from the drive: the table, and the parts that takes. */
function starting({ machine, drive }: UsualAsked): { table: DriveWant['table']; wants: PartWant[] } {
  const small = { mount: null, minimum: null, active: false };
  if (firmwareOf(machine) === 'bios') {
    if (drive.bytes <= MBR_ENDS) return { table: 'mbr', wants: [] };
    // Beyond 2 TiB the table is GPT, and BIOS finds the second stage in a part of its own.
    const size = { kind: 'fixed' as const, bytes: MIB };
    return {
      table: 'gpt',
      wants: [{ ...small, id: 'BIOS boot', use: 'BIOS boot', name: '', filesystem: 'none', size }],
    };
  }
  const size = { kind: 'fixed' as const, bytes: START_PART };
  return {
    table: 'gpt',
    wants: [
      { ...small, id: 'start', use: 'start', name: 'start', filesystem: 'vfat', mount: '/boot/efi', size },
    ],
  };
}

/** What is kept for swap; undefined where it takes as much as a memory that is not known. */
function swapBytes(school: SwapSchool, machine: Machine): number | undefined {
  if (school === '1 GB') return GIB;
  if (school !== 'equal to memory') return 0;
  const memory = knownFact(machine, 'memory.bytes')?.value;
  return typeof memory === 'number' ? memory : undefined;
}

/**
 * The layout most people would give a system on this drive, by its needs and habits and by the schools: common practice, no
 * source. Nothing is kept. Data rooms are named by the purpose.
 */
export function usualWant(asked: UsualAsked): DriveWant | NoLayout {
  const { profile, machine } = asked;
  if (profile.installer === 'written straight to the final drive')
    return { code: 'written straight to the drive' };
  if (profile.layout === 'its own' && asked.parts === null)
    return { code: 'the installer lays it out itself' };
  const schools = schoolsOf(profile, asked);
  const swap = swapBytes(schools.swap, machine);
  if (swap === undefined) return { code: 'memory not known' };
  const { table, wants } = starting(asked);
  const least = profile.needs.bootBytes;
  const content = CONTENT.includes(profile.purpose);
  const apart = schools.parts === '/var and /home apart';
  const takesRest = !content && !apart;
  const system = ext4(
    'system',
    'system',
    '/',
    takesRest ? { kind: 'rest' } : { kind: 'fixed', bytes: Math.max(LEAST_SYSTEM, ROOM_FOR_UPDATES * least) },
    least,
  );
  return {
    table,
    kept: [],
    reserve: 0,
    wants: [
      ...wants,
      { ...system, active: table === 'mbr' },
      ...(swap > 0
        ? [
            {
              ...ext4('swap', 'swap', '', { kind: 'fixed', bytes: swap }, null),
              filesystem: 'swap' as const,
              mount: null,
            },
          ]
        : []),
      ...(apart
        ? [
            ext4(
              '/var',
              'var',
              '/var',
              content ? { kind: 'fixed', bytes: 8 * GIB } : { kind: 'share', share: 0.4 },
              GIB,
            ),
            ext4(
              '/home',
              'home',
              '/home',
              content ? { kind: 'fixed', bytes: 8 * GIB } : { kind: 'rest' },
              GIB,
            ),
          ]
        : []),
      ...(content ? [ext4('data', profile.purpose, '/srv', { kind: 'rest' }, null)] : []),
    ],
  };
}
