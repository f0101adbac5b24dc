import type { Unknown } from '../rehearsal/varies';
import type { LookCode, Moment, Symptom } from './codes';

/** A world of the rehearsal in which one thing goes otherwise: which, and in which of its ways (null: any). */
export interface Departure {
  unknown: Unknown | 'order of drives';
  way: number | null;
}

/** What may be behind it. Shares are relative within a look; what is not named tells nothing. Common practice, no source. */
export interface Cause {
  at: readonly Moment[];
  /** How often it is met beside the others, before anything is known of the box. */
  weight: number;
  shows: Partial<Record<Symptom, number>>;
  looks: Partial<Record<LookCode, Readonly<Record<string, number>>>>;
  departs?: readonly Departure[];
}

const START: readonly Moment[] = ['starting the stick'];
const INSTALL: readonly Moment[] = ['installing'];
const RESTART: readonly Moment[] = ['at the restart'];
const FIRST: readonly Moment[] = ['first start'];
const USE: readonly Moment[] = ['in use'];
const d = (unknown: Departure['unknown'], way: number | null = null): readonly Departure[] => [
  { unknown, way },
];

/** Causes by their name. */
export const causes = {
  'key missed': {
    at: START,
    weight: 14,
    departs: d('key', 1),
    shows: { 'old system': 8, 'nothing starts': 2 },
    looks: { menu: { 'no menu came': 1 }, 'tap again': { 'the menu comes': 1 } },
  },
  'keyboard wakes too late': {
    at: START,
    weight: 4,
    shows: { 'old system': 8, 'nothing starts': 2 },
    looks: { menu: { 'no menu came': 1 }, 'tap again': { 'still no menu': 1 } },
  },
  'line of another part': {
    at: START,
    weight: 4,
    departs: d('entry'),
    shows: { 'old system': 7, 'nothing starts': 2, 'a prompt': 1 },
    looks: {
      menu: { 'stick there more than once': 1 },
      'take its line': { 'the old system again': 5, 'back in the menu': 3, 'it starts': 2 },
      message: { nothing: 7, 'no device to start': 3 },
    },
  },
  'stick not first': {
    at: START,
    weight: 5,
    departs: d('firmware order'),
    shows: { 'old system': 9, 'nothing starts': 1 },
    looks: { menu: { 'stick there once': 1 }, 'take its line': { 'it starts': 1 }, message: { nothing: 1 } },
  },
  'Secure Boot refuses the stick': {
    at: START,
    weight: 7,
    departs: d('secure boot', 1),
    shows: { refused: 6, 'old system': 3, 'nothing starts': 1 },
    looks: {
      menu: { 'stick there once': 1 },
      'secure boot': { on: 1 },
      message: { 'a signature or a violation': 8, nothing: 2 },
      'take its line': { 'back in the menu': 6, 'the old system again': 4 },
      'another machine': { 'it starts there': 8, 'it does not': 2 },
      'another port': { 'the same': 1 },
      'read it back': { proven: 1 },
    },
  },
  'other boot mode': {
    at: START,
    weight: 5,
    departs: d('mode', 1),
    shows: { 'stick not in the menu': 4, 'nothing starts': 3, 'old system': 3 },
    looks: {
      'the other mode': { 'it starts': 1 },
      menu: { 'stick not there': 6, 'stick there once': 4 },
      message: { 'no device to start': 6, nothing: 4 },
      'take its line': { 'back in the menu': 6, 'the old system again': 4 },
      'another port': { 'the same': 1 },
      'another machine': { 'it starts there': 8, 'it does not': 2 },
      'read it back': { proven: 1 },
      'secure boot': { off: 7, on: 3 },
    },
  },
  'BIOS tries one drive alone': {
    at: START,
    weight: 2,
    departs: d('bios tries', 1),
    shows: { 'nothing starts': 6, 'old system': 4 },
    looks: {
      menu: { 'stick there once': 1 },
      'take its line': { 'it starts': 1 },
      'boot mode': { BIOS: 1 },
      message: { 'no device to start': 1 },
    },
  },
  'port asleep': {
    at: START,
    weight: 5,
    shows: { 'stick not in the menu': 7, 'old system': 2, 'nothing starts': 1 },
    looks: {
      menu: { 'stick not there': 1 },
      'another port': { 'better now': 1 },
      'another machine': { 'it starts there': 1 },
      'read it back': { proven: 1 },
    },
  },
  'stick badly written': {
    at: [...START, ...INSTALL],
    weight: 6,
    shows: {
      'a prompt': 3,
      'nothing starts': 3,
      'stick not in the menu': 2,
      'black screen': 1,
      'stops in the middle': 3,
      'old system': 1,
    },
    looks: {
      menu: { 'stick not there': 4, 'stick there once': 6 },
      'read it back': { 'it differs': 1 },
      'another machine': { 'it does not': 1 },
      'another port': { 'the same': 1 },
      'take its line': { 'back in the menu': 6, 'the old system again': 4 },
      message: { 'a prompt': 4, 'no device to start': 4, nothing: 2 },
      'last line': { 'reading failed': 1 },
    },
  },
  'image for another processor': {
    at: START,
    weight: 2,
    shows: { 'nothing starts': 4, 'black screen': 3, 'stick not in the menu': 2, refused: 1 },
    looks: {
      'built for': { another: 1 },
      menu: { 'stick there once': 7, 'stick not there': 3 },
      'read it back': { proven: 1 },
      'another machine': { 'it starts there': 5, 'it does not': 5 },
      'another port': { 'the same': 1 },
      'basic graphics': { 'no such entry': 1 },
      'take its line': { 'back in the menu': 1 },
      message: { nothing: 6, 'no device to start': 4 },
      'caps lock': { 'it does not': 1 },
    },
  },
  'graphics newer than the release': {
    at: [...START, ...INSTALL, ...FIRST, ...RESTART],
    weight: 5,
    shows: { 'black screen': 8, 'wrong picture': 2 },
    looks: {
      'basic graphics': { 'a picture': 19, 'still black': 1 },
      'caps lock': { 'its light changes': 8, 'it does not': 2 },
      'another cable': { none: 1 },
      'wait and Enter': { nothing: 1 },
      'another machine': { 'it starts there': 1 },
      'picture sheet': { 'too coarse': 1 },
      'read it back': { proven: 1 },
    },
  },
  'machine older than the release': {
    at: [...START, ...RESTART],
    weight: 2,
    shows: { 'black screen': 6, 'a prompt': 2, 'stops in the middle': 2 },
    looks: {
      'basic graphics': { 'still black': 9, 'no such entry': 1 },
      'caps lock': { 'it does not': 1 },
      'another cable': { none: 1 },
      'wait and Enter': { nothing: 1 },
      'another machine': { 'it starts there': 1 },
      'read it back': { proven: 1 },
    },
  },
  'picture on another output': {
    at: [...START, ...INSTALL, ...FIRST, ...RESTART, ...USE],
    weight: 4,
    shows: { 'black screen': 1 },
    looks: {
      'another cable': { 'a picture': 1 },
      'caps lock': { 'its light changes': 1 },
      'basic graphics': { 'still black': 1 },
      'wait and Enter': { nothing: 1 },
      'from its own keyboard': { 'it works': 1 },
    },
  },
  'memory at fault': {
    at: [...INSTALL, ...START, ...FIRST],
    weight: 1.5,
    shows: { 'stops in the middle': 7, 'black screen': 2, 'a prompt': 1 },
    looks: {
      'memory test': { 'it faults': 1 },
      'last line': { 'something else': 8, 'reading failed': 2 },
      'read it back': { proven: 1 },
      'another machine': { 'it starts there': 1 },
      'another port': { 'the same': 1 },
      'caps lock': { 'it does not': 1 },
      'basic graphics': { 'still black': 5, 'a picture': 5 },
      'drive in setup': { listed: 1 },
      'wait and Enter': { nothing: 1 },
      'another cable': { none: 1 },
    },
  },
  'drive not plugged well': {
    at: INSTALL,
    weight: 5,
    shows: { 'no drive in the list': 9, 'stops in the middle': 1 },
    looks: {
      'drive in setup': { 'not listed': 1 },
      'controller mode': { AHCI: 7, 'not to be seen': 3 },
      'last line': { 'writing failed': 1 },
      'another port': { 'the same': 1 },
    },
  },
  'controller hides the drive': {
    at: INSTALL,
    weight: 4,
    shows: { 'no drive in the list': 1 },
    looks: { 'drive in setup': { listed: 1 }, 'controller mode': { RAID: 1 } },
  },
  'driver of the drive is missing': {
    at: INSTALL,
    weight: 2,
    shows: { 'no drive in the list': 1 },
    looks: { 'drive in setup': { listed: 1 }, 'controller mode': { AHCI: 6, 'not to be seen': 4 } },
  },
  'drives answer in another order': {
    at: INSTALL,
    weight: 5,
    departs: d('order of drives'),
    shows: { 'another drive is taken': 1 },
    looks: {
      'how it was chosen': { 'nobody was asked': 8, 'its line was read': 2 },
      'order of the list': { 'others before it': 1 },
    },
  },
  'list not read': {
    at: INSTALL,
    weight: 4,
    departs: d('read', 1),
    shows: { 'another drive is taken': 1 },
    looks: {
      'how it was chosen': { 'yes at once': 1 },
      'order of the list': { 'it stands first': 6, 'others before it': 4 },
    },
  },
  'look-alike taken': {
    at: INSTALL,
    weight: 3,
    departs: d('pick'),
    shows: { 'another drive is taken': 1 },
    looks: {
      'how it was chosen': { 'its line was read': 1 },
      'order of the list': { 'it looks like another': 1 },
    },
  },
  'drive at fault': {
    at: INSTALL,
    weight: 3,
    shows: { 'stops in the middle': 8, 'no drive in the list': 2 },
    looks: {
      'last line': { 'writing failed': 1 },
      'drive in setup': { listed: 8, 'not listed': 2 },
      'read it back': { proven: 1 },
      'another port': { 'the same': 1 },
      'caps lock': { 'its light changes': 8, 'it does not': 2 },
    },
  },
  'drive too small': {
    at: INSTALL,
    weight: 2,
    shows: { 'stops in the middle': 1 },
    looks: {
      'last line': { 'no room': 1 },
      'drive in setup': { listed: 1 },
      'read it back': { proven: 1 },
      'caps lock': { 'its light changes': 1 },
    },
  },
  'power failed': {
    at: [...INSTALL, ...RESTART],
    weight: 1.5,
    departs: d('power'),
    shows: { 'stops in the middle': 6, 'nothing starts': 2, 'installer again': 2, 'old system': 1 },
    looks: {
      'where it was installed': { 'not to the end': 1 },
      'last line': { 'something else': 1 },
      'stick still in': { yes: 1 },
    },
  },
  'stick left in': {
    at: RESTART,
    weight: 12,
    departs: d('stick', 1),
    shows: { 'installer again': 1 },
    looks: {
      'stick still in': { yes: 1 },
      'first in the order': { 'the stick': 6, 'the new drive': 3, 'another drive': 1 },
      'where it was installed': { 'on the drive meant': 1 },
    },
  },
  'stick first in the order': {
    at: RESTART,
    weight: 4,
    departs: d('set back', 1),
    shows: { 'installer again': 8, 'nothing starts': 2 },
    looks: {
      'stick still in': { no: 5, yes: 5 },
      'first in the order': { 'the stick': 1 },
      'where it was installed': { 'on the drive meant': 1 },
    },
  },
  'stick out too early': {
    at: RESTART,
    weight: 4,
    departs: d('stick', 2),
    shows: { 'stops in the middle': 6, 'a prompt': 2, 'nothing starts': 2 },
    looks: {
      'where it was installed': { 'not to the end': 1 },
      'stick still in': { no: 1 },
      'last line': { 'reading failed': 1 },
    },
  },
  'order forgot the new drive': {
    at: [...RESTART, ...USE],
    weight: 3,
    departs: d('forgets', 1),
    shows: { 'old system': 8, 'nothing starts': 2 },
    looks: {
      'first in the order': { 'another drive': 9, 'no drive': 1 },
      'where it was installed': { 'on the drive meant': 1 },
      'drive in setup': { listed: 1 },
      'secure boot': { off: 6, on: 4 },
      message: { nothing: 1 },
      'stick still in': { no: 1 },
    },
  },
  'loader on another drive': {
    at: RESTART,
    weight: 3,
    departs: d('loader'),
    shows: { 'old system': 5, 'nothing starts': 5 },
    looks: {
      'where it was installed': { 'its start on another drive': 1 },
      'first in the order': { 'the new drive': 6, 'another drive': 4 },
      'drive in setup': { listed: 1 },
      message: { 'no device to start': 5, nothing: 5 },
    },
  },
  'key not enrolled': {
    at: RESTART,
    weight: 3,
    departs: d('enrol', 1),
    shows: { refused: 7, 'old system': 2, 'nothing starts': 1 },
    looks: {
      'secure boot': { on: 1 },
      message: { 'a signature or a violation': 9, nothing: 1 },
      'where it was installed': { 'on the drive meant': 1 },
      'first in the order': { 'the new drive': 1 },
    },
  },
  'installed in the other mode': {
    at: RESTART,
    weight: 4,
    departs: d('mode', 1),
    shows: { 'nothing starts': 7, 'old system': 3 },
    looks: {
      'mode of the installation': { 'the other': 1 },
      'boot mode': { BIOS: 5, both: 5 },
      'where it was installed': { 'on the drive meant': 1 },
      'first in the order': { 'the new drive': 4, 'no drive': 4, 'another drive': 2 },
      message: { 'no device to start': 1 },
      'secure boot': { off: 1 },
      'drive in setup': { listed: 1 },
    },
  },
  'firmware cannot start that drive': {
    at: RESTART,
    weight: 2,
    shows: { 'nothing starts': 8, 'old system': 2 },
    looks: {
      'drive in setup': { 'not listed': 1 },
      'first in the order': { 'no drive': 6, 'another drive': 4 },
      'where it was installed': { 'on the drive meant': 1 },
      message: { 'no device to start': 1 },
    },
  },
  'start mark missing': {
    at: RESTART,
    weight: 2,
    shows: { 'nothing starts': 5, 'a prompt': 5 },
    looks: {
      'mode of the installation': { 'as setup has it': 1 },
      'boot mode': { BIOS: 9, both: 1 },
      'where it was installed': { 'on the drive meant': 1 },
      'first in the order': { 'the new drive': 1 },
      message: { 'a prompt': 5, 'no device to start': 5 },
      'drive in setup': { listed: 1 },
      'secure boot': { off: 1 },
    },
  },
  'first start takes its time': {
    at: [...FIRST, ...RESTART],
    weight: 8,
    shows: { 'black screen': 9, 'stops in the middle': 1 },
    looks: {
      'wait and Enter': { 'it goes on': 1 },
      'caps lock': { 'its light changes': 8, 'it does not': 2 },
      'another cable': { none: 1 },
      'basic graphics': { 'a picture': 6, 'still black': 4 },
    },
  },
  'panel stands upright': {
    at: FIRST,
    weight: 3,
    shows: { 'wrong picture': 1 },
    looks: { 'picture sheet': { 'lies on its side': 1 } },
  },
  overscan: {
    at: FIRST,
    weight: 3,
    shows: { 'wrong picture': 1 },
    looks: { 'picture sheet': { 'edges cut off': 1 } },
  },
  'sound goes to another output': {
    at: FIRST,
    weight: 6,
    shows: { 'no sound': 1 },
    looks: { 'output by its name': { sound: 1 } },
  },
  'sound driver is missing': {
    at: FIRST,
    weight: 3,
    shows: { 'no sound': 1 },
    looks: { 'output by its name': { silence: 1 } },
  },
  'pad not paired': {
    at: FIRST,
    weight: 4,
    shows: { 'pad does nothing': 1 },
    looks: { 'light of the pad': { blinking: 8, dark: 2 } },
  },
  'pad with the wrong driver': {
    at: FIRST,
    weight: 4,
    shows: { 'pad does nothing': 1 },
    looks: { 'light of the pad': { steady: 1 } },
  },
  'another keyboard layout': {
    at: [...FIRST, ...USE],
    weight: 6,
    shows: { 'password refused': 1 },
    looks: { 'typed where it can be seen': { 'other letters': 1 } },
  },
  'capitals are locked': {
    at: [...FIRST, ...USE],
    weight: 3,
    shows: { 'password refused': 1 },
    looks: { 'typed where it can be seen': { 'all capitals': 1 } },
  },
  'another password': {
    at: [...FIRST, ...USE],
    weight: 3,
    shows: { 'password refused': 1 },
    looks: { 'typed where it can be seen': { 'as meant': 1 } },
  },
  'wire or socket': {
    at: [...INSTALL, ...FIRST, ...USE],
    weight: 5,
    shows: { 'no network': 6, 'does not answer': 4 },
    looks: {
      'light at the socket': { off: 1 },
      'its own address': { none: 1 },
      'by number and by name': { neither: 1 },
      'who answers there': { nobody: 1 },
      'from its own keyboard': { 'it works': 1 },
    },
  },
  'network driver is missing': {
    at: [...INSTALL, ...FIRST],
    weight: 4,
    shows: { 'no network': 1 },
    looks: {
      'card listed': { 'not listed': 1 },
      'light at the socket': { on: 6, off: 4 },
      'its own address': { none: 1 },
      'by number and by name': { neither: 1 },
    },
  },
  'nobody gives it an address': {
    at: [...INSTALL, ...FIRST, ...USE],
    weight: 3,
    shows: { 'no network': 7, 'does not answer': 3 },
    looks: {
      'light at the socket': { on: 1 },
      'its own address': { none: 7, another: 3 },
      'by number and by name': { neither: 1 },
      'who answers there': { nobody: 1 },
      'from its own keyboard': { 'it works': 1 },
    },
  },
  'names are not found': {
    at: [...FIRST, ...USE],
    weight: 3,
    shows: { 'no network': 7, 'page does not open': 3 },
    looks: {
      'light at the socket': { on: 1 },
      'its own address': { 'the planned one': 7, another: 3 },
      'by number and by name': { 'by number alone': 1 },
      'who answers there': { 'it does': 1 },
    },
  },
  'it has another address': {
    at: USE,
    weight: 8,
    shows: { 'does not answer': 8, 'page does not open': 2 },
    looks: {
      'who answers there': { nobody: 1 },
      'its own address': { another: 1 },
      'light at the socket': { on: 1 },
      'by number and by name': { both: 1 },
      'from its own keyboard': { 'it works': 1 },
    },
  },
  'another machine has its address': {
    at: USE,
    weight: 4,
    shows: { 'does not answer': 4, 'page does not open': 6 },
    looks: {
      'who answers there': { 'another machine': 1 },
      'its own address': { 'the planned one': 8, none: 2 },
      'light at the socket': { on: 1 },
    },
  },
  'it is off': {
    at: USE,
    weight: 4,
    shows: { 'does not answer': 1 },
    looks: {
      'from its own keyboard': { 'it is off': 1 },
      'light at the socket': { off: 8, on: 2 },
      'who answers there': { nobody: 1 },
      'its own address': { none: 1 },
    },
  },
  'it halts at power-on': {
    at: USE,
    weight: 3,
    shows: { 'does not answer': 8, 'black screen': 2 },
    looks: {
      'from its own keyboard': { 'it shows something else': 1 },
      'light at the socket': { on: 1 },
      'who answers there': { nobody: 1 },
      'its own address': { none: 1 },
    },
  },
  'rules lock you out': {
    at: USE,
    weight: 3,
    shows: { 'does not answer': 5, 'page does not open': 5 },
    looks: {
      'who answers there': { 'it does': 5, nobody: 5 },
      'its own address': { 'the planned one': 1 },
      'light at the socket': { on: 1 },
      'https and port': { 'the same': 1 },
      'from its own keyboard': { 'it works': 1 },
      'by number and by name': { both: 1 },
    },
  },
  'other port or scheme': {
    at: USE,
    weight: 5,
    shows: { 'page does not open': 1 },
    looks: {
      'https and port': { 'opens now': 1 },
      'who answers there': { 'it does': 1 },
      'its own address': { 'the planned one': 1 },
      'by number and by name': { both: 1 },
    },
  },
} as const satisfies Record<string, Cause>;
/** What may be behind it. */
export type CauseCode = keyof typeof causes;
/** All causes. */
export const causeCodes = Object.keys(causes) as CauseCode[];
/** A cause by its name. */
export const causeOf = (code: CauseCode): Cause => causes[code];
