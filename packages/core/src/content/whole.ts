import type { ByteSource } from '../formats/source';
import { endingOf } from './paths';

const at = (bytes: Uint8Array, offset: number, count: number, little: boolean): number => {
  let n = 0;
  for (let i = 0; i < count; i += 1) n = n * 256 + (bytes[offset + (little ? count - 1 - i : i)] ?? 0);
  return n;
};
const ascii = (bytes: Uint8Array, offset: number, count: number): string =>
  String.fromCharCode(...bytes.subarray(offset, offset + count));
const ends = async (s: ByteSource, count: number): Promise<string> => {
  const from = Math.max(0, s.size - count);
  const tail = await s.read(from, s.size - from);
  return new TextDecoder('latin1').decode(tail);
};

/** ZIP: the end of the central directory stands in the last 65 557 bytes (PKWARE APPNOTE 6.3.10 §4.3.16). */
const zip = async (s: ByteSource): Promise<boolean> => (await ends(s, 65_557)).includes('PK\x05\x06');
/** RIFF: the size after its name is that of all behind it (Multimedia Programming Interface 1.0, “RIFF”). */
const riff = async (s: ByteSource): Promise<boolean> => {
  const head = await s.read(0, Math.min(12, s.size));
  return ascii(head, 0, 4) === 'RIFF' && at(head, 4, 4, true) + 8 <= s.size;
};
/** PNG: the last chunk is IEND (ISO/IEC 15948 §11.2.5). */
const png = async (s: ByteSource): Promise<boolean> => (await ends(s, 12)).includes('IEND');
/** JPEG: it ends with the marker EOI (ITU-T T.81 §B.1.1.3); cameras put things of their own behind it. */
const jpeg = async (s: ByteSource): Promise<boolean> => (await ends(s, 65_536)).includes('\xff\xd9');
/** GIF: the trailer (GIF89a §27). */
const gif = async (s: ByteSource): Promise<boolean> => (await ends(s, 1024)).includes(';');
/** PDF: the last line is %%EOF (ISO 32000-1 §7.5.5), within the last 1024 bytes as readers take it. */
const pdf = async (s: ByteSource): Promise<boolean> => (await ends(s, 1024)).includes('%%EOF');
/** 7z: where its header is said to be, there is room for it (7zFormat.txt, “SignatureHeader”). */
const sevenZip = async (s: ByteSource): Promise<boolean> => {
  const head = await s.read(0, Math.min(32, s.size));
  return head.length === 32 && 32 + at(head, 12, 8, true) + at(head, 20, 8, true) <= s.size;
};
/** MP4 and its kin: boxes one behind the other fill the file (ISO/IEC 14496-12 §4.2), and one of them is “moov”. */
async function boxes(s: ByteSource): Promise<boolean> {
  let offset = 0;
  let movie = false;
  for (let n = 0; n < 10_000 && offset < s.size; n += 1) {
    if (offset + 8 > s.size) return false;
    const head = await s.read(offset, Math.min(16, s.size - offset));
    const short = at(head, 0, 4, false);
    const size = short === 1 ? at(head, 8, 8, false) : short === 0 ? s.size - offset : short;
    if (size < 8) return false;
    if (ascii(head, 4, 4) === 'moov') movie = true;
    offset += size;
  }
  return movie && offset === s.size;
}

const BY: Record<string, (s: ByteSource) => Promise<boolean>> = {
  zip,
  epub: zip,
  odt: zip,
  ods: zip,
  odp: zip,
  docx: zip,
  xlsx: zip,
  wav: riff,
  avi: riff,
  webp: riff,
  png,
  jpg: jpeg,
  jpeg,
  gif,
  pdf,
  '7z': sevenZip,
  mp4: boxes,
  m4v: boxes,
  m4a: boxes,
  mov: boxes,
};

/** Whether a file of this name can be looked at for its end. */
export const hasEnd = (path: string): boolean => BY[endingOf(path)] !== undefined;

/** Whether a file ends as files of its ending do; undefined where that cannot be told. A few bytes are read. */
export async function endsWhole(path: string, source: ByteSource): Promise<boolean | undefined> {
  const look = BY[endingOf(path)];
  return look && source.size > 0 ? look(source) : undefined;
}
