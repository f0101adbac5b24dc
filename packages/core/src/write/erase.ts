import { sh } from '../formats/writer/shell';
import type { Store } from '../model/bench';
import { span, type Span } from '../units/duration';
import { follows } from '../units/grammar';
import { predictTimes } from './time';

/** How sure it is that nobody reads the old content again (NIST SP 800-88 Rev. 1 §2.5). */
export type EraseLevel = 'clear' | 'purge' | 'destroy';
/** A way of erasing. */
export type EraseMethod =
  | 'overwrite once'
  | 'overwrite twice, second time inverted'
  | 'secure erase'
  | 'enhanced secure erase'
  | 'sanitize by overwriting'
  | 'sanitize by block erase'
  | 'sanitize by forgetting the key'
  | 'format with the key forgotten'
  | 'break it up';
/** What has to be known of a way. */
export type EraseCaveat =
  /** Sectors that the drive took out of use keep their old content. */
  | 'spare sectors stay'
  /** Flash keeps copies that no address leads to. */
  | 'copies stay'
  /** The drive refuses until it was without power for a moment. */
  | 'may be frozen'
  /** Adapters mostly do not pass the command on. */
  | 'not over USB'
  | 'drive must have it';

/** One way to erase a store. */
export interface EraseWay {
  level: EraseLevel;
  method: EraseMethod;
  /** A command of a general tool, for the drive that `find` found; null where none is needed or given. We never run it. */
  command: string | null;
  /** Seconds it takes; undefined where only the drive knows. */
  seconds: Span | undefined;
  caveats: EraseCaveat[];
}

/** Ways to erase it, and how what was done is checked. */
export interface ErasePlan {
  kind: 'magnetic disk' | 'SATA flash' | 'NVMe flash' | 'USB stick or card' | 'soldered flash';
  /** Finds the drive by its serial for the commands; null where none are given. */
  find: string | null;
  /** Why no command is given; null where some are. */
  not: 'not to be lost' | 'no serial' | null;
  ways: EraseWay[];
  /** The table of NIST SP 800-88 Rev. 1, appendix A, from memory. */
  source: string;
}

/**
 * Finds the one drive with a serial and puts its path into $drive, which stays no drive where there is none or more than one.
 * Null where the serial cannot name it for certain.
 */
const finding = (serial: string | null): string | null =>
  serial === null || !follows('driveSerial', serial)
    ? null
    : sh`drive=$(lsblk -dnpo NAME,SERIAL | awk -v s=${serial} '$2 == s { print $1 }'); test -b "$drive" || { echo 'not one drive of this serial'; drive=/dev/null/none; }`
        .text;

const kindOf = (s: Pick<Store, 'kind' | 'transport' | 'rotational'>): ErasePlan['kind'] => {
  if (s.kind !== 'drive' || (s.transport === 'usb' && s.rotational === false)) return 'USB stick or card';
  if (s.transport === 'mmc') return 'soldered flash';
  if (s.transport === 'nvme') return 'NVMe flash';
  return s.rotational === false ? 'SATA flash' : 'magnetic disk';
};

/** A way as its standard has it: passes over the whole of it, or the seconds it usually takes; DRIVE stands for its path. */
interface Listed {
  level: EraseLevel;
  method: EraseMethod;
  text: string;
  takes: { passes: number } | Span;
  caveats: EraseCaveat[];
}
const listed = (
  level: EraseLevel,
  method: EraseMethod,
  text: string,
  takes: Listed['takes'],
  ...caveats: EraseCaveat[]
): Listed => ({ level, method, text, takes, caveats });
const once = { passes: 1 } as const;
const ZEROS = 'dd if=/dev/zero of=DRIVE bs=4M oflag=direct status=progress';
const ONES = `tr '\\0' '\\377' </dev/zero | dd of=DRIVE bs=4M iflag=fullblock oflag=direct status=progress`;
const hdparm = (what: string): string => `hdparm --yes-i-know-what-i-am-doing --sanitize-${what} DRIVE`;
const secure = (how: string): string =>
  `hdparm --user-master u --security-set-pass p DRIVE && hdparm --user-master u --security-${how} p DRIVE`;
const overFlash = listed('clear', 'overwrite once', ZEROS, once, 'copies stay');

/** NIST SP 800-88 Rev. 1, appendix A, tables A-5 (magnetic media) and A-8 (flash), from memory; times of a command's own by common practice. */
const WAYS: Record<ErasePlan['kind'], Listed[]> = {
  'magnetic disk': [
    listed('clear', 'overwrite once', ZEROS, once, 'spare sectors stay'),
    listed(
      'purge',
      'enhanced secure erase',
      secure('erase-enhanced'),
      once,
      'not over USB',
      'may be frozen',
      'drive must have it',
    ),
    listed(
      'purge',
      'sanitize by overwriting',
      hdparm('overwrite hex:00000000'),
      once,
      'not over USB',
      'drive must have it',
    ),
  ],
  'SATA flash': [
    overFlash,
    listed(
      'clear',
      'secure erase',
      secure('erase'),
      span(5, 120),
      'not over USB',
      'may be frozen',
      'drive must have it',
    ),
    listed(
      'purge',
      'sanitize by block erase',
      hdparm('block-erase'),
      span(5, 300),
      'not over USB',
      'drive must have it',
    ),
    listed(
      'purge',
      'sanitize by forgetting the key',
      hdparm('crypto-scramble'),
      span(1, 60),
      'not over USB',
      'drive must have it',
    ),
  ],
  'NVMe flash': [
    overFlash,
    listed('clear', 'secure erase', 'nvme format DRIVE --ses=1', span(5, 300)),
    listed(
      'purge',
      'format with the key forgotten',
      'nvme format DRIVE --ses=2',
      span(1, 60),
      'drive must have it',
    ),
    listed(
      'purge',
      'sanitize by block erase',
      'nvme sanitize DRIVE --sanact=2',
      span(5, 600),
      'drive must have it',
    ),
  ],
  'soldered flash': [
    overFlash,
    listed('clear', 'secure erase', 'blkdiscard --secure DRIVE', span(5, 300), 'drive must have it'),
  ],
  'USB stick or card': [
    listed(
      'clear',
      'overwrite twice, second time inverted',
      `${ZEROS}; ${ONES}`,
      { passes: 2 },
      'copies stay',
    ),
  ],
};
const BROKEN: EraseWay = {
  level: 'destroy',
  method: 'break it up',
  command: null,
  seconds: undefined,
  caveats: [],
};

/**
 * Ways to erase a drive, a stick or a card before it is passed on or used again, the least first. Commands are given for
 * what may be lost alone. Source: NIST SP 800-88 Rev. 1, appendix A, from memory; times by what is known of the store.
 */
export function erasePlan(store: Store): ErasePlan {
  const kind = kindOf(store);
  const kept = store.fate !== 'may be lost';
  const find = kept ? null : finding(store.serial);
  const pass = predictTimes(store.bytes, store, []).write.value;
  const ways = WAYS[kind].map(({ text, takes, caveats, ...way }): EraseWay => ({
    ...way,
    command: find && text.replaceAll('DRIVE', '"$drive"'),
    seconds: 'passes' in takes ? span(pass.low * takes.passes, pass.high * takes.passes) : takes,
    caveats: caveats.filter((c) => c !== 'not over USB' || store.transport === 'usb'),
  }));
  return {
    kind,
    find,
    not: kept ? 'not to be lost' : find === null ? 'no serial' : null,
    ways: [...ways, BROKEN],
    source: `NIST SP 800-88 Rev. 1, table ${kind === 'magnetic disk' ? 'A-5' : 'A-8'}`,
  };
}

/** One place that is read back after erasing; bytes. */
export interface Sample {
  offset: number;
  bytes: number;
}

const SECTIONS = 1000;
const PER_SECTION = 2;
const SHARE = 0.05;

/**
 * Places to read back after erasing, drawn by `random` (0 to below 1): of each of 1,000 equal sections two that do not
 * overlap, together 5 % of it. Source: NIST SP 800-88 Rev. 1 §4.7.2, “Representative Sampling”, from memory. Of a store too
 * small for that, all of it.
 */
export function samplesOf(bytes: number, random: () => number, sector = 512): Sample[] {
  const section = Math.floor(bytes / SECTIONS / sector) * sector;
  const each = Math.ceil((section * SHARE) / PER_SECTION / sector) * sector;
  if (section < sector * PER_SECTION * 2) return [{ offset: 0, bytes }];
  const half = Math.floor(section / PER_SECTION / sector) * sector;
  return Array.from({ length: SECTIONS * PER_SECTION }, (_, i) => {
    const from = Math.floor(i / PER_SECTION) * section + (i % PER_SECTION) * half;
    const free = Math.floor((half - each) / sector) + 1;
    return { offset: from + Math.floor(random() * free) * sector, bytes: each };
  });
}
