import type { Remedy, Wanting } from '../../assign/remedy';
import type { Unmet, UnmetReason } from '../../assign/unmet';
import { factText } from '../../machine/text';
import { factDefinition, type FactKey, type FactValue } from '../../model/facts';
import type { Settings } from '../../model/settings';
import { GIB } from '../../units/bytes';
import { formatMoney } from '../../units/money';
import { list, plural } from '../text';
import { findingWords } from './finding';
import { purchaseWords, repairsWords } from './repairs';

/** Of a long row the first few are enough to be believed. */
const FEW = 4;

function reasonWords(r: UnmetReason, money: (n: number) => string): string {
  switch (r.code) {
    case 'no system':
      return `No system for ${r.purpose} is on the bench.`;
    case 'pinned or forbidden':
      return 'What is pinned or forbidden for it leaves no machine that would do.';
    case 'over budget':
      return `The budget of ${money(r.budget)} is ${money(r.extra)} short of meeting it beside the others.`;
    case 'free but lacking':
      return `${r.machine} is free and would do after a change, but what it needs is used elsewhere or over the budget of ${money(r.budget)}. ${repairsWords(r.repairs)}`.trim();
    case 'taken':
      return `All that would do are taken: ${list(
        r.holders.slice(0, FEW).map((h) => `${h.machine} (${h.wish ?? 'another wish'} needs it more)`),
      )}.`;
    case 'parts used elsewhere':
      return 'The machines that would do lack parts that are used elsewhere.';
    case 'not known yet':
      return `No machine is known to do; about ${list(r.machines.slice(0, FEW))} it cannot be said yet.`;
    case 'none can':
      return `No machine on the shelf can. ${r.machines
        .slice(0, FEW)
        .map((m) => `${m.machine}: ${m.binding ? findingWords(m.binding).short : ''}`)
        .join('; ')}.`;
  }
}

const wantingWords = (w: Wanting): string =>
  list(
    [
      w.archs.join(' or '),
      plural(w.cores, 'core'),
      `${w.memoryBytes / GIB} GiB of memory`,
      plural(w.drivePorts, 'drive port'),
      w.wiredPorts > 0 ? `${w.wiredPorts} wired` : '',
      w.noise === 'loud' ? '' : `${w.noise} at most`,
    ].filter((x) => x !== ''),
  );

function partsWords(names: readonly string[]): string {
  return [...new Set(names)]
    .map((name) => {
      const n = names.filter((x) => x === name).length;
      return n > 1 ? `${n} × “${name}”` : `“${name}”`;
    })
    .join(' and ');
}

/** What would meet a wish, as a sentence that says what to do. */
export function remedyWords(r: Remedy, { currency }: Pick<Settings, 'currency'>): string {
  const money = (n: number): string => formatMoney(n, currency);
  switch (r.kind) {
    case 'parts':
      return `Buy ${partsWords(r.parts.map((p) => p.name))}, ${money(r.price)}.`;
    case 'fetch':
      return `For ${r.machine}: fetch ${r.purchases.map(purchaseWords).join('; ')}. No price is noted for it.`;
    case 'fact': {
      const answers = (Object.entries(r.facts) as [FactKey, FactValue][]).map(
        ([key, value]) => `${factDefinition(key).label.toLowerCase()} ${factText(key, value)}`,
      );
      return `Find out about ${r.machine}: ${factDefinition(r.ask).ask} With ${list(answers)} it would do.`;
    }
    case 'overrule':
      return `Set a limit aside on ${r.machine}: ${r.findings.map((f) => findingWords(f).because).join(' ')}`;
    case 'free':
      return 'Take back what is pinned and forbidden for this wish.';
    case 'wire':
      return 'Lay a network wire to where it is to stand.';
    case 'machine':
      if (r.as.code === 'like') return `Find a second machine like ${r.as.machine}.`;
      if (r.as.code === 'made to measure')
        return `Find a machine for ${r.as.wants.system}: ${wantingWords(r.as.wants)}${r.wire ? '; and lay a network wire to it' : ''}.`;
      return `Buy “${r.machine.name}”, ${money(r.price ?? 0)}.`;
    case 'system':
      return `Put a profile of a system for ${r.purpose} on the bench.`;
  }
}

/** Why a wish is left out, and what would meet it; `remedy` is null where nothing that was tried does. */
export const unmetWords = (
  u: Unmet,
  settings: Pick<Settings, 'currency'>,
): { because: string; remedy: string | null } => ({
  because: reasonWords(u.reason, (n) => formatMoney(n, settings.currency)),
  remedy: u.remedy && remedyWords(u.remedy, settings),
});
