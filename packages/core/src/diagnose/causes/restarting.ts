import { RESTART, USE, departs, type Cause } from './cause';

/** Of the restart after the installation. */
export const causesOfRestarting = {
  'stick left in': {
    at: RESTART,
    weight: 12,
    departs: departs('stick', 1),
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
    departs: departs('set back', 1),
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
    departs: departs('stick', 2),
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
    departs: departs('forgets', 1),
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
    departs: departs('loader'),
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
    departs: departs('enrol', 1),
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
    departs: departs('mode', 1),
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
} as const satisfies Record<string, Cause>;
