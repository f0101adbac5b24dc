import { usbLinks } from '../machine/links';

/**
 * A machine whose firmware knows no NVMe can still keep its system on such a drive: a small loader on a stick inside holds
 * the driver and goes on to the drive. Common practice, no source.
 */

/** Bytes of the loader with its drivers: common practice, no source. */
const LOADER_BYTES = 10e6;
/** Bytes of the FAT part it lies on: common practice, no source. */
export const LOADER_PART_BYTES = 100e6;

/** What has to hold, as it is known. `drivers` are the folders that hold the NVMe driver. */
export interface ChainLoaderState {
  firmwareStartsStick: boolean;
  part: 'FAT' | 'another file system';
  loaderThere: boolean;
  drivers: { bios: boolean; uefi: boolean };
  /** The way the firmware starts the loader. */
  mode: 'bios' | 'uefi';
  /** Seconds until it goes on by itself. */
  countdown: number;
  /** Drives on one adapter, and whether firmware splits the slot's lanes. */
  drivesOnAdapter: number;
  splitsLanes: boolean;
  systemOnDrive: boolean;
}

/** How such a start ends. */
export type ChainEnd =
  | 'system starts'
  | 'firmware finds nothing'
  | 'loader not found'
  | 'loader shows no drive'
  | 'loader shows one drive of several'
  | 'loader finds no system';

/** A start with its end, and whether its menu can still be reached to put something right. */
export interface ChainRun {
  end: ChainEnd;
  menu: boolean;
}

/** Follows the start from the firmware to the system on the drive. */
export function runChain(s: ChainLoaderState): ChainRun {
  if (!s.firmwareStartsStick || s.part !== 'FAT') return { end: 'firmware finds nothing', menu: false };
  if (!s.loaderThere) return { end: 'loader not found', menu: false };
  const menu = s.countdown > 0;
  if (!s.drivers[s.mode]) return { end: 'loader shows no drive', menu };
  if (s.drivesOnAdapter > 1 && !s.splitsLanes) return { end: 'loader shows one drive of several', menu };
  return { end: s.systemOnDrive ? 'system starts' : 'loader finds no system', menu };
}

/** A mistake that is rehearsed. */
export type ChainMistake =
  | 'stick not started'
  | 'part not FAT'
  | 'loader missing'
  | 'driver missing'
  | 'driver in one folder alone'
  | 'countdown 0'
  | 'several drives in one slot'
  | 'system not installed';

const MISTAKES: readonly [ChainMistake, (s: ChainLoaderState) => ChainLoaderState][] = [
  ['stick not started', (s) => ({ ...s, firmwareStartsStick: false })],
  ['part not FAT', (s) => ({ ...s, part: 'another file system' })],
  ['loader missing', (s) => ({ ...s, loaderThere: false })],
  ['driver missing', (s) => ({ ...s, drivers: { bios: false, uefi: false } })],
  [
    'driver in one folder alone',
    (s) => ({ ...s, drivers: { bios: s.mode === 'uefi', uefi: s.mode === 'bios' } }),
  ],
  ['countdown 0', (s) => ({ ...s, countdown: 0 })],
  ['several drives in one slot', (s) => ({ ...s, drivesOnAdapter: 2, splitsLanes: false })],
  ['system not installed', (s) => ({ ...s, systemOnDrive: false })],
];

/** What is looked at before the machine is closed. */
export type ChainCheck =
  | 'starts from USB'
  | 'stick for it'
  | 'part large enough'
  | 'driver in both folders'
  | 'countdown above 0'
  | 'port fast enough'
  | 'one drive per slot';

/** The plan: what is checked, in which state; what is done; and every mistake rehearsed. */
export interface ChainLoaderPlan {
  drive: string;
  stick: string | null;
  checks: { check: ChainCheck; state: 'holds' | 'fails' | 'look' }[];
  /** Seconds the loader takes to be read over the slowest port, USB 2. */
  loadSeconds: number;
  rehearsed: (ChainRun & { mistake: ChainMistake })[];
}

/** What is known of the machine and the shelf. */
export interface ChainLoaderFacts {
  drive: string;
  mode: 'bios' | 'uefi';
  startsUsb: boolean | undefined;
  splitsLanes: boolean | undefined;
  drivesOnAdapter: number;
  /** A free stick to stay inside; null where the shelf has none. */
  stick: { name: string; bytes: number } | null;
}

/** Makes the plan for a machine that does not start from the NVMe drive it is to start from. */
export function chainLoaderPlan(f: ChainLoaderFacts): ChainLoaderPlan {
  const right: ChainLoaderState = {
    firmwareStartsStick: true,
    part: 'FAT',
    loaderThere: true,
    drivers: { bios: true, uefi: true },
    mode: f.mode,
    countdown: 5,
    drivesOnAdapter: 1,
    splitsLanes: f.splitsLanes === true,
    systemOnDrive: true,
  };
  const loadSeconds = LOADER_BYTES / usbLinks.usb2.bytesPerSecond;
  return {
    drive: f.drive,
    stick: f.stick?.name ?? null,
    loadSeconds,
    checks: [
      {
        check: 'starts from USB',
        state: f.startsUsb === undefined ? 'look' : f.startsUsb ? 'holds' : 'fails',
      },
      { check: 'stick for it', state: f.stick ? 'holds' : 'fails' },
      {
        check: 'part large enough',
        state: f.stick ? (f.stick.bytes >= LOADER_PART_BYTES ? 'holds' : 'fails') : 'look',
      },
      { check: 'driver in both folders', state: 'look' },
      { check: 'countdown above 0', state: 'look' },
      { check: 'port fast enough', state: loadSeconds < 2 ? 'holds' : 'fails' },
      {
        check: 'one drive per slot',
        state:
          f.drivesOnAdapter <= 1 || f.splitsLanes === true
            ? 'holds'
            : f.splitsLanes === false
              ? 'fails'
              : 'look',
      },
    ],
    rehearsed: MISTAKES.map(([mistake, make]) => ({ mistake, ...runChain(make(right)) })),
  };
}
