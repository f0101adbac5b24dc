import { formatNumber } from '../../units/number';
import type { Settings } from '../../model/settings';
import type { FlipReport } from '../../system/report';
import type { PreferredNeed, ScoreBasis } from '../../system/score';
import { formatIec } from '../../units/bytes';
import { formatMoney } from '../../units/money';
import { list, plural } from '../text';

const UNKNOWN: Record<Extract<ScoreBasis, { code: 'not known' }>['what'], string> = {
  noise: 'Noise',
  watts: 'Watts when idle',
  cores: 'Cores',
  cost: 'What it costs',
  ports: 'Ports',
  year: 'Year',
};

function needWords(n: PreferredNeed): string {
  const no = n.met ? '' : 'no ';
  switch (n.kind) {
    case 'cores':
      return `${no}${n.count} cores`;
    case 'memory':
      return `${no}${formatIec(n.bytes)} of memory`;
    case 'network speed':
      return `${no}${n.mbps} Mb/s`;
    default:
      return `${no}${n.kind}`;
  }
}

/** What a criterion's points rest on. */
export function basisWords(b: ScoreBasis, { currency }: Pick<Settings, 'currency'>): string {
  switch (b.code) {
    case 'not known':
      return `${UNKNOWN[b.what]} not known, counted as half`;
    case 'noise':
      return b.is;
    case 'watts':
      return `${b.idle} W idle`;
    case 'speed':
      return `${plural(b.cores, 'core')}${b.mhz === null ? '' : ` at up to ${formatNumber(b.mhz / 1000, 1)} GHz`}`;
    case 'cost':
      return b.cost === 0 ? 'nothing to buy' : `${formatMoney(b.cost, currency)} to buy`;
    case 'spare ports':
      return `${b.drives} drive and ${b.network} network to spare`;
    case 'year':
      return `from ${b.year}`;
    case 'preferred':
      return b.needs.length === 0 ? 'it prefers nothing more' : list(b.needs.map(needWords));
  }
}

/** Who scores what, and which single weight would turn the order. */
export function flipWords({ first, second, flips }: FlipReport): string {
  const lead = `${first.name} scores ${formatNumber(first.total)}, ${second.name} ${formatNumber(second.total)}.`;
  const [near] = flips;
  if (!near) return `${lead} No single weight turns that.`;
  const way = near.at > near.now ? 'more' : 'less';
  return `${lead} ${second.name} comes first if ${near.criterion} weighs ${way} than ${formatNumber(near.at, 1)} (now ${near.now}).`;
}
