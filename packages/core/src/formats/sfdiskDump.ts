import { following } from '../units/grammar';
import { textOf } from '../units/text';

/*
 * The text that `sfdisk --dump` prints of a partition table (its manual, “Named-fields format”): header lines of
 * “name: value”, an empty line, and one line for each part.
 */

/** A part as a dump names it. Bytes; type as the table has it: a GUID, or two hexadecimal digits. */
export interface DumpedPart {
  start: number;
  bytes: number;
  type: string;
  /** Its identity in the table; null where the table has none, or it is no GUID. */
  uuid: string | null;
  /** Attributes of its entry by name; empty where it has none. */
  attributes: string;
  name: string;
  bootable: boolean;
}

/** A partition table as a dump tells it. */
export interface DumpedTable {
  label: 'gpt' | 'dos' | 'other';
  /** Bytes of a sector; 512 where the dump does not say. */
  sectorSize: number;
  /** What the table is known by; null where the dump does not say. */
  tableId: string | null;
  parts: DumpedPart[];
}

/** A dump that cannot be read; the message says what is wrong and in which line. */
export class DumpError extends Error {
  override readonly name = 'DumpError';
}

/** More than any table has. */
const MOST_PARTS = 1024;
/** “/dev/sdx1 : start= 2048, size= 4096, …”: the device may hold anything but a colon between spaces. */
const PART = /^\S.*?\s:\s*(start=.*)$/;
const FIELD = /\s*([a-z-]+)\s*(?:=\s*("(?:[^"\\]|\\.)*"|[^,]*))?\s*(?:,|$)/gi;

function fieldsOf(text: string): Map<string, string> {
  const out = new Map<string, string>();
  for (const [, key = '', value = ''] of text.matchAll(FIELD))
    out.set(key.toLowerCase(), value.trim().replace(/^"|"$/g, ''));
  return out;
}

/** A name with its bytes again that sfdisk writes as \\x and two digits (libfdisk, fputs_quoted). */
function unescaped(name: string): string {
  if (!name.includes('\\x')) return name;
  const bytes = [...name.matchAll(/\\x([\da-f]{2})|([^\\]+|\\)/gi)].flatMap(([, hex, plain = '']) =>
    hex === undefined ? [...new TextEncoder().encode(plain)] : [Number.parseInt(hex, 16)],
  );
  return textOf(Uint8Array.from(bytes));
}

function partOf(text: string, line: number, sectorSize: number): DumpedPart {
  const fields = fieldsOf(text);
  const count = (key: string): number => {
    const value = fields.get(key) ?? '';
    if (!/^\d{1,15}$/.test(value))
      throw new DumpError(`Line ${line} names no ${key} in sectors. Nothing was changed.`);
    return Number(value) * sectorSize;
  };
  return {
    start: count('start'),
    bytes: count('size'),
    type: following('partitionType', fields.get('type')) ?? '',
    uuid: following('partitionId', fields.get('uuid')),
    attributes: following('attributes', fields.get('attrs')) ?? '',
    name: unescaped(fields.get('name') ?? ''),
    bootable: fields.has('bootable'),
  };
}

/** Reads a dump. Throws DumpError where the text is none, or a line of it cannot be read; never half a table. */
export function readSfdiskDump(text: string): DumpedTable {
  const head = new Map<string, string>();
  const parts: DumpedPart[] = [];
  for (const [i, raw] of text.split(/\r?\n/).entries()) {
    const line = raw.trim();
    if (line === '' || line.startsWith('#')) continue;
    const part = PART.exec(line);
    if (part?.[1] !== undefined) {
      if (parts.length >= MOST_PARTS) throw new DumpError('The dump names more parts than any table has.');
      parts.push(partOf(part[1], i + 1, Number(head.get('sector-size') ?? 512)));
      continue;
    }
    const header = /^([a-z-]+):\s*(\S.*)$/i.exec(line);
    if (!header?.[1] || parts.length > 0)
      throw new DumpError(`Line ${i + 1} is no line of a table’s dump. Nothing was changed.`);
    head.set(header[1].toLowerCase(), header[2] ?? '');
  }
  const label = head.get('label');
  if (label === undefined)
    throw new DumpError(
      'This is no dump of a partition table: it has no line “label:”. Nothing was changed.',
    );
  const sectorSize = Number(head.get('sector-size') ?? 512);
  if (![512, 1024, 2048, 4096].includes(sectorSize))
    throw new DumpError('The dump names a size of sectors that no drive has. Nothing was changed.');
  return {
    label: label === 'gpt' ? 'gpt' : label === 'dos' ? 'dos' : 'other',
    sectorSize,
    tableId: following('tableId', head.get('label-id')),
    parts,
  };
}
