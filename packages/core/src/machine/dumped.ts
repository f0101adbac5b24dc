import { readSfdiskDump } from '../formats/sfdiskDump';
import type { Content, ContentPart } from '../model/content';

const TABLE = { gpt: 'gpt', dos: 'mbr', other: 'unknown' } as const;

/**
 * What lies on a drive by the dump of its partition table, pasted as text. What was known of a part that is still there,
 * by its start and size, is kept; what starts is kept where all parts are, else it is not known: a table does not tell.
 * `at` is an ISO moment. Throws DumpError.
 */
export function contentFromDump(text: string, before: Content | null, at: string): Content {
  const { label, parts: dumped } = readSfdiskDump(text);
  const known = before?.parts ?? [];
  const parts = dumped.map((d): ContentPart => {
    const same = known.find((p) => p.start === d.start && p.bytes === d.bytes);
    return {
      start: d.start,
      bytes: d.bytes,
      type: d.type.slice(0, 300),
      name: d.name.slice(0, 300),
      filesystem: same?.filesystem ?? null,
      label: same?.label ?? null,
      uuid: same?.uuid ?? null,
      mount: same?.mount ?? null,
    };
  });
  const all =
    parts.length === known.length &&
    parts.every((p) => known.some((k) => k.start === p.start && k.bytes === p.bytes));
  return {
    table: TABLE[label],
    parts: parts.slice(0, 200),
    starts: all && before ? before.starts : null,
    learnt: { from: 'dump', at, imageId: null },
  };
}
