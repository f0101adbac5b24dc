import { ascii, holds, u32, u32be, u64 } from '../formats/bytes';
import type { ByteSource } from '../formats/source';
import { endingOf } from '../units/paths';

/** Whether the last so many bytes hold a text of Latin-1. */
const endHolds = async (s: ByteSource, count: number, text: string): Promise<boolean> => {
  const from = Math.max(0, s.size - count);
  return holds(await s.read(from, s.size - from), text);
};

/** ZIP: the end of the central directory stands in the last 65 557 bytes (PKWARE APPNOTE 6.3.10 §4.3.16). */
const zip = (s: ByteSource): Promise<boolean> => endHolds(s, 65_557, 'PK\x05\x06');
/** RIFF: the size after its name is that of all behind it (Multimedia Programming Interface 1.0, “RIFF”). */
const riff = async (s: ByteSource): Promise<boolean> => {
  const head = await s.read(0, Math.min(12, s.size));
  return ascii(head, 0, 4) === 'RIFF' && u32(head, 4) + 8 <= s.size;
};
/** PNG: the last chunk is IEND (ISO/IEC 15948 §11.2.5). */
const png = (s: ByteSource): Promise<boolean> => endHolds(s, 12, 'IEND');
/** JPEG: it ends with the marker EOI (ITU-T T.81 §B.1.1.3); cameras put things of their own behind it. */
const jpeg = (s: ByteSource): Promise<boolean> => endHolds(s, 65_536, '\xff\xd9');
/** GIF: the trailer (GIF89a §27). */
const gif = (s: ByteSource): Promise<boolean> => endHolds(s, 1024, ';');
/** PDF: the last line is %%EOF (ISO 32000-1 §7.5.5), within the last 1024 bytes as readers take it. */
const pdf = (s: ByteSource): Promise<boolean> => endHolds(s, 1024, '%%EOF');
/** 7z: where its header is said to be, there is room for it (7zFormat.txt, “SignatureHeader”). */
const sevenZip = async (s: ByteSource): Promise<boolean> => {
  const head = await s.read(0, Math.min(32, s.size));
  return head.length === 32 && 32 + u64(head, 12) + u64(head, 20) <= s.size;
};
/** MP4 and its kin: boxes one behind the other fill the file (ISO/IEC 14496-12 §4.2), and one of them is “moov”. */
async function boxes(s: ByteSource): Promise<boolean> {
  let offset = 0;
  let movie = false;
  for (let n = 0; n < 10_000 && offset < s.size; n += 1) {
    if (offset + 8 > s.size) return false;
    const head = await s.read(offset, Math.min(16, s.size - offset));
    const short = u32be(head, 0);
    const size =
      short === 1 ? u32be(head, 8) * 2 ** 32 + u32be(head, 12) : short === 0 ? s.size - offset : short;
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
