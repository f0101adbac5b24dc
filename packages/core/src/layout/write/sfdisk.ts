import type { LaidPart, Layout } from '../laid';

const quoted = (text: string): string => `"${text.replace(/["\\]/g, '_')}"`;

function line(p: LaidPart, { table, sectorSize }: Layout): string {
  return [
    `${p.number} : start=${p.start / sectorSize}`,
    `size=${p.bytes / sectorSize}`,
    `type=${table === 'gpt' ? p.type : p.type.replace(/^0/, '')}`,
    ...(table === 'gpt' && p.uuid ? [`uuid=${p.uuid}`] : []),
    ...(table === 'gpt' && p.name !== '' ? [`name=${quoted(p.name)}`] : []),
    ...(p.active ? ['bootable'] : []),
  ].join(', ');
}

/**
 * The layout as a script for `sfdisk` (its manual, “Named-fields format”): it writes the whole table; parts that stay
 * stand in it as they are. Empty where there is no table.
 */
export function sfdiskScript(layout: Layout): string {
  if (layout.table === 'none') return '';
  const parts = [...layout.parts].sort((a, b) => a.number - b.number);
  return [
    `label: ${layout.table === 'gpt' ? 'gpt' : 'dos'}`,
    'unit: sectors',
    `sector-size: ${layout.sectorSize}`,
    '',
    ...parts.map((p) => line(p, layout)),
    '',
  ].join('\n');
}
