import { readSfdiskDump } from '../formats/sfdiskDump';
import { following } from '../units/grammar';
import type { Content, ContentPart } from '../model/content';

const TABLE = { gpt: 'gpt', dos: 'mbr', other: 'unknown' } as const;

/**
 * What lies on a drive by parts that a table told. What was known of a part that is still there, by its start and size, and
 * that the table does not tell, is kept; what starts is kept where all parts are, else it is not known: a table does not
 * tell. `at` is an ISO moment.
 */
export function keptParts(
  told: Pick<Content, 'table' | 'tableId' | 'sectorSize'> & { parts: readonly ContentPart[] },
  before: Content | null,
  at: string,
): Content {
  const known = before?.parts ?? [];
  const parts = told.parts.map((d): ContentPart => {
    const same = known.find((p) => p.start === d.start && p.bytes === d.bytes);
    return {
      start: d.start,
      bytes: d.bytes,
      type: following('partitionType', d.type) ?? '',
      name: d.name.slice(0, 300),
      filesystem: d.filesystem ?? same?.filesystem ?? null,
      label: d.label ?? same?.label ?? null,
      uuid: d.uuid ?? same?.uuid ?? null,
      partitionId: d.partitionId ?? same?.partitionId ?? null,
      attributes: d.attributes ?? same?.attributes ?? null,
      mount: d.mount ?? same?.mount ?? null,
    };
  });
  const all =
    parts.length === known.length &&
    parts.every((p) => known.some((k) => k.start === p.start && k.bytes === p.bytes));
  return {
    table: told.table,
    tableId: told.tableId ?? before?.tableId ?? null,
    sectorSize: told.sectorSize ?? before?.sectorSize ?? null,
    parts: parts.slice(0, 200),
    starts: all && before ? before.starts : null,
    learnt: { from: 'dump', at, imageId: null },
  };
}

/** What lies on a drive by the dump of its partition table, pasted as text. Throws DumpError. */
export function contentFromDump(text: string, before: Content | null, at: string): Content {
  const { label, tableId, sectorSize, parts } = readSfdiskDump(text);
  const nothing = { filesystem: null, label: null, uuid: null, mount: null };
  return keptParts(
    {
      table: TABLE[label],
      tableId,
      sectorSize: sectorSize === 512 || sectorSize === 4096 ? sectorSize : null,
      parts: parts.map(({ uuid, ...p }) => ({ ...p, ...nothing, partitionId: uuid })),
    },
    before,
    at,
  );
}
