import { RESTART, FIRST, USE, type Cause } from './cause';

/** Of the first start: picture, sound, pads and passwords. */
export const causesOfFirstStart = {
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
} as const satisfies Record<string, Cause>;
