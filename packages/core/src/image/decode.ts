import { ascii, u16, u32, u8 } from '../formats/bytes';
import { bootCodeKind, STAGE_AT } from './bootCode';
import type { BootEntry } from '../formats/eltorito';
import type { GptCopy } from '../formats/gpt/read';
import type { IsoVolume } from '../formats/iso9660/read';
import type { FoundLoader } from './loaders';
import type { Mbr } from '../formats/mbr/read';
import type { Candidate } from './read';
import { formatExact } from '../units/bytes';
import type { Field } from '../model/inspection';

const hex = (value: number, digits: number): string =>
  value.toString(16).toUpperCase().padStart(digits, '0') + 'h';
const f = (offset: number, name: string, value: string | number): Field => ({
  offset,
  name,
  value: String(value),
});

/** Sector 0 as an MBR: UEFI 2.10 §5.2.1, tables 5.1 and 5.2. */
export function recordFields(head: Uint8Array, mbr: Mbr | undefined): Field[] {
  const kind = mbr && bootCodeKind(mbr.bootCode);
  const out = [f(0, 'Boot code', kind ?? 'not an MBR')];
  const stage = kind?.startsWith('names a sector')
    ? kind === 'names a sector'
      ? STAGE_AT.disk
      : STAGE_AT.optical
    : undefined;
  if (stage !== undefined) out.push(f(stage, 'Second stage at sector', u32(head, stage)));
  out.push(f(440, 'Disk signature', hex(u32(head, 440), 8)));
  for (const e of mbr?.entries.filter((x) => x.index <= 4) ?? []) {
    out.push(
      f(
        e.at,
        `Entry ${e.index}`,
        `type ${hex(e.type, 2)}, first byte ${formatExact(e.start)}, ${formatExact(e.bytes)}${e.active ? ', active' : ''}`,
      ),
    );
  }
  out.push(f(510, 'End mark', hex(u16(head, 510), 4)));
  return out;
}

/** A GPT header: UEFI 2.10 §5.3.2, table 5.5. */
export function gptFields(copy: GptCopy, sectorSize: number): Field[] {
  return [
    f(copy.header, 'Header and array', copy.sound ? 'both CRC-32 agree' : copy.faults.join('; ')),
    f(copy.header + 32, 'The other copy at byte', copy.alternate),
    f(copy.header + 40, 'Parts may begin at byte', copy.firstUsable),
    f(copy.header + 48, 'Parts must end by byte', copy.lastUsable),
    f(copy.header + 56, 'Disk GUID', copy.diskGuid),
    f(copy.header + 72, 'Entry array at byte', copy.array),
    f(
      copy.header + 80,
      'Entries',
      `${copy.parts.length} used; ${copy.arrayBytes} bytes, ${sectorSize}-byte sectors`,
    ),
    ...copy.parts.map((p) =>
      f(
        p.at,
        `Entry ${p.index}`,
        `${p.name || 'no name'}, type ${p.typeGuid}, first byte ${p.start}, ${formatExact(p.bytes)}`,
      ),
    ),
  ];
}

/** The primary volume descriptor: ECMA-119 §8.4. */
export function volumeFields(iso: IsoVolume): Field[] {
  const out = [
    f(32768 + 40, 'Volume', iso.label || 'no name'),
    f(32768 + 80, 'Volume size', formatExact(iso.bytes)),
    f(
      32768 + 156,
      'Names',
      iso.names === 'plain'
        ? 'plain'
        : `${iso.names}${iso.joliet && iso.names !== 'Joliet' ? ', Joliet too' : ''}`,
    ),
  ];
  if (iso.uuid !== undefined) out.push(f(32768 + 813, 'Made', iso.uuid));
  if (iso.udf) out.push(f(32768, 'UDF', 'shares the sectors'));
  if (iso.bootCatalogue !== undefined)
    out.push(f(iso.bootCatalogue, 'Boot catalogue at byte', iso.bootCatalogue));
  return out;
}

/** One entry of the boot catalogue: El Torito §2.2, §2.4. */
export const bootEntryFields = (e: BootEntry): Field[] => [
  f(
    e.offset,
    'Platform',
    e.platform === 'uefi' ? 'UEFI (EFh)' : e.platform === 'bios' ? 'BIOS (00h)' : 'other',
  ),
  f(e.offset, 'Emulation', e.emulation),
  f(e.offset, 'Loaded', e.loadBytes > 512 ? formatExact(e.loadBytes) : 'to the end of the volume'),
];

/** What begins a part: its file system's own words, and the loaders that live in it. */
export function partFields(c: Candidate, head: Uint8Array, loaders: readonly FoundLoader[]): Field[] {
  const out = [
    f(
      c.start,
      'Named by',
      c.from === 'gpt' ? `GPT entry ${c.index}` : c.from === 'mbr' ? `MBR entry ${c.index}` : 'no table',
    ),
    f(c.start, 'Type', c.from === 'mbr' ? `${c.type.toUpperCase()}h` : c.type),
  ];
  if (c.mark) out.push(f(c.start, 'Holds', c.mark.kind));
  if (c.mark?.label) out.push(f(c.start, 'Label', c.mark.label));
  if (c.mark?.uuid) out.push(f(c.start, c.fat ? 'Serial' : 'UUID', c.mark.uuid));
  if (c.mark?.bytes !== undefined) out.push(f(c.start, 'It says it spans', formatExact(c.mark.bytes)));
  if (c.fat) {
    out.push(
      f(c.start + 3, 'Made by', ascii(head, 3, 8)),
      f(c.start + 11, 'Bytes per sector', c.fat.bytesPerSector),
      f(c.start + 13, 'Bytes per cluster', c.fat.clusterBytes),
      f(c.start + 16, 'Copies of the table', u8(head, 16)),
      f(c.start, 'Clusters', c.fat.clusters),
    );
  }
  for (const l of loaders)
    out.push(f(l.offset, l.path, `${l.machine ?? 'not a loader'}, ${l.signed ? 'signed' : 'not signed'}`));
  return out;
}
