import { sfdisk } from '../../formats/writer/sfdisk';
import { linesOf, type Written } from '../../formats/writer/template';
import type { LaidPart, Layout } from '../laid';

/** Why no table is written: there is none, or what must stay the same in it is not known of these parts. */
export type NoTableScript = { code: 'no table' } | { code: 'identity not known'; numbers: number[] };

/** Does a table hold what this part that stays must keep: its type, and on GPT its GUID and attributes? */
const isKnown = (p: LaidPart, gpt: boolean): boolean =>
  p.entry === null || (p.type !== '' && (!gpt || (p.entry.uuid !== null && p.entry.attributes !== null)));

function line(p: LaidPart, { table, sectorSize }: Layout): Written<'sfdisk'> {
  const gpt = table === 'gpt';
  // What stays keeps its name in the table; the label of its file system is none.
  const name = p.entry?.name ?? p.name;
  const fields = [
    sfdisk`start=${p.start / sectorSize}`,
    sfdisk`size=${p.bytes / sectorSize}`,
    sfdisk`type=${gpt ? p.type : p.type.replace(/^(?:0x)?0?(?=.)/i, '')}`,
    ...(gpt && p.entry?.uuid ? [sfdisk`uuid=${p.entry.uuid}`] : []),
    ...(gpt && name !== '' ? [sfdisk`name=${name}`] : []),
    ...(gpt && p.entry?.attributes ? [sfdisk`attrs="${fixed(p.entry.attributes)}"`] : []),
    ...(p.active ? [sfdisk`bootable`] : []),
  ];
  return sfdisk`${p.number} : ${fields}`;
}

/** Attributes hold nothing that ends a quote: their grammar is checked where they enter. */
const fixed = (attributes: string): Written<'sfdisk'> => ({
  format: 'sfdisk',
  text: attributes.replace(/[^\w:, ]/g, ''),
});

/**
 * The layout as a script for `sfdisk` (its manual, “Named-fields format”): it writes the whole table. Parts that stay stand
 * in it as they are, with their identity and the table's own: where those are not known, nothing is written.
 */
export function sfdiskScript(layout: Layout): string | NoTableScript {
  if (layout.table === 'none') return { code: 'no table' };
  const parts = [...layout.parts].sort((a, b) => a.number - b.number);
  const stays = parts.filter((p) => p.fate !== 'new');
  const unknown = stays.filter((p) => layout.tableId === null || !isKnown(p, layout.table === 'gpt'));
  if (unknown.length > 0) return { code: 'identity not known', numbers: unknown.map((p) => p.number) };
  return linesOf([
    layout.table === 'gpt' ? sfdisk`label: gpt` : sfdisk`label: dos`,
    ...(stays.length > 0 && layout.tableId !== null ? [sfdisk`label-id: ${layout.tableId}`] : []),
    sfdisk`unit: sectors`,
    sfdisk`sector-size: ${layout.sectorSize}`,
    sfdisk``,
    ...parts.map((p) => line(p, layout)),
  ]);
}
