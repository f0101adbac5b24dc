import type { FactKey } from '../model/facts';
import type { Wish, WishFeature } from '../model/wish';
import { ask, finding, idle, type Rule } from './finding';
import { noiseOf, type Reader } from './places';

const LOUDNESS = ['silent', 'quiet', 'audible', 'loud'];

/** Under which key a wish's own limits are set aside. */
export const overruleKey = (wish: Pick<Wish, 'id'>): string => `wish:${wish.id}`;

const ofWish = { ofWish: true } as const;
const soft = { ...ofWish, soft: true } as const;

const noise: Rule = (m, { wish }) => {
  const rule = 'noise';
  if (!wish || wish.noise === 'loud') return idle(rule);
  const is = noiseOf(m);
  if (is === undefined) return ask(rule, 'body.noise');
  const enough = LOUDNESS.indexOf(is) <= LOUDNESS.indexOf(wish.noise);
  const reason = { code: 'noise' as const, most: wish.noise, is, enough };
  return enough ? finding(rule, 'meets', reason, ofWish) : finding(rule, 'no', reason, soft);
};

const watts: Rule = (m, { wish }) => {
  const rule = 'watts';
  if (!wish || wish.wattsMax === null) return idle(rule);
  const is = m.number('power.idle');
  if (is === undefined) return ask(rule, 'power.idle');
  const reason = { code: 'watts' as const, most: wish.wattsMax, is };
  return is <= wish.wattsMax ? finding(rule, 'meets', reason, ofWish) : finding(rule, 'no', reason, soft);
};

const wire: Rule = (m, { wish, profile }) => {
  const rule = 'place';
  if (!wish || wish.wire) return idle(rule);
  if (profile.needs.wiredPorts > 0)
    return finding(rule, 'no', { code: 'no wire there', system: profile.name }, soft);
  const have = m.number('network.wireless');
  if (have === undefined) return ask(rule, 'network.wireless');
  return have > 0
    ? finding(rule, 'meets', { code: 'wireless instead' }, ofWish)
    : finding(rule, 'no', { code: 'no wireless either' }, soft);
};

const FEATURES: Record<WishFeature, FactKey> = {
  'remote-control line': 'display.remote',
  'ciphers in hardware': 'cpu.aes',
  'upright panel': 'display.portrait',
  battery: 'power.battery',
};

const features: Rule = (m: Reader, { wish }) => {
  const rule = 'features';
  for (const feature of wish?.features ?? []) {
    const fact = FEATURES[feature];
    const have = m.flag(fact);
    if (have === undefined) return { ...ask(rule, fact), ...ofWish };
    if (!have) return finding(rule, 'no', { code: 'feature missing', feature }, soft);
  }
  return wish && wish.features.length > 0
    ? finding(rule, 'meets', { code: 'features there', features: wish.features }, ofWish)
    : idle(rule);
};

/** What the place and the person ask, beyond what the system needs. */
export const wishRules: readonly Rule[] = [noise, watts, wire, features];
