/** When it happens, by what is being done. */
export const moments = [
  'starting the stick',
  'installing',
  'at the restart',
  'first start',
  'in use',
] as const;
/** When it happens. */
export type Moment = (typeof moments)[number];

/** What is seen, as a person would say it. Common practice, no source. */
export const symptoms = [
  'old system',
  'nothing starts',
  'black screen',
  'refused',
  'stick not in the menu',
  'installer again',
  'a prompt',
  'no drive in the list',
  'another drive is taken',
  'stops in the middle',
  'no network',
  'wrong picture',
  'no sound',
  'pad does nothing',
  'password refused',
  'does not answer',
  'page does not open',
] as const;
/** What is seen. */
export type Symptom = (typeof symptoms)[number];

/** What can be seen at each moment. */
export const seenAt: Readonly<Record<Moment, readonly Symptom[]>> = {
  'starting the stick': [
    'old system',
    'nothing starts',
    'black screen',
    'refused',
    'stick not in the menu',
    'a prompt',
    'stops in the middle',
  ],
  installing: [
    'black screen',
    'no drive in the list',
    'another drive is taken',
    'stops in the middle',
    'no network',
    'wrong picture',
    'a prompt',
  ],
  'at the restart': [
    'old system',
    'nothing starts',
    'black screen',
    'refused',
    'installer again',
    'a prompt',
    'stops in the middle',
  ],
  'first start': [
    'black screen',
    'stops in the middle',
    'a prompt',
    'no network',
    'wrong picture',
    'no sound',
    'pad does nothing',
    'password refused',
  ],
  'in use': [
    'does not answer',
    'page does not open',
    'password refused',
    'no network',
    'black screen',
    'old system',
    'nothing starts',
  ],
};

/** One look: what is looked at, the answers it can have, and the minutes it takes (common practice, no source). */
export interface Look {
  answers: readonly string[];
  minutes: number;
  moments: readonly Moment[];
  /** What is found where the cause has nothing to do with it; null where that says nothing. */
  usual: string | null;
}

const STARTS: readonly Moment[] = ['starting the stick', 'at the restart'];
const look = (
  minutes: number,
  at: readonly Moment[],
  answers: readonly string[],
  usual: string | null = null,
): Look => ({ answers, minutes, moments: at, usual });

/** Looks by what is looked at. */
export const looks = {
  menu: look(
    1,
    ['starting the stick'],
    ['no menu came', 'stick not there', 'stick there once', 'stick there more than once'],
    'stick there once',
  ),
  'tap again': look(1, ['starting the stick'], ['the menu comes', 'still no menu'], 'the menu comes'),
  'take its line': look(1, ['starting the stick'], ['it starts', 'the old system again', 'back in the menu']),
  'the other mode': look(3, ['starting the stick'], ['it starts', 'the same'], 'the same'),
  'another port': look(1, ['starting the stick', 'installing'], ['better now', 'the same'], 'the same'),
  'another machine': look(
    3,
    ['starting the stick', 'installing'],
    ['it starts there', 'it does not'],
    'it starts there',
  ),
  'built for': look(1, ['starting the stick'], ['this machine', 'another'], 'this machine'),
  message: look(
    1,
    STARTS,
    ['a signature or a violation', 'no device to start', 'a prompt', 'nothing'],
    'nothing',
  ),
  'secure boot': look(1, STARTS, ['on', 'off']),
  'boot mode': look(1, STARTS, ['UEFI', 'BIOS', 'both']),
  'first in the order': look(
    1,
    ['at the restart', 'in use'],
    ['the stick', 'the new drive', 'another drive', 'no drive'],
  ),
  'stick still in': look(0.2, ['at the restart', 'in use'], ['yes', 'no'], 'no'),
  'read it back': look(5, ['starting the stick', 'installing'], ['proven', 'it differs'], 'proven'),
  'another cable': look(1, moments, ['a picture', 'none'], 'none'),
  'caps lock': look(
    0.2,
    ['starting the stick', 'installing', 'at the restart', 'first start'],
    ['its light changes', 'it does not'],
    'its light changes',
  ),
  'basic graphics': look(
    3,
    ['starting the stick', 'installing', 'first start', 'at the restart'],
    ['a picture', 'still black', 'no such entry'],
  ),
  'memory test': look(
    30,
    ['starting the stick', 'installing', 'first start'],
    ['passes', 'it faults'],
    'passes',
  ),
  'wait and Enter': look(5, ['first start', 'at the restart'], ['it goes on', 'nothing'], 'nothing'),
  'drive in setup': look(2, ['installing', 'at the restart', 'in use'], ['listed', 'not listed'], 'listed'),
  'controller mode': look(2, ['installing'], ['AHCI', 'RAID', 'not to be seen']),
  'order of the list': look(
    1,
    ['installing'],
    ['others before it', 'it stands first', 'it looks like another'],
  ),
  'how it was chosen': look(
    0.2,
    ['installing'],
    ['its line was read', 'yes at once', 'nobody was asked'],
    'its line was read',
  ),
  'last line': look(
    1,
    ['installing', 'first start', 'at the restart'],
    ['reading failed', 'writing failed', 'no room', 'something else'],
    'something else',
  ),
  'where it was installed': look(
    2,
    ['at the restart'],
    ['on the drive meant', 'its start on another drive', 'not to the end'],
    'on the drive meant',
  ),
  'mode of the installation': look(
    2,
    ['at the restart'],
    ['as setup has it', 'the other'],
    'as setup has it',
  ),
  'light at the socket': look(0.2, ['installing', 'first start', 'in use'], ['on', 'off'], 'on'),
  'card listed': look(1, ['installing', 'first start'], ['listed', 'not listed'], 'listed'),
  'its own address': look(
    1,
    ['installing', 'first start', 'in use'],
    ['the planned one', 'another', 'none'],
    'the planned one',
  ),
  'who answers there': look(1, ['in use'], ['it does', 'another machine', 'nobody'], 'it does'),
  'by number and by name': look(1, ['first start', 'in use'], ['both', 'by number alone', 'neither'], 'both'),
  'typed where it can be seen': look(
    0.5,
    ['first start', 'in use'],
    ['as meant', 'other letters', 'all capitals'],
    'as meant',
  ),
  'output by its name': look(1, ['first start'], ['sound', 'silence']),
  'light of the pad': look(0.5, ['first start'], ['steady', 'blinking', 'dark']),
  'picture sheet': look(
    1,
    ['first start', 'installing'],
    ['lies on its side', 'edges cut off', 'too coarse', 'as it should'],
    'as it should',
  ),
  'https and port': look(1, ['in use'], ['opens now', 'the same'], 'the same'),
  'from its own keyboard': look(
    2,
    ['in use'],
    ['it works', 'it is off', 'it shows something else'],
    'it works',
  ),
} as const satisfies Record<string, Look>;
/** What is looked at. */
export type LookCode = keyof typeof looks;
/** All looks. */
export const lookCodes = Object.keys(looks) as LookCode[];

/** What came out of a look; null: it could not be told. */
export interface Answered {
  look: LookCode;
  answer: string | null;
}
