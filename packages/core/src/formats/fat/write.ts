import { put16, put32, putText } from '../put';
import { ATTRIBUTE, DIR_ENTRY, FAT12_CLUSTERS, FAT16_BOOT, FAT_BOOT, LABEL_BYTES } from './layout';
import { END_MARK, MBR } from '../mbr/layout';

/** A file to be put on a composed volume; its path with slashes. */
export interface ComposedFile {
  /** Absolute, upper-case 8.3 names only: '/EFI/BOOT/BOOTX64.EFI'. */
  path: string;
  bytes: Uint8Array;
}

interface Node {
  name: string;
  content: Uint8Array | Map<string, Node>;
}

const ROOT_ENTRIES = 512;
const FATS = 2;

function tree(files: readonly ComposedFile[]): Map<string, Node> {
  const root = new Map<string, Node>();
  for (const file of files) {
    const names = file.path.split('/').filter(Boolean);
    let at = root;
    names.forEach((name, i) => {
      if (!/^[A-Z0-9_~-]{1,8}(\.[A-Z0-9_~-]{1,3})?$/.test(name))
        throw new RangeError(`not an 8.3 name: ${name}`);
      if (i === names.length - 1) at.set(name, { name, content: file.bytes });
      else {
        let next = at.get(name);
        if (!next) at.set(name, (next = { name, content: new Map<string, Node>() }));
        if (next.content instanceof Map) at = next.content;
      }
    });
  }
  return root;
}

/**
 * Makes a FAT16 (or, below 4085 clusters, FAT12) volume of exactly `bytes` bytes.
 * Source: FAT file-system specification 1.03, §3.1 (boot sector), §4 (FAT), §6 (directories).
 * Throws RangeError where the files do not fit.
 */
export function composeFat(options: {
  bytes: number;
  label: string;
  files: readonly ComposedFile[];
  bootCode?: Uint8Array;
  /** What lies between the boot sector and the FATs; whole sectors. */
  reserved?: Uint8Array;
  /** Sectors before the volume; kept in the boot sector for boot code that asks. */
  hiddenSectors?: number;
}): Uint8Array {
  const sectors = Math.floor(options.bytes / 512);
  const reserved = 1 + Math.ceil((options.reserved?.length ?? 0) / 512);
  const spc = sectors > 65536 ? 8 : sectors > 16384 ? 4 : 1;
  const rootSectors = (ROOT_ENTRIES * DIR_ENTRY.bytes) / 512;
  let fatSectors = 1;
  let clusters = 0;
  for (let pass = 0; pass < 8; pass += 1) {
    clusters = Math.floor((sectors - reserved - FATS * fatSectors - rootSectors) / spc);
    const bits = clusters < FAT12_CLUSTERS ? 12 : 16;
    fatSectors = Math.ceil(((clusters + 2) * bits) / 8 / 512);
  }
  const wide = clusters >= FAT12_CLUSTERS;
  const out = new Uint8Array(sectors * 512);
  out.set([0xeb, 0x3c, 0x90]);
  putText(out, FAT_BOOT.oemName, 'ZBOX', 8);
  put16(out, FAT_BOOT.bytesPerSector, 512);
  out[FAT_BOOT.sectorsPerCluster] = spc;
  put16(out, FAT_BOOT.reserved, reserved);
  out[FAT_BOOT.fats] = FATS;
  put16(out, FAT_BOOT.rootEntries, ROOT_ENTRIES);
  if (sectors < 65536) put16(out, FAT_BOOT.sectors16, sectors);
  else put32(out, FAT_BOOT.sectors32, sectors);
  out[FAT_BOOT.media] = 0xf8;
  put16(out, FAT_BOOT.fatSectors16, fatSectors);
  put16(out, FAT_BOOT.sectorsPerTrack, 63);
  put16(out, FAT_BOOT.heads, 255);
  put32(out, FAT_BOOT.hiddenSectors, options.hiddenSectors ?? 0);
  out[FAT16_BOOT.drive] = 0x80;
  out[FAT16_BOOT.mark] = 0x29;
  put32(out, FAT16_BOOT.serial, 0x5a420001);
  putText(out, FAT16_BOOT.label, options.label, LABEL_BYTES);
  putText(out, FAT16_BOOT.kind, wide ? 'FAT16' : 'FAT12', 8);
  if (options.bootCode) out.set(options.bootCode.subarray(0, MBR.endMark - FAT16_BOOT.code), FAT16_BOOT.code);
  put16(out, MBR.endMark, END_MARK);

  if (options.reserved) out.set(options.reserved, 512);

  const fatAt = reserved * 512;
  const rootAt = fatAt + FATS * fatSectors * 512;
  const dataAt = rootAt + rootSectors * 512;
  const setFat = (cluster: number, value: number): void => {
    for (let copy = 0; copy < FATS; copy += 1) {
      const base = fatAt + copy * fatSectors * 512;
      if (wide) put16(out, base + 2 * cluster, value);
      else {
        const o = base + cluster + (cluster >> 1);
        if (cluster & 1) {
          out[o] = ((out[o] ?? 0) & 0x0f) | ((value & 0x0f) << 4);
          out[o + 1] = value >> 4;
        } else {
          out[o] = value & 0xff;
          out[o + 1] = ((out[o + 1] ?? 0) & 0xf0) | ((value >> 8) & 0x0f);
        }
      }
    }
  };
  const end = wide ? 0xffff : 0xfff;
  setFat(0, wide ? 0xfff8 : 0xff8);
  setFat(1, end);
  let free = 2;
  const allocate = (bytes: number): number => {
    const count = Math.max(1, Math.ceil(bytes / (spc * 512)));
    if (free + count > clusters + 2) throw new RangeError('the files do not fit the volume');
    const first = free;
    for (let i = 0; i < count; i += 1) setFat(first + i, i === count - 1 ? end : first + i + 1);
    free += count;
    return first;
  };
  const offset = (cluster: number): number => dataAt + (cluster - 2) * spc * 512;
  const entry = (at: number, name: string, attributes: number, cluster: number, size: number): void => {
    const [base = '', extension = ''] = name.startsWith('.') ? [name] : name.split('.');
    putText(out, at, base, 8);
    putText(out, at + DIR_ENTRY.extension, extension, 3);
    out[at + DIR_ENTRY.attributes] = attributes;
    put16(out, at + DIR_ENTRY.date, 0x5821);
    put16(out, at + DIR_ENTRY.cluster, cluster);
    put32(out, at + DIR_ENTRY.size, size);
  };
  const writeDirectory = (nodes: Map<string, Node>, at: number, own: number, parent: number): void => {
    let o = at;
    if (own > 0) {
      entry(o, '.', ATTRIBUTE.directory, own, 0);
      entry(o + DIR_ENTRY.bytes, '..', ATTRIBUTE.directory, parent, 0);
      o += 2 * DIR_ENTRY.bytes;
    } else {
      putText(out, o, options.label, LABEL_BYTES);
      out[o + DIR_ENTRY.attributes] = ATTRIBUTE.volume;
      o += DIR_ENTRY.bytes;
    }
    for (const node of nodes.values()) {
      if (node.content instanceof Map) {
        const cluster = allocate((node.content.size + 2) * DIR_ENTRY.bytes);
        entry(o, node.name, ATTRIBUTE.directory, cluster, 0);
        writeDirectory(node.content, offset(cluster), cluster, own);
      } else {
        const cluster = allocate(node.content.length);
        entry(o, node.name, ATTRIBUTE.archive, cluster, node.content.length);
        out.set(node.content, offset(cluster));
      }
      o += DIR_ENTRY.bytes;
    }
  };
  writeDirectory(tree(options.files), rootAt, 0, 0);
  return out;
}
