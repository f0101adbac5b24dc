import type { SettingKind, SettingPlace } from '../model/tune';

/** What is known of a kind of setting. All of it common practice, no source. */
export interface SettingDefinition {
  title: string;
  place: SettingPlace;
  /** Values people go between, as they say them; empty where each machine has its own. */
  steps: readonly string[];
  /** How it is taken back. */
  back: string;
  /** What can hurt; empty where nothing does. */
  caution: string;
  /** It is done once and cannot be taken back and forth, so the order of runs cannot be mixed. */
  once: boolean;
}

export const settingDefinitions: Readonly<Record<SettingKind, SettingDefinition>> = {
  'power limit': {
    title: 'Power limit',
    place: 'firmware',
    steps: ['10 W', '15 W', '25 W', '30 W', '40 W', '45 W', '54 W'],
    back: 'Set the limit it came with, or load the firmware’s defaults.',
    caution: '',
    once: false,
  },
  boost: {
    title: 'Boost',
    place: 'firmware',
    steps: ['on', 'off'],
    back: 'Switch it on again where it was switched off.',
    caution: '',
    once: false,
  },
  resolution: {
    title: 'Resolution',
    place: 'program',
    steps: ['1080 lines', '720 lines'],
    back: 'Choose the panel’s own lines again.',
    caution: '',
    once: false,
  },
  'frame cap': {
    title: 'Frame cap',
    place: 'program',
    steps: ['none', '60 frames/s', '40 frames/s', '30 frames/s'],
    back: 'Take the cap off.',
    caution: '',
    once: false,
  },
  'graphics memory': {
    title: 'Graphics memory',
    place: 'firmware',
    steps: ['automatic', '1 GiB', '4 GiB'],
    back: 'Set it to automatic.',
    caution: 'Memory that graphics hold is missing elsewhere.',
    once: false,
  },
  'fan curve': {
    title: 'Fan curve',
    place: 'firmware',
    steps: ['as it came', 'quiet', 'cool'],
    back: 'Choose the curve it came with.',
    caution: 'A fan that starts late lets the parts around it cook: look at the drive and the battery too.',
    once: false,
  },
  governor: {
    title: 'Governor',
    place: 'system',
    steps: ['performance', 'schedutil', 'powersave'],
    back: 'Write the name it had before into scaling_governor, or restart.',
    caution: '',
    once: false,
  },
  'paste and pads': {
    title: 'Paste and pads',
    place: 'machine',
    steps: ['as it came', 'fresh'],
    back: 'It cannot be taken back.',
    caution: 'Power off, unplugged, battery disconnected; pads must be as thick as those that came out.',
    once: true,
  },
  undervolting: {
    title: 'Undervolting',
    place: 'firmware',
    steps: ['0 mV', '−30 mV', '−60 mV'],
    back: 'Set 0 mV; where it does not start any more, clear the settings as the board’s manual says.',
    caution:
      'Too little voltage shows as wrong results and sudden restarts days later: test for hours, and never on a machine that keeps the only copy of anything.',
    once: false,
  },
  'refresh rate': {
    title: 'Refresh rate',
    place: 'system',
    steps: ['60 Hz', '50 Hz', '40 Hz'],
    back: 'Choose the panel’s own rate; most systems go back by themselves after 15 seconds without an answer.',
    caution: 'A rate the panel cannot show leaves it black.',
    once: false,
  },
  'variable refresh': {
    title: 'Variable refresh',
    place: 'system',
    steps: ['off', 'on'],
    back: 'Switch it off.',
    caution: '',
    once: false,
  },
  other: {
    title: 'Another setting',
    place: 'system',
    steps: [],
    back: '',
    caution: '',
    once: false,
  },
};
