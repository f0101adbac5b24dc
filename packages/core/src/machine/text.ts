import { factDefinition, type FactKey, type FactValue } from '../model/facts';
import { parseSlot, slotText } from './slots';
import { formatIec, parseBytes } from '../units/bytes';

const CHOICE_WORDS: Record<string, string> = {
  uefi: 'UEFI',
  bios: 'BIOS',
  board: 'board’s own loader',
  internal: 'internal drive',
  usb: 'USB',
  optical: 'optical drive',
  network: 'network',
};

/** A fact's value as shown: bytes with their unit, flags as yes and no, lists in order. */
export function factText(key: FactKey, value: FactValue): string {
  const { kind } = factDefinition(key);
  if (kind === 'bytes' && typeof value === 'number') return formatIec(value);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (kind === 'slots' && Array.isArray(value)) return value.length === 0 ? 'none' : value.join('; ');
  if (Array.isArray(value)) return value.map((v) => CHOICE_WORDS[v] ?? v).join(', then ');
  if (key === 'cpu.bits' || key === 'firmware.bits') return `${String(value)}-bit`;
  return CHOICE_WORDS[String(value)] ?? String(value);
}

/** The choice that was meant, as it is spelled; case, and a blank or hyphen in it, do not matter. */
function spelled(choices: readonly string[] | undefined, typed: string): string | undefined {
  const plain = (t: string): string => t.toLowerCase().replace(/[\s_-]/g, '');
  return choices?.find((c) => plain(c) === plain(typed));
}

/** Reads what a person typed for a fact. Throws RangeError with words to show where it cannot be one. */
export function parseFact(key: FactKey, text: string): FactValue {
  const definition = factDefinition(key);
  const trimmed = text.trim();
  if (trimmed === '') throw new RangeError('Nothing was entered.');
  if (definition.kind === 'bytes') {
    const bytes = parseBytes(trimmed);
    if (bytes === undefined) throw new RangeError('Enter a size with its unit, such as 16 GiB.');
    return bytes;
  }
  if (definition.kind === 'count') {
    if (!/^\d{1,6}$/.test(trimmed)) throw new RangeError('Enter a whole number.');
    return Number(trimmed);
  }
  if (definition.kind === 'flag') {
    if (!/^(yes|no)$/i.test(trimmed)) throw new RangeError('Enter yes or no.');
    return /^yes$/i.test(trimmed);
  }
  if (definition.kind === 'slots') {
    if (/^none$/i.test(trimmed)) return [];
    return trimmed.split(';').map((part) => {
      const slot = parseSlot(part.trim());
      if (!slot)
        throw new RangeError(
          `“${part.trim()}” is not a slot. Enter key, length, protocol and lanes, such as “M 2280 nvme x4”; several with semicolons; or “none”.`,
        );
      return slotText(slot);
    });
  }
  if (definition.kind === 'list') {
    const parts = trimmed
      .split(/[,>]/)
      .map((p) => p.trim())
      .filter(Boolean)
      .map((p) => spelled(definition.choices, p) ?? p);
    const wrong = parts.find((p) => !definition.choices?.includes(p));
    if (wrong !== undefined)
      throw new RangeError(`“${wrong}” is not one of ${definition.choices?.join(', ')}.`);
    return parts;
  }
  if (definition.kind !== 'choice') return trimmed;
  const choice = spelled(definition.choices, trimmed);
  if (choice === undefined) throw new RangeError(`Enter one of ${definition.choices?.join(', ')}.`);
  return choice;
}
