import type { FitReason, RuleName } from '../../system/reason';
import { factDefinition } from '../../model/facts';
import { formatBoth, formatIec, GIB } from '../../units/bytes';
import { list, plural } from '../text';

/** A reason as a sentence, and as the few words a crossing of the match sheet has room for. */
export interface ReasonWords {
  because: string;
  short: string;
}

type Asked = Exclude<FitReason, { code: 'nothing asked' }>;
type Words = { [C in Asked['code']]: (reason: Extract<Asked, { code: C }>) => ReasonWords };

const say = (short: string, because: string): ReasonWords => ({ short, because });
const either = (names: readonly string[]): string => names.join(' or ');

const STARTS_BY: Record<string, string> = {
  uefi: 'Starts in UEFI mode, as this machine does.',
  bios: 'Starts in BIOS mode, as this machine does.',
  board: 'Starts by a board’s own loader, as this machine does.',
};

const NOTHING_ASKED: Partial<Record<RuleName, string>> = {
  'cpu level': 'No CPU level beyond the first is asked for.',
  virtualisation: 'No virtual machines are asked for.',
  cores: 'One core is enough.',
  'release window': 'The release names no oldest or newest hardware.',
  graphics: 'No graphics are needed.',
  'data drives': 'No data drive is asked for.',
  network: 'No wired port is asked for.',
  noise: 'Where it stands, nobody minds the noise.',
  watts: 'No limit on what it draws.',
  place: 'There is a network wire where it stands.',
  features: 'Nothing more is wanted of it.',
};

const memoryWords = (r: { need: number; have: number }): string =>
  `Needs ${formatIec(r.need)} of memory, has ${formatIec(r.have)}.`;
const memoryShort = (r: { need: number; have: number }): string =>
  `${formatIec(r.have)} of ${formatIec(r.need)}`;
const bootWords = (need: number, why: string): ReasonWords =>
  say('needs a boot drive', `Needs a boot drive of ${formatBoth(need)}. ${why}`);

const WORDS: Words = {
  'fact not known': ({ fact }) =>
    say(`${factDefinition(fact).label}?`, `${factDefinition(fact).label} is not known.`),
  'CPU has 32 bits': ({ wants }) => say('32-bit CPU', `Built for ${either(wants)}; the CPU is 32-bit.`),
  'architecture fits': ({ arch, wants }) => say(arch, `Built for ${either(wants)}, and the CPU is ${arch}.`),
  'runs 32-bit builds': () => say('runs 32-bit builds', 'The CPU also runs 32-bit builds.'),
  'other architecture': ({ arch, wants, narrow }) =>
    say(
      narrow ? '32-bit CPU' : `${either(wants)} image only`,
      `Built for ${either(wants)}; the CPU is ${arch}.`,
    ),
  'CPU level reached': ({ need, have }) =>
    say(`level ${have}`, `Needs x86-64-${need}; the CPU reaches ${have}.`),
  'CPU level not reached': ({ need, have }) =>
    say(
      `CPU level ${have}, needs ${need}`,
      `Needs x86-64-${need}; the CPU only reaches ${have}. It would stop at a black screen.`,
    ),
  'cores counted': ({ need, have, enough }) =>
    say(enough ? `${have} cores` : `${have} of ${need} cores`, `Needs ${need} cores, has ${have}.`),
  'level dates the CPU': ({ version, oldest, since }) =>
    say(
      `from ${since} or later`,
      `Release ${version} knows hardware from ${oldest} on; a CPU of this level is from ${since} or later.`,
    ),
  'older than the release knows': ({ version, oldest, year }) =>
    say(
      `from ${year}, too old for ${version}`,
      `Release ${version} is known to run on hardware from ${oldest} on; this is from ${year}.`,
    ),
  'newer than the release knows': ({ version, newest, year }) =>
    say(
      `from ${year}, too new for ${version}`,
      `Release ${version} knows hardware up to ${newest}; this is from ${year}, and its kernel may be older than the graphics.`,
    ),
  'within the release window': ({ version, oldest, newest, year }) =>
    say(`from ${year}`, `From ${year}, within ${windowWords(oldest, newest)} of release ${version}.`),
  'no graphics': () => say('no graphics', 'Needs graphics with a driver; the machine has none.'),
  'management graphics': ({ driver }) =>
    say(
      'management graphics',
      `Its graphics (${driver}) belong to the management chip: enough for a setup screen, nothing for games or film.`,
    ),
  'driver carried': ({ family, variant }) =>
    say(
      `${family} driver`,
      `The graphics run on an ${family} driver, which the variant “${variant}” carries.`,
    ),
  'driver not carried': ({ family, variant, carries }) =>
    say(
      family === 'out-of-tree' ? 'closed driver' : 'open driver',
      `The variant “${variant}” carries ${carries.join(' and ')} drivers only; the machine’s graphics need one of the ${family} kind.`,
    ),
  'starts in both modes': () => say('BIOS or UEFI', 'Starts in BIOS and in UEFI mode.'),
  'starts in its mode': ({ mode }) => say(mode, STARTS_BY[mode] ?? ''),
  'starts by a board’s loader': ({ wants }) =>
    say(
      'board’s own loader',
      `Needs ${either(wants.map((w) => w.toUpperCase()))}; this machine starts by a board’s own loader.`,
    ),
  'made for boards alone': () =>
    say('for boards only', 'Starts by a board’s own loader only, which this machine has not.'),
  'UEFI wanted, BIOS seen': () =>
    say(
      'has it UEFI?',
      'Needs UEFI; the machine runs in BIOS mode now. Its setup screen tells whether it can do both.',
    ),
  'BIOS mode wanted': () => say('switch to BIOS mode', 'Needs BIOS mode; the machine is set to UEFI.'),
  'compatibility mode not known': () =>
    say(
      'has it a BIOS mode?',
      'Needs BIOS mode; the machine runs in UEFI mode. Many have no compatibility mode: its setup screen tells.',
    ),
  'offers no BIOS mode': () =>
    say('UEFI only', 'Needs BIOS mode, and this machine’s setup offers UEFI alone.'),
  'offers no UEFI': () => say('BIOS only', 'Needs UEFI, and this machine’s setup offers BIOS mode alone.'),
  'UEFI has 32 bits': ({ system }) =>
    say(
      '32-bit UEFI',
      `The CPU has 64 bits, its UEFI 32: it starts only an image with a 32-bit loader as well, and ${system} names none. The image room tells from the bytes.`,
    ),
  'loader signed': () => say('', 'Its loader is signed, so Secure Boot may stay on.'),
  'no Secure Boot there': () => say('', 'Secure Boot is UEFI’s own; here there is none.'),
  'Secure Boot off': () => say('', 'Secure Boot does not stand in the way.'),
  'own key enrolled': () =>
    say(
      'enrol its key',
      'Secure Boot may stay on: enrol the system’s own key at the first restart, before its blue screen times out.',
    ),
  'Secure Boot refuses': ({ known }) =>
    say(
      'Secure Boot off first',
      known
        ? 'Secure Boot is on and the loader is not signed.'
        : 'The loader is not signed, and the state of Secure Boot is not known.',
    ),
  'runs guests': () => say('runs guests', 'The CPU runs virtual machines in hardware.'),
  'runs no guests': () =>
    say('no virtualisation', 'The CPU does not offer virtualisation in hardware, or it is off in setup.'),
  'memory enough': (r) =>
    say(
      formatIec(r.have),
      r.have >= r.need
        ? memoryWords(r)
        : `${memoryWords(r)} ${r.installed === null ? 'That is what a machine with the full amount shows' : `${formatIec(r.installed)} are installed`}: firmware and graphics keep a little for themselves.`,
    ),
  'graphics take memory': (r) =>
    say(
      'memory for graphics',
      `${memoryWords(r)} ${formatIec(r.installed)} are installed; the graphics keep a share that setup gives back when it is set to automatic.`,
    ),
  'memory soldered': (r) => say(memoryShort(r), `${memoryWords(r)} It is soldered.`),
  'memory at its most': (r) =>
    say(memoryShort(r), `${memoryWords(r)} It takes ${formatIec(r.most)} at most.`),
  'memory slot not known': (r) =>
    say('a free memory slot?', `${memoryWords(r)} Whether a slot is free is not known.`),
  'larger modules not known': (r) =>
    say(
      'larger modules?',
      `${memoryWords(r)} No slot is free; whether it takes larger modules is not known.`,
    ),
  'memory short': (r) =>
    say(`+${Math.max(1, Math.ceil((r.need - r.have) / GIB))} GiB memory`, memoryWords(r)),
  'boots from': ({ need, drive, bytes }) =>
    say(
      `boots from ${formatIec(bytes)}`,
      `Needs a boot drive of ${formatBoth(need)}; “${drive}” has ${formatBoth(bytes)}.`,
    ),
  'NVMe not started': ({ need, drive }) =>
    bootWords(need, `“${drive}” is large enough, but firmware in BIOS mode does not start from NVMe.`),
  'card start not known': ({ need, drive }) =>
    say(
      'starts from a card?',
      `Needs a boot drive of ${formatBoth(need)}; the card “${drive}” is large enough. Whether this machine starts from its reader is not known.`,
    ),
  'large drive kept': ({ need }) => bootWords(need, 'The only drive large enough holds what must be kept.'),
  'no drive known': ({ need }) => bootWords(need, 'No drive is known in the machine.'),
  'free drives too small': ({ need, largest }) =>
    bootWords(need, `Its largest free drive is ${formatIec(largest)}.`),
  'ports enough': ({ ports, data, need, usable, lost }) =>
    say(
      `boot + ${need} data`,
      `${plural(data + 1, 'free drive')} in ${plural(ports, 'port')}: one to boot, ${need} for data.${need < 2 ? '' : ` A mirror of them keeps ${formatIec(usable)}${lost > 0 ? `; they are not equal, and ${formatIec(lost)} of the larger stay unused` : ''}.`}`,
    ),
  'ports short': ({ wants, need, ports, slots }) => {
    const words = `Needs ${plural(wants, 'port')} (${wants > need ? 'one boot, ' : ''}${need} data); it has ${plural(ports, 'drive port')}.`;
    if (slots === 'not known')
      return say('a free card slot?', `${words} A card adds ports where a slot is free.`);
    return say(slots === 'none' ? plural(ports, 'drive port') : plural(wants - ports, 'more port'), words);
  },
  'data drives short': ({ need, there, lacking }) =>
    say(
      plural(lacking, 'more drive'),
      `Needs ${plural(need, 'data drive')} besides the boot drive; ${plural(there, 'free drive is', 'free drives are')} in it for that.`,
    ),
  'no room for drives': ({ lacking, bays, leads }) =>
    say(
      bays !== null && bays < lacking ? 'no bay free' : 'no power lead free',
      `${plural(lacking, 'data drive')} would have to go in: ${[
        bays === null ? '' : plural(bays, 'bay'),
        leads === null ? '' : plural(leads, 'SATA power lead'),
      ]
        .filter(Boolean)
        .join(' and ')} free.`,
    ),
  'wired ports counted': ({ need, have, enough }) =>
    say(
      enough ? `${have} wired` : have === 0 ? 'no network port' : plural(have, 'network port'),
      `Needs ${plural(need, 'wired port')}, has ${have === 0 ? 'none' : have}.`,
    ),
  noise: ({ most, is, enough }) =>
    say(enough ? is : `${is}, not ${most}`, `Where it stands it may be ${most} at most; it is ${is}.`),
  watts: ({ most, is }) => say(`${is} W idle`, `May draw ${most} W when idle; it draws ${is} W.`),
  'no wire there': ({ system }) =>
    say('no wire there', `${system} serves over a wire, and none leads to where it is to stand.`),
  'wireless instead': () => say('wireless', 'No wire leads there; it has wireless.'),
  'no wireless either': () => say('no wireless', 'No wire leads there, and it has no wireless.'),
  'needs not said': ({ count }) =>
    say(
      'needs not said',
      `${plural(count, 'need')} of this system ${count === 1 ? 'is a guess' : 'are guesses'}: nothing in its image tells them. Say them in its profile.`,
    ),
  'needs said': () => say('needs said', 'What the system needs is said.'),
  'feature missing': ({ feature }) => say(`no ${feature}`, `Wanted: ${feature}. The machine has none.`),
  'features there': ({ features }) => say(list(features), `Has what is wanted: ${list(features)}.`),
};

/** A release's span of years: open ends are said as such. */
export const windowWords = (oldest: number | null, newest: number | null): string =>
  `${oldest ?? '…'} to ${newest ?? 'now'}`;

/** Says a reason; `rule` names what nothing is asked of. */
export function reasonWords(rule: RuleName, reason: FitReason): ReasonWords {
  if (reason.code === 'nothing asked') return { short: '', because: NOTHING_ASKED[rule] ?? '' };
  const words = WORDS[reason.code] as (r: Asked) => ReasonWords;
  return words(reason);
}
