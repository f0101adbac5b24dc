import { INSTALL, FIRST, USE, type Cause } from './cause';

/** Of the network, and of a box that does not answer. */
export const causesOfNetwork = {
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
