import type { QuantityCode, QuestionCode, SettingKind } from '../model/tune';

/** What a question is decided by. */
export interface QuestionDefinition {
  /** The quantity that answers it. */
  first: QuantityCode;
  /** What must not get worse meanwhile. */
  beside: readonly QuantityCode[];
  /** It is known only once the machine is as warm as it gets. */
  settles: boolean;
  /** Seconds of one measurement. Common practice, no source. */
  measure: number;
  /** Seconds to cool down before the next, where that is wanted. */
  cool: number;
  /** What a value of the first quantity looks like where nothing was measured yet, in its unit. */
  typical: number;
  /** Settings that usually answer it, the biggest lever first. Common practice, no source. */
  levers: readonly SettingKind[];
}

export const questions: Readonly<Record<QuestionCode, QuestionDefinition>> = {
  cooler: {
    first: 'hottest',
    beside: ['low percentile', 'wall'],
    settles: true,
    measure: 180,
    cool: 0,
    typical: 80,
    levers: ['boost', 'power limit', 'undervolting', 'fan curve', 'paste and pads'],
  },
  quieter: {
    first: 'fan',
    beside: ['hottest', 'low percentile'],
    settles: true,
    measure: 180,
    cool: 0,
    typical: 3000,
    levers: ['fan curve', 'boost', 'power limit', 'paste and pads'],
  },
  'more even': {
    first: 'low percentile',
    beside: ['pace', 'hottest'],
    settles: true,
    measure: 180,
    cool: 0,
    typical: 50,
    levers: ['frame cap', 'variable refresh', 'refresh rate', 'resolution', 'power limit'],
  },
  faster: {
    first: 'rate',
    beside: ['low percentile', 'hottest', 'wall'],
    settles: true,
    measure: 180,
    cool: 0,
    typical: 55,
    levers: ['resolution', 'graphics memory', 'power limit', 'governor'],
  },
  'longer on battery': {
    first: 'battery',
    beside: ['low percentile'],
    settles: false,
    measure: 600,
    cool: 60,
    typical: 15,
    levers: ['power limit', 'frame cap', 'refresh rate', 'boost', 'governor'],
  },
  'less at the wall': {
    first: 'wall',
    beside: ['rate', 'hottest'],
    settles: true,
    measure: 300,
    cool: 0,
    typical: 30,
    levers: ['power limit', 'boost', 'governor', 'undervolting'],
  },
  'faster disk': {
    first: 'write',
    beside: ['read'],
    settles: false,
    measure: 120,
    cool: 180,
    typical: 400e6,
    levers: ['governor', 'other'],
  },
  'faster network': {
    first: 'network',
    beside: [],
    settles: false,
    measure: 30,
    cool: 5,
    typical: 117e6,
    levers: ['governor', 'other'],
  },
};
