import type { Span } from '../units/duration';

/** What a line of the first start is about; `driver` names one of several. */
export type FirstLineCode =
  | 'memory test'
  | 'first start'
  | 'rotation'
  | 'language'
  | 'zone'
  | 'keyboard'
  | 'set of software'
  | 'way round the network'
  | 'user'
  | 'password'
  | 'default password'
  | 'network'
  | 'channel'
  | 'channel, second place'
  | 'updates'
  | 'driver'
  | 'sound output'
  | 'gamepads paired'
  | 'gamepads mapped'
  | 'keyring'
  | 'shell'
  | 'screen sheet';

/** Why a line stands where it does. */
export type FirstWhy =
  | { code: 'asked' }
  | { code: 'old machine'; year: number }
  | { code: 'grows'; drive: string | null }
  | { code: 'upright panel' }
  | { code: 'network needed'; way: string }
  | { code: 'shipped default' }
  | { code: 'real password' }
  | { code: 'serves' }
  | { code: 'needs switching'; from: string; to: string; place: string }
  | { code: 'until nothing is offered'; rounds: readonly [number, number] }
  | { code: 'driver from the stick'; driver: string }
  | { code: 'driver by the network'; driver: string }
  | { code: 'sound goes astray'; outputs: string[] }
  | { code: 'buttons do nothing' }
  | { code: 'asked once' }
  | { code: 'before the monitor goes' }
  | { code: 'look at it' };

/** One line: what, why, how long in seconds, what must be done before it. */
export interface FirstLine {
  key: string;
  code: FirstLineCode;
  /** What it is of: a driver by name. */
  of: string | null;
  why: FirstWhy;
  seconds: Span;
  /** Keys of lines that come first. */
  after: string[];
  /** It can be left out. */
  may: boolean;
  done: boolean;
  left: boolean;
}

/** What is wrong with a list of lines. */
export type FirstFault =
  /** Lines that wait for each other. */
  | { code: 'circle'; keys: string[] }
  /** A line waits for one that is not in the list. */
  | { code: 'missing'; key: string; wants: string };
