import type { FactKey } from '../../model/facts';
import type { Purchase, Repair, SettingRepair } from '../../system/repairs';
import { formatBoth, formatIec, GIB } from '../../units/bytes';
import { list, plural } from '../text';

const SETTINGS: Partial<Record<FactKey, (r: SettingRepair) => string>> = {
  'firmware.mode': ({ value }) =>
    `Switch to ${value === 'bios' ? 'the BIOS (compatibility)' : 'the UEFI'} mode in setup.`,
  'firmware.graphicsMemory': () =>
    'Set the memory for graphics to automatic, or to its smallest share, in setup.',
  'firmware.secureBoot': ({ seen }) =>
    seen ? 'Turn Secure Boot off in setup.' : 'Look in setup, and turn Secure Boot off if it is on.',
};

/** What to look for in a shop, without a verb: “a drive of at least …”. */
export function purchaseWords({ gives, type, card }: Purchase): string {
  switch (gives.kind) {
    case 'memory':
      return `${gives.bytes / GIB} GiB of ${type || 'memory of the type it takes'}, at least`;
    case 'boot':
      return `a ${card ? 'card' : 'drive'} of at least ${formatBoth(gives.bytes)} that goes into a free port`;
    case 'drives':
      return plural(gives.count, 'data drive');
    case 'ports':
      return `a card with ${plural(gives.count, 'SATA port')}`;
    case 'wired':
      return `${plural(gives.count, 'wired port')}: a card, or a USB adapter where the speed allows`;
  }
}

/** One repair as a sentence that says what to do. */
export function repairWords(r: Repair): string {
  switch (r.kind) {
    case 'setting':
      return SETTINGS[r.set]?.(r) ?? `Set ${r.set} to ${r.value} in setup.`;
    case 'release':
      return `Take release ${r.version} (${r.channel}).`;
    case 'variant':
      return `Take the variant “${r.name}”.`;
    case 'part': {
      const name = r.part.offer
        ? `Buy and put in “${r.part.name}”`
        : `Put in “${r.part.name}” from the shelf`;
      const out =
        r.out === undefined
          ? ''
          : 'modules' in r.out
            ? `; ${list(r.out.modules.map((b) => formatIec(b)))} that ${r.out.modules.length === 1 ? 'is' : 'are'} in it ${r.out.modules.length === 1 ? 'comes' : 'come'} out`
            : `; ${list(r.out.drives.map((d) => `“${d}”`))} ${r.out.drives.length === 1 ? 'comes' : 'come'} out to make room`;
      return `${name}${'bytes' in r.part ? ` (${formatIec(r.part.bytes)})` : ''}${out}.`;
    }
    case 'buy':
      return `Fetch ${purchaseWords(r)}.`;
  }
}

/** Several repairs, one sentence each. */
export const repairsWords = (repairs: readonly Repair[]): string => repairs.map(repairWords).join(' ');
