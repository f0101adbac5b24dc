import type { BootCodePlace, LoaderFault, PlainStartCode, StartReason } from '../model/startReason';
import { formatExact } from '../units/bytes';
import type { StartWhy } from '../starting/forMachine';
import { rungWhyWords } from './chain';
import { imagePlaceWords } from './imagePlace';
import { plural } from './text';

type AboutCode = Exclude<StartReason['code'], PlainStartCode>;
type Words = { [C in AboutCode]: (reason: Extract<StartReason, { code: C }>) => string };

/** What keeps an EFI program from running. */
export function loaderFaultWords(fault: LoaderFault): string {
  switch (fault.code) {
    case 'header damaged':
      return 'its header is damaged or empty';
    case 'cut short':
      return `not all of its ${formatExact(fault.bytes)} are there`;
    case 'section beyond the file':
      return `its section ${fault.section || 'without a name'} ends beyond the file`;
    case 'entry in no section':
      return 'its first instruction lies in no section';
    case 'entry wiped':
      return 'its first instructions are wiped';
    case 'earlier rules':
      return fault.words;
  }
}

const codeWords = (who: BootCodePlace): string =>
  who.of === 'sector 0'
    ? 'the boot code of sector 0'
    : who.of === 'boot image'
      ? 'the no-emulation boot image'
      : `the boot record of ${imagePlaceWords(who.place)}`;

/** So much of what boot code says is repeated. */
const MOST_SAID = 60;
const quoted = (printed: string): string =>
  printed.length > MOST_SAID ? `${printed.slice(0, MOST_SAID)}…` : printed;

const by = (signers: readonly string[]): string => signers.join(' and ') || 'an unreadable signature';

const PLAIN: Record<PlainStartCode, string> = {
  'no end mark': 'no end mark 55 AA in sector 0, so BIOS passes it over',
  'boot code empty': 'the boot code in sector 0 is empty',
  'boot code only complains': 'the boot code only prints that it cannot start',
  'second stage empty': 'the boot code points to a second stage that is empty or cut off',
  'second stage not known': 'the boot code points to bytes that are no second stage we know',
  'second stage cut short': 'the second stage ends after its first sector',
  'boot code and second stage': 'boot code and its second stage',
  'boot code in front of an optical volume': 'boot code for disks in front of the optical volume',
  'optical loader empty': 'the boot code points to an optical loader that is empty or cut off',
  'no part active': 'no part is marked active, which this boot code looks for',
  'several parts active': 'more than one part is marked active',
  'no GPT part marked': 'no part of the GPT is marked for this boot code',
  'several GPT parts marked': 'more than one part of the GPT is marked for this boot code',
  'not optical': 'not an optical image',
  'no boot catalogue': 'the optical volume has no boot catalogue',
  'boot catalogue damaged': 'the boot catalogue is damaged',
  'boot catalogue sum wrong':
    'the words of the boot catalogue’s validation entry do not add up to zero; not every BIOS asks for that',
  'BIOS entry not the default': 'the BIOS entry is not the default one, and BIOS looks at no other',
  'no BIOS entry': 'no BIOS entry in the boot catalogue',
  'boot image empty': 'the boot image is empty or cut off',
  'boot image without emulation': 'no-emulation boot image in the catalogue',
  'no UEFI entry': 'no UEFI entry in the boot catalogue',
  'made for sectors of 4096 bytes':
    'its table is laid out for 4096-byte sectors; sticks have sectors of 512 bytes, where nothing is found',
  'no copy of the table sound': 'neither copy of the partition table can be trusted',
  'no protective record': 'the partition table has no protective record in sector 0, so firmware ignores it',
  'optical volume only': 'an optical volume only; nothing a disk could start',
  'no FAT part': 'no FAT part for the firmware to read',
  'no table and no FAT volume': 'no partition table and no FAT volume',
  'not signed': 'the loader carries no signature',
  'boards read no optical media': 'board loaders do not read optical media',
  'no FAT part first': 'board loaders want a FAT part first',
  'nothing for boards': 'no device tree and no start script on the first FAT part',
};

const WORDS: Words = {
  'earlier rules': (r) => r.words,
  packed: (r) =>
    `packed (${r.kind}): written as it is it starts nothing; unpack it, or let the writer unpack it`,
  'sector 0 of a file system': (r) =>
    `sector 0 belongs to ${r.filesystems.join(', ')}; its bytes do not tell what it loads`,
  'numbered part missing': (r) => `the boot code is to start part ${r.number}, which is not there`,
  'no boot record': (r) => `${imagePlaceWords(r.place)} has no boot record`,
  'boot record empty': (r) => `the boot record of ${imagePlaceWords(r.place)} is empty`,
  'boot record only complains': (r) =>
    `the boot record of ${imagePlaceWords(r.place)} only prints that it cannot start`,
  'stage file missing': (r) =>
    `the boot record of ${imagePlaceWords(r.place)} wants LDLINUX.SYS, which is not there`,
  'stage file damaged': (r) => `LDLINUX.SYS on ${imagePlaceWords(r.place)} is empty or damaged`,
  'stage file elsewhere': (r) =>
    `the boot record of ${imagePlaceWords(r.place)} looks for LDLINUX.SYS where it is not`,
  'boot record and stage file': (r) =>
    `boot record of ${imagePlaceWords(r.place)} and its second stage LDLINUX.SYS`,
  'enters a kernel': (r) => `${codeWords(r.who)} loads a kernel and enters it`,
  'starts its own program': (r) =>
    `${codeWords(r.who)} loads ${r.bytes} bytes that are a program of its own and starts it; what the program does is not followed`,
  'goes on to nothing': (r) => `${codeWords(r.who)} goes on to code at byte ${r.offset}, which is empty`,
  'reads in a circle': (r) => `${codeWords(r.who)} reads the same sectors again and again`,
  'cannot be followed': (r) => `${codeWords(r.who)} holds code that cannot be followed to its end`,
  'looks beyond the image': (r) => `${codeWords(r.who)} looks for its next stage beyond the end of the image`,
  'goes on, untold': (r) => `${codeWords(r.who)} goes on, and what that loads cannot be told`,
  'only prints': (r) => `${codeWords(r.who)} only says “${quoted(r.printed)}” and stops`,
  stops: (r) => `${codeWords(r.who)} stops without loading anything`,
  'no loader behind the UEFI entry': (r) => `no ${r.name} behind the UEFI boot entry`,
  'loader found': (r) => `loader ${r.name} on ${imagePlaceWords(r.place)}`,
  'not a loader': (r) =>
    `${r.name} on ${imagePlaceWords(r.place)} is not a loader${r.fault ? `: ${loaderFaultWords(r.fault)}` : ''}`,
  'loader for another architecture': (r) =>
    `${r.name} on ${imagePlaceWords(r.place)} is built for ${r.machine}, not ${r.wanted}`,
  'loader cannot run': (r) =>
    `${r.name} on ${imagePlaceWords(r.place)} cannot run: ${loaderFaultWords(r.fault)}`,
  'loader by another name': (r) => `no ${r.name}; firmware does not look for ${r.other} by itself`,
  'no loader': (r) => `no ${r.name} on ${r.parts === 1 ? 'the FAT part' : 'any FAT part'}`,
  'nothing to load': (r) => `the loader starts and finds nothing to load: ${rungWhyWords(r.why)}`,
  'chain not told': (r) => `the loader starts; what it loads cannot be told: ${rungWhyWords(r.why)}`,
  'signed, then changed': (r) =>
    `the loader is signed (${by(r.signers)}), but its bytes are not what was signed`,
  'signed and trusted': (r) =>
    `signed by ${by(r.signers)}, which this firmware trusts; a newer revocation list may still refuse this loader`,
  'signed and not trusted': (r) => `signed by ${by(r.signers)}, which is not among this firmware’s keys`,
  'signed, trust not known': (r) =>
    `signed by ${by(r.signers)}; whether the machine trusts that key, and has not revoked this loader, is not in the image`,
  'made for boards': (r) => {
    const trees =
      r.trees > 0
        ? `${plural(r.trees, 'device tree')} (${r.firstTree ?? ''}…)`
        : r.treeFolder
          ? 'a folder of device trees'
          : '';
    const has = [trees, r.script ?? ''].filter((x) => x !== '').join(' and ');
    return `made for boards: ${has} on the first FAT part; which boards its maker must say`;
  },
};

/** A reason of a start as a clause: no capital, no full stop. */
export function startReasonWords(reason: StartReason): string {
  if (reason.code in PLAIN) return PLAIN[reason.code as PlainStartCode];
  const words = WORDS[reason.code as AboutCode] as (r: StartReason) => string;
  return words(reason);
}

/** A reason with the way by which firmware came to it. */
export function startWords({ reason, through }: StartWhy): string {
  const words = startReasonWords(reason);
  if (through === null) return words;
  return through === 'catalogue on a stick'
    ? `${words}, which firmware also finds on a stick`
    : `${through}: ${words}`;
}
