import { formatSi } from '../units/bytes';
import { readSize, type SizeProblem } from '../units/typedSize';
import { isStore, shelfItemSchema, type ShelfItem } from './shelf';

/** Anything of the shelf that is written down by hand: all but machines, which are surveyed, and images, which are read. */
export type Editable = Exclude<ShelfItem, { kind: 'machine' | 'image' }>;

/** An item as it stands in its form: sizes with their unit and numbers as text, empty where nobody said. */
export interface ItemDraft {
  name: string;
  size: string;
  serial: string;
  model: string;
  label: string;
  holds: string;
  notes: string;
  from: string;
  to: string;
  type: string;
  form: 'DIMM' | 'SO-DIMM';
  checked: string;
  goesIn: string;
  wiredPorts: string;
  sataPorts: string;
  transport: string;
  shape: string;
  length: string;
  key: string;
  lanes: string;
  owned: boolean;
  price: string;
  in: string;
}

/** A field of the form that is wrong: by the code of its check, or what is wrong with a size. */
export type ItemProblem =
  { field: keyof ItemDraft; code: string; message: string } | { field: 'size'; size: SizeProblem };

const textOf = (item: object, key: string): string => {
  const value: unknown = Reflect.get(item, key);
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
};

/** An item as the form edits it. */
export function itemDraftOf(item: Editable): ItemDraft {
  const t = (key: string): string => textOf(item, key);
  const m2 = isStore(item) ? item.m2 : null;
  return {
    name: item.name,
    size: 'bytes' in item ? (isStore(item) ? `${item.bytes} bytes` : formatSi(item.bytes)) : '',
    serial: t('serial'),
    model: t('model'),
    label: t('label'),
    holds: t('holds'),
    notes: item.notes,
    from: t('from'),
    to: t('to'),
    type: t('type'),
    form: item.kind === 'memory' ? item.form : 'DIMM',
    checked: t('checked'),
    goesIn: t('goesIn'),
    wiredPorts: t('wiredPorts'),
    sataPorts: t('sataPorts'),
    transport: t('transport'),
    shape: t('shape'),
    length: m2?.length ?? '2280',
    key: m2?.key ?? 'M',
    lanes: String(m2?.lanes ?? 4),
    owned: item.owned,
    price: item.price === null ? '' : String(item.price),
    in: t('in'),
  };
}

const orNull = (text: string): string | null => (text.trim() === '' ? null : text.trim());
/** A number as people type it; NaN, which no schema takes, where it is none. */
const number = (text: string): number => (text.trim() === '' ? NaN : Number(text.replace(',', '.')));

const FIELD: Record<string, keyof ItemDraft> = { bytes: 'size', m2: 'shape' };

/**
 * Reads the form back into the item, as its schema takes it; what the form does not show stays as it is in `item`. All that
 * is wrong is told, field by field, and nothing is half read.
 */
export function itemOf(item: Editable, d: ItemDraft): { item: Editable } | { problems: ItemProblem[] } {
  const problems: ItemProblem[] = [];
  const sized = (): { bytes: number } => {
    // A size that was not touched stays to the byte, however it is shown.
    if ('bytes' in item && d.size === itemDraftOf(item).size) return { bytes: item.bytes };
    const size = readSize(d.size, false);
    if ('problem' in size) problems.push({ field: 'size', size: size.problem });
    return { bytes: 'bytes' in size ? size.bytes : 1 };
  };
  const price = d.price.trim() === '' ? null : number(d.price);
  const common = { ...item, name: d.name.trim(), notes: d.notes, owned: d.owned, price };
  const raw = ((): unknown => {
    switch (item.kind) {
      case 'adapter':
        return {
          ...common,
          from: d.from.trim(),
          to: d.to.trim(),
          goesIn: d.goesIn,
          wiredPorts: number(d.wiredPorts),
          sataPorts: number(d.sataPorts),
        };
      case 'memory':
        return {
          ...common,
          ...sized(),
          type: d.type.trim(),
          form: d.form,
          checked: orNull(d.checked),
          in: orNull(d.in),
        };
      default:
        return {
          ...common,
          ...sized(),
          serial: orNull(d.serial),
          model: orNull(d.model),
          label: d.label.trim(),
          holds: d.holds,
          transport: d.transport,
          shape: orNull(d.shape),
          m2: d.shape === 'M.2' ? { length: d.length, key: d.key, lanes: number(d.lanes) } : null,
          in: orNull(d.in),
        };
    }
  })();
  const read = shelfItemSchema.safeParse(raw);
  for (const issue of read.error?.issues ?? []) {
    const at = String(issue.path[0] ?? 'name');
    problems.push({ field: FIELD[at] ?? (at as keyof ItemDraft), code: issue.code, message: issue.message });
  }
  return problems.length > 0 || !read.success ? { problems } : { item: read.data as Editable };
}
