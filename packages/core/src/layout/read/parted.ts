import { BIOS_BOOT_GUID, ESP_GUID, LINUX_SWAP_GUID } from '../../formats/gpt/layout';
import type { DriveThere, PartThere } from '../../model/layout';
import { TableError } from './fault';

/** Flags of parted as the types they stand for; what else there is is told by its file system. */
const TYPES: readonly [RegExp, string][] = [
  [/\besp\b/, ESP_GUID],
  [/\bbios_grub\b/, BIOS_BOOT_GUID],
  [/\bswap\b/, LINUX_SWAP_GUID],
];

/** “1048576B” or “2048s” as bytes; anything else is rounded and cannot be used. */
function bytesOf(text: string, sector: number): number {
  const [, digits, unit] = /^(\d+)(B|s)$/.exec(text) ?? [];
  if (digits === undefined) throw new TableError({ code: 'rounded' });
  return Number(digits) * (unit === 's' ? sector : 1);
}

/** What `parted -m … unit B print` (or `unit s`) says of one drive (its manual, “--machine”). */
export function readParted(text: string): DriveThere | undefined {
  const lines = text.split(/\r?\n/).filter((l) => l.trim() !== '');
  const [unit = '', head = '', ...rest] = lines;
  if (!/^(BYT|CYL|CHS);$/.test(unit.trim())) return undefined;
  if (!unit.startsWith('BYT')) throw new TableError({ code: 'rounded' });
  const [path = '', size = '', , logical = '', , label = ''] = head.replace(/;$/, '').split(':');
  const sector = Number(logical);
  if (sector !== 512 && sector !== 4096) throw new TableError({ code: 'bad line', line: 2 });
  const parts = rest.map((l, i): PartThere => {
    const [number = '', start = '', , length = '', filesystem = '', name = '', flags = ''] = l
      .replace(/;$/, '')
      .split(':');
    if (!/^\d+$/.test(number)) throw new TableError({ code: 'bad line', line: i + 3 });
    return {
      number: Number(number),
      start: bytesOf(start, sector),
      bytes: bytesOf(length, sector),
      type:
        label === 'gpt'
          ? (TYPES.find(([flag]) => flag.test(flags))?.[1] ?? '')
          : /\bextended\b/.test(flags)
            ? '05'
            : '',
      name: label === 'gpt' ? name : '',
      filesystem: filesystem === '' ? null : filesystem,
      label: null,
      uuid: null,
      attributes: null,
      active: label === 'msdos' && /\bboot\b/.test(flags),
    };
  });
  const table =
    label === 'gpt'
      ? 'gpt'
      : label === 'msdos'
        ? 'mbr'
        : label === 'loop' || label === 'unknown'
          ? 'none'
          : 'unknown';
  return { name: path, bytes: bytesOf(size, sector), sectorSize: sector, table, tableId: null, parts };
}
