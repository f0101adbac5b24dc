import { urlPart } from '@zb/core/units/url';
import { owning, plainAdapter, plainStore } from '@zb/core/model/blank';
import type { Stamp } from '@zb/core/acts/stamp';
import { blankMachine } from '@zb/core/acts/shelf';
import type { ShelfItem } from '@zb/core/model/bench';

export type ItemKind = ShelfItem['kind'];

export const KIND_TITLES: Record<ItemKind, string> = {
  machine: 'Machine',
  drive: 'Drive',
  stick: 'Stick',
  card: 'Card',
  memory: 'Memory',
  adapter: 'Adapter',
  image: 'Image',
};

const GB16 = 16_000_000_000;

/** A new item with nothing said yet, to be filled in on its own sheet. */
export function blankItem(kind: ItemKind, stamp: Stamp): ShelfItem {
  const base = { id: stamp.id(), name: `New ${kind}`, notes: '' };
  if (kind === 'machine') return blankMachine(base.name, 'office desktop', stamp);
  if (kind === 'memory')
    return {
      ...base,
      kind,
      bytes: 8 * 1024 ** 3,
      type: 'DDR4',
      form: 'DIMM',
      checked: null,
      in: null,
      ...owning,
    };
  if (kind === 'adapter') return { ...base, kind, from: '', to: '', ...plainAdapter };
  if (kind === 'image')
    return {
      ...base,
      kind,
      bytes: 0,
      digests: {},
      inspection: null,
      comparison: null,
      depotFile: null,
      trials: [],
    };
  const transport = kind === 'stick' ? 'usb' : kind === 'card' ? 'mmc' : 'sata';
  return {
    ...base,
    kind,
    bytes: GB16,
    serial: null,
    model: null,
    label: '',
    transport,
    rotational: kind === 'drive' ? null : false,
    removable: kind !== 'drive',
    in: null,
    holds: '',
    realBytes: null,
    ...plainStore,
  };
}

/** Where the sheet of an item is. */
export const wayTo = (item: ShelfItem): string =>
  item.kind === 'image' ? `/images/${urlPart(item.id)}` : `/shelf/${urlPart(item.id)}`;
