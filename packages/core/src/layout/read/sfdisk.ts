import { z } from 'zod';
import { GPT_ARRAY_BYTES } from '../../formats/gpt/layout';
import { readSfdiskDump, DumpError } from '../../formats/sfdiskDump';
import type { DriveThere, PartThere } from '../../model/layout';
import { following } from '../../units/grammar';
import { TableError } from './fault';

const tableSchema = z.object({
  partitiontable: z.object({
    label: z.string(),
    id: z.string().optional(),
    device: z.string().default(''),
    unit: z.literal('sectors'),
    lastlba: z.number().optional(),
    sectorsize: z.number().default(512),
    partitions: z
      .array(
        z.object({
          node: z.string(),
          start: z.number(),
          size: z.number(),
          type: z.string(),
          uuid: z.string().optional(),
          name: z.string().optional(),
          attrs: z.string().optional(),
          bootable: z.boolean().optional(),
        }),
      )
      .default([]),
  }),
});

/** The number at the end of a part's path. */
export const numberOf = (node: string, at: number): number => Number(/(\d+)$/.exec(node)?.[1] ?? at + 1);

/** A table by the name that util-linux has for it. */
export const tableKind = (label: string): DriveThere['table'] =>
  label === 'gpt' ? 'gpt' : label === 'dos' ? 'mbr' : 'unknown';

/** The end of the drive where nothing tells it: behind GPT's last usable sector lie its copies; else behind the last part. */
function bytesOf(
  table: DriveThere['table'],
  lastLba: number | undefined,
  sector: number,
  parts: PartThere[],
): number {
  if (table === 'gpt' && lastLba !== undefined) return (lastLba + 2 + GPT_ARRAY_BYTES / sector) * sector;
  return Math.max(0, ...parts.map((p) => p.start + p.bytes));
}

const sectorOf = (size: number): 512 | 4096 => {
  if (size !== 512 && size !== 4096) throw new TableError({ code: 'odd sectors', bytes: size });
  return size;
};

/** `sfdisk --json`: one drive. `bytes` is its size where it is known otherwise. */
export function readSfdiskJson(json: unknown, bytes: number | undefined): DriveThere | undefined {
  const read = tableSchema.safeParse(json);
  if (!read.success) return undefined;
  const { label, id, device, lastlba, sectorsize, partitions } = read.data.partitiontable;
  const sectorSize = sectorOf(sectorsize);
  const table = tableKind(label);
  const parts = partitions.map((p, i): PartThere => ({
    number: numberOf(p.node, i),
    start: p.start * sectorSize,
    bytes: p.size * sectorSize,
    type: following('partitionType', p.type) ?? '',
    name: p.name ?? '',
    filesystem: null,
    label: null,
    uuid: following('partitionId', p.uuid),
    attributes: following('attributes', p.attrs) ?? '',
    active: p.bootable ?? false,
  }));
  const size = bytes ?? bytesOf(table, lastlba, sectorSize, parts);
  if (size === 0) throw new TableError({ code: 'no bytes' });
  return {
    name: device,
    bytes: size,
    sectorSize,
    table,
    tableId: following('tableId', id),
    parts,
  };
}

/** `sfdisk --dump`. `bytes` as above. */
export function readSfdiskText(text: string, bytes: number | undefined): DriveThere {
  try {
    const dump = readSfdiskDump(text);
    const sectorSize = sectorOf(dump.sectorSize);
    const nodes = [...text.matchAll(/^(\S+)\s+:\s+start=/gm)].map(([, node = '']) => node);
    const last = Number(/^last-lba:\s*(\d+)/m.exec(text)?.[1] ?? NaN);
    const table = tableKind(dump.label);
    const parts = dump.parts.map((p, i): PartThere => ({
      number: numberOf(nodes[i] ?? '', i),
      start: p.start,
      bytes: p.bytes,
      type: p.type,
      name: p.name,
      filesystem: null,
      label: null,
      uuid: p.uuid,
      attributes: p.attributes,
      active: p.bootable,
    }));
    const size = bytes ?? bytesOf(table, Number.isNaN(last) ? undefined : last, sectorSize, parts);
    if (size === 0) throw new TableError({ code: 'no bytes' });
    const name = /^device:\s*(\S+)/m.exec(text)?.[1] ?? '';
    return { name, bytes: size, sectorSize, table, tableId: dump.tableId, parts };
  } catch (error) {
    if (error instanceof DumpError) throw new TableError({ code: 'bad dump', words: error.message });
    throw error;
  }
}
