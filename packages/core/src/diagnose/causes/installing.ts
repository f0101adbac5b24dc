import { INSTALL, RESTART, departs, type Cause } from './cause';

/** Of the drives, while the installer is at work. */
export const causesOfInstalling = {
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
    departs: departs('order of drives'),
    shows: { 'another drive is taken': 1 },
    looks: {
      'how it was chosen': { 'nobody was asked': 8, 'its line was read': 2 },
      'order of the list': { 'others before it': 1 },
    },
  },
  'list not read': {
    at: INSTALL,
    weight: 4,
    departs: departs('read', 1),
    shows: { 'another drive is taken': 1 },
    looks: {
      'how it was chosen': { 'yes at once': 1 },
      'order of the list': { 'it stands first': 6, 'others before it': 4 },
    },
  },
  'look-alike taken': {
    at: INSTALL,
    weight: 3,
    departs: departs('pick'),
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
    departs: departs('power'),
    shows: { 'stops in the middle': 6, 'nothing starts': 2, 'installer again': 2, 'old system': 1 },
    looks: {
      'where it was installed': { 'not to the end': 1 },
      'last line': { 'something else': 1 },
      'stick still in': { yes: 1 },
    },
  },
} as const satisfies Record<string, Cause>;
