import { attributesOfFlags } from '../formats/gpt/attributes';
import { following } from '../units/grammar';
import type { Content, ContentPart, Startable } from '../model/content';
import type { FirmwareKind } from '../model/inspection';
import { guidIn, loaderIn, signatureIn } from '../model/bootPath';
import type { BootEntry } from '../model/details';

/** A row of `lsblk -J -b -O`: a drive, a part, or what lies in one. */
export type BlockRow = Record<string, unknown> & { children?: BlockRow[] };

const text = (v: unknown): string | null => (typeof v === 'string' && v.trim() !== '' ? v.trim() : null);
/** Older versions of lsblk print numbers and flags as text. */
export const blockNumber = (v: unknown): number | null =>
  typeof v === 'number' ? v : typeof v === 'string' && /^\d+$/.test(v) ? Number(v) : null;

/** lsblk counts where a part begins in sectors of 512 bytes, whatever the drive's own are (its manual, START). */
const LSBLK_SECTOR = 512;
/** Attributes of a part's entry, where lsblk tells them at all (its manual, PARTFLAGS). */
const flagsOf = (row: BlockRow): string | null =>
  'partflags' in row ? attributesOfFlags(text(row.partflags)) : null;
/** Type of the EFI system partition (UEFI 2.10 table 5.7), and of its entry in an MBR (table 5.2). */
const ESP_TYPES = ['c12a7328-f81f-11d2-ba4b-00a0c93ec93b', '0xef', 'ef'];
/** Does UEFI start from a part of this type, as its table tells it? */
export const isStartType = (type: string): boolean => ESP_TYPES.includes(type.toLowerCase());
const SYSTEM_MOUNTS = ['/', '/boot', '/boot/efi', '/efi'];

const mountsOf = (row: BlockRow): string[] => {
  const list: unknown[] = Array.isArray(row.mountpoints) ? row.mountpoints : [row.mountpoint];
  return list.flatMap((m) => text(m) ?? []);
};

const partOf = (row: BlockRow): ContentPart => {
  const start = blockNumber(row.start);
  return {
    start: start === null ? null : start * LSBLK_SECTOR,
    bytes: blockNumber(row.size),
    type: following('partitionType', text(row.parttype)) ?? '',
    name: (text(row.partlabel) ?? '').slice(0, 300),
    filesystem: text(row.fstype)?.slice(0, 300) ?? null,
    label: text(row.label)?.slice(0, 300) ?? null,
    uuid: text(row.uuid)?.slice(0, 300) ?? null,
    partitionId: following('partitionId', text(row.partuuid))?.toLowerCase() ?? null,
    attributes: flagsOf(row),
    mount: mountsOf(row)[0]?.slice(0, 300) ?? null,
  };
};

/** What lsblk calls a table by: on MBR its signature comes without 0x. */
export const tableName = (id: string | null, table: Content['table']): string | null =>
  id !== null && table === 'mbr' && !id.startsWith('0x') ? `0x${id}` : id;

/** All that lies in a row and in what lies in that: encrypted and logical volumes among it. */
const within = (row: BlockRow): BlockRow[] => [row, ...(row.children ?? []).flatMap(within)];

/**
 * What lies on a drive by its row of lsblk and the firmware's boot entries. What starts is known where a boot entry names
 * one of its parts, where the system that ran the survey lies on it, or where nothing is on it at all; else it is not known.
 */
export function contentFrom(
  row: BlockRow,
  entries: readonly BootEntry[],
  firmware: FirmwareKind | undefined,
): Content {
  const children = (row.children ?? []).filter((c) => text(c.type) === 'part');
  const whole = text(row.fstype) !== null;
  const type = text(row.pttype);
  const table = type === 'gpt' ? 'gpt' : type === 'dos' ? 'mbr' : type === null ? 'none' : 'unknown';
  const parts = children.length > 0 ? children.map(partOf) : whole ? [partOf(row)] : [];
  const learnt = { from: 'survey' as const, at: '', imageId: null };
  const logical = blockNumber(row['log-sec']);
  const own = {
    table,
    // On MBR lsblk(8) tells the signature without its 0x.
    tableId: following('tableId', tableName(text(row.ptuuid), table))?.toLowerCase() ?? null,
    sectorSize: logical === 512 || logical === 4096 ? logical : null,
  } as const;
  if (parts.length === 0) return { ...own, parts, starts: [], learnt };

  const guids = new Set(children.flatMap((c) => text(c.partuuid)?.toLowerCase() ?? []));
  const starts = entries.flatMap((e): Startable[] => {
    const guid = guidIn(e.path);
    const disk = own.tableId !== null && signatureIn(e.path) === own.tableId.toLowerCase();
    if (!e.active || !(disk || (guid !== null && guids.has(guid)))) return [];
    const uefi = firmware?.startsWith('uefi') ? firmware : null;
    return [
      {
        by: 'boot entry',
        firmware: uefi,
        path: loaderIn(e.path).slice(0, 300),
        title: e.label || 'a boot entry',
      },
    ];
  });
  const running = within(row).some((r) => mountsOf(r).some((m) => SYSTEM_MOUNTS.includes(m)));
  if (starts.length === 0 && running)
    starts.push({
      by: firmware === 'bios' ? 'boot code' : 'loader',
      firmware: firmware ?? null,
      path: '',
      title: 'the system that ran the survey',
    });
  if (starts.length > 0) return { ...own, parts, starts, learnt };
  // A system part may hold a loader by the name firmware looks for; without one UEFI finds nothing, BIOS code may be there.
  const espThere = parts.some((p) => isStartType(p.type) || p.filesystem === 'vfat');
  const nothing = firmware?.startsWith('uefi') === true && entries.length > 0 && !espThere;
  return { ...own, parts, starts: nothing ? [] : null, learnt };
}
