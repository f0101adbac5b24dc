import { z } from 'zod';
import type { DriveThere, PartThere } from '../../model/layout';
import { TableError } from './fault';
import { following } from '../../units/grammar';
import { attributesOfFlags } from '../../formats/gpt/attributes';
import { tableName } from '../../machine/content';
import { numberOf, tableKind } from './sfdisk';

const number = z.union([z.number(), z.string()]).nullish();
const text = z.string().nullish();
const node = z.object({
  name: z.string(),
  type: text,
  size: number,
  start: number,
  'log-sec': number,
  pttype: text,
  parttype: text,
  partlabel: text,
  partuuid: text,
  partn: number,
  partflags: text,
  ptuuid: text,
  fstype: text,
  label: text,
  children: z.array(z.unknown()).nullish(),
});
type Node = z.infer<typeof node>;
const listSchema = z.object({ blockdevices: z.array(node) });
/** The column START counts in sectors of 512 bytes whatever the drive answers (lsblk(8)). */
const START_UNIT = 512;

/** A whole number of bytes; a size like “465.8G” is rounded, which no part may be placed by. */
function exactly(value: Node['size']): number {
  const n = typeof value === 'number' ? value : /^\d+$/.test(value ?? '') ? Number(value) : NaN;
  if (Number.isNaN(n)) throw new TableError({ code: value == null ? 'no bytes' : 'rounded' });
  return n;
}

/** Attributes of an entry; null where the text does not tell them at all. */
const flagsOf = ({ partflags }: Node): string | null =>
  partflags === undefined ? null : attributesOfFlags(partflags);

function partOf(n: Node, at: number): PartThere {
  return {
    number: n.partn == null ? numberOf(n.name, at) : Number(n.partn),
    start: exactly(n.start) * START_UNIT,
    bytes: exactly(n.size),
    type: following('partitionType', (n.parttype ?? '').replace(/^0x/, '')) ?? '',
    name: n.partlabel ?? '',
    filesystem: n.fstype ?? null,
    label: n.label ?? null,
    uuid: following('partitionId', n.partuuid),
    attributes: flagsOf(n),
    active: false,
  };
}

/**
 * `lsblk --json --bytes -o NAME,TYPE,SIZE,START,LOG-SEC,PTTYPE,PARTTYPE,PARTLABEL,PARTUUID,PARTN,FSTYPE,LABEL`: the drive
 * of that name, or the only one.
 */
export function readLsblk(json: unknown, name: string | undefined): DriveThere | undefined {
  const read = listSchema.safeParse(json);
  if (!read.success) return undefined;
  const drives = read.data.blockdevices.filter(
    (d) => d.type == null || d.type === 'disk' || d.type === 'loop',
  );
  const drive =
    name === undefined ? (drives.length === 1 ? drives[0] : undefined) : drives.find((d) => d.name === name);
  if (!drive) throw new TableError({ code: 'no such drive', drives: drives.map((d) => d.name) });
  const parts = (drive.children ?? []).flatMap((c, i) => {
    const child = node.safeParse(c).data;
    return child && (child.type == null || child.type === 'part') ? [partOf(child, i)] : [];
  });
  const table = drive.pttype ? tableKind(drive.pttype) : 'none';
  const sector = drive['log-sec'] == null ? 512 : Number(drive['log-sec']);
  return {
    name: drive.name,
    bytes: exactly(drive.size),
    sectorSize: sector === 4096 ? 4096 : 512,
    table,
    tableId: following('tableId', tableName(drive.ptuuid ?? null, table)),
    parts,
  };
}
