import type { FactKey } from '../model/facts';
import type { Wish, WishFeature } from '../model/wish';
import { ask, finding, idle, type Rule } from './finding';
import { noiseOf, type Reader } from './places';

const LOUDNESS = ['silent', 'quiet', 'audible', 'loud'];

/** Under which key a wish's own limits are set aside. */
export const overruleKey = (wish: Pick<Wish, 'id'>): string => `wish:${wish.id}`;

const noise: Rule = (m, { wish }) => {
  const rule = 'noise';
  if (!wish || wish.noise === 'loud') return idle(rule, 'Where it stands, nobody minds the noise.');
  const have = noiseOf(m);
  if (have === undefined) return ask(rule, 'body.noise', 'Noise');
  const words = `Where it stands it may be ${wish.noise} at most; it is ${have}.`;
  return LOUDNESS.indexOf(have) <= LOUDNESS.indexOf(wish.noise)
    ? finding(rule, 'meets', have, words, { ofWish: true })
    : finding(rule, 'no', `${have}, not ${wish.noise}`, words, { soft: true, ofWish: true });
};

const watts: Rule = (m, { wish }) => {
  const rule = 'watts';
  if (!wish || wish.wattsMax === null) return idle(rule, 'No limit on what it draws.');
  const have = m.number('power.idle');
  if (have === undefined) return ask(rule, 'power.idle', 'Watts when idle');
  const words = `May draw ${wish.wattsMax} W when idle; it draws ${have} W.`;
  return have <= wish.wattsMax
    ? finding(rule, 'meets', `${have} W idle`, words, { ofWish: true })
    : finding(rule, 'no', `${have} W idle`, words, { soft: true, ofWish: true });
};

const wire: Rule = (m, { wish, profile }) => {
  const rule = 'place';
  if (!wish || wish.wire) return idle(rule, 'There is a network wire where it stands.');
  if (profile.needs.wiredPorts > 0)
    return finding(
      rule,
      'no',
      'no wire there',
      `${profile.name} serves over a wire, and none leads to where it is to stand.`,
      { soft: true, ofWish: true },
    );
  const have = m.number('network.wireless');
  if (have === undefined) return ask(rule, 'network.wireless', 'Number of wireless adapters');
  return have > 0
    ? finding(rule, 'meets', 'wireless', 'No wire leads there; it has wireless.', { ofWish: true })
    : finding(rule, 'no', 'no wireless', 'No wire leads there, and it has no wireless.', {
        soft: true,
        ofWish: true,
      });
};

const FEATURES: Record<WishFeature, { fact: FactKey; lacks: string }> = {
  'remote-control line': { fact: 'display.remote', lacks: 'no remote line' },
  'ciphers in hardware': { fact: 'cpu.aes', lacks: 'no ciphers in hardware' },
  'upright panel': { fact: 'display.portrait', lacks: 'no upright panel' },
  battery: { fact: 'power.battery', lacks: 'no battery' },
};

const features: Rule = (m: Reader, { wish }) => {
  const rule = 'features';
  for (const wanted of wish?.features ?? []) {
    const { fact, lacks } = FEATURES[wanted];
    const have = m.flag(fact);
    if (have === undefined) return { ...ask(rule, fact, `“${wanted}”`), ofWish: true };
    if (!have)
      return finding(rule, 'no', lacks, `Wanted: ${wanted}. The machine has none.`, {
        soft: true,
        ofWish: true,
      });
  }
  return wish && wish.features.length > 0
    ? finding(rule, 'meets', wish.features.join(', '), `Has what is wanted: ${wish.features.join(', ')}.`, {
        ofWish: true,
      })
    : idle(rule, 'Nothing more is wanted of it.');
};

/** What the place and the person ask, beyond what the system needs. */
export const wishRules: readonly Rule[] = [noise, watts, wire, features];
