import type { ContentTarget } from '../model/contentRules';
import { GIB, KIB } from '../units/bytes';

/** What a target takes: names, paths, sizes, and whether two names that differ by case alone are one to it. */
export interface TargetRules {
  title: string;
  /** The most bytes of a file. */
  most: number;
  /** The longest name, and in what it is counted. */
  name: { most: number; in: 'UTF-16' | 'bytes' };
  /** The longest path, counted the same way. */
  path: number;
  oneCase: boolean;
  /** Letters it refuses, and whether words, trailing dots and blanks are refused. */
  letters: RegExp;
  words: boolean;
  ends: boolean;
}

/** Letters of the kind that older systems keep for themselves: [MS-FSCC] §2.1.5.1, “File Name”, from memory. */
const KEPT = /["*/:<>?\\|\p{Cc}]/u;
/** Names of devices, with any ending ([MS-FSCC] §2.1.5.1 and “Naming Files, Paths, and Namespaces”, from memory). */
const DEVICES = /^(con|prn|aux|nul|com[0-9¹²³]|lpt[0-9¹²³])(\.|$)/i;

const kept = { letters: KEPT, words: true, ends: true, oneCase: true } as const;

/**
 * What each target takes. FAT: “FAT: General Overview of On-Disk Format” 1.03, long names of 255 UTF-16 units, files
 * below 4 GiB. exFAT: its specification §7.7. NTFS: names as the systems that use it take them. ext4: 255 bytes, no slash
 * and no NUL (path_resolution(7), 4096 bytes of a path). SMB: [MS-FSCC]. From memory; held against made file systems.
 */
export const targetRules: Record<ContentTarget, TargetRules> = {
  fat: { title: 'FAT', most: 4 * GIB - 1, name: { most: 255, in: 'UTF-16' }, path: 260, ...kept },
  exfat: { title: 'exFAT', most: 2 ** 53, name: { most: 255, in: 'UTF-16' }, path: 32_767, ...kept },
  ntfs: { title: 'NTFS', most: 2 ** 53, name: { most: 255, in: 'UTF-16' }, path: 32_767, ...kept },
  ext4: {
    title: 'ext4',
    most: 16 * 1024 * GIB,
    name: { most: 255, in: 'bytes' },
    path: 4096,
    oneCase: false,
    letters: /[/\0]/,
    words: false,
    ends: false,
  },
  smb: { title: 'SMB', most: 2 ** 53, name: { most: 255, in: 'UTF-16' }, path: 32_767, ...kept },
};

const bytesOf = (text: string): number => {
  let n = 0;
  for (const c of text) {
    const code = c.codePointAt(0) ?? 0;
    n += code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
  }
  return n;
};
/** How long a text is as a target counts it. */
export const lengthIn = (text: string, unit: 'UTF-16' | 'bytes'): number =>
  unit === 'bytes' ? bytesOf(text) : text.length;

/** Why a target refuses a name. */
export type Refused = 'letter' | 'set aside' | 'end' | 'not text' | 'too long';

/** A half of a pair of UTF-16 by itself: no text, and no name on a target that keeps names as text. */
const HALF = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/** Whether a path is text: no half of a pair, and nothing that stands for bytes that are none. */
export const isText = (path: string): boolean => !HALF.test(path) && !path.includes('\ufffd');

/** Why a target refuses one name; undefined where it takes it. */
export function refusal(name: string, target: ContentTarget): Refused | undefined {
  const rules = targetRules[target];
  if (!isText(name)) return 'not text';
  if (rules.letters.test(name)) return 'letter';
  if (rules.ends && /[. ]$/.test(name)) return 'end';
  if (rules.words && DEVICES.test(name)) return 'set aside';
  if (lengthIn(name, rules.name.in) > rules.name.most) return 'too long';
  return undefined;
}

const LOOKS: Record<string, string> = {
  ':': ' -',
  '/': '-',
  '\\': '-',
  '|': '-',
  '*': '+',
  '?': '',
  '"': "'",
  '<': '(',
  '>': ')',
};

/** As much of a text as a limit takes, cut between letters. */
function cut(text: string, most: number, unit: 'UTF-16' | 'bytes'): string {
  let out = '';
  let n = 0;
  for (const c of text) {
    n += lengthIn(c, unit);
    if (n > most) break;
    out += c;
  }
  return out;
}

/** A name a target takes, as near as can be; what it takes already stays as it is. */
export function mended(name: string, target: ContentTarget): string {
  if (refusal(name, target) === undefined) return name;
  const rules = targetRules[target];
  let out = name.replace(new RegExp(HALF, 'g'), '').replaceAll('\ufffd', '');
  out = out.replace(new RegExp(rules.letters, 'gu'), (c) => LOOKS[c] ?? '');
  if (rules.ends) out = out.replace(/[. ]+$/, '');
  if (rules.words && DEVICES.test(out)) out = out.replace(/^[^.]+/, '$&_');
  const dot = out.lastIndexOf('.');
  const ending = dot > 0 && out.length - dot <= 12 ? out.slice(dot) : '';
  if (lengthIn(out, rules.name.in) > rules.name.most)
    out =
      cut(
        out.slice(0, out.length - ending.length),
        rules.name.most - lengthIn(ending, rules.name.in),
        rules.name.in,
      ).replace(/[. ]+$/, '') + ending;
  return out === '' || out === '.' || out === '..' ? '_' : out;
}

/** A path of which a target takes every folder and the name, as near as can be. */
export const mendedPath = (path: string, target: ContentTarget): string =>
  path
    .split('/')
    .map((name) => mended(name, target))
    .join('/');

/** What two names are compared by where case does not count: upper-case letters one for one, as the targets' tables do. */
export const caseKey = (name: string): string => {
  // Nearly all names are plain, and there may be hundreds of thousands of them.
  if (/^[\x20-\x7e]*$/.test(name)) return name.toUpperCase();
  let out = '';
  for (const c of name) {
    const up = c.toUpperCase();
    // Letters that become two (ß) stay as they are: the tables have one letter for one.
    out += up.length === c.length ? up : c;
  }
  return out;
};

/** What two names are compared by where letters with marks are written in two ways: composed (Unicode, form NFC). */
export const formKey = (name: string): string => name.normalize('NFC');

/** What two paths are compared by on a target: as they are, or by form and case where it does not tell those apart. */
export const keyFor = (target: ContentTarget): ((path: string) => string) =>
  targetRules[target].oneCase ? (path) => caseKey(formKey(path)) : (path) => path;

/** How a target rounds what files take: its unit, and what an entry of a folder takes. Bytes. */
export interface Rounding {
  cluster: number;
  /** Bytes of an entry in its folder, by the length of its name in UTF-16 units. */
  entry: (length: number) => number;
}

/** Rounding of a FAT: entries of 32 bytes, one and one more for every 13 letters of a long name (FAT 1.03, long names). */
export const fatRounding = (cluster: number): Rounding => ({
  cluster,
  entry: (length) => 32 * (1 + Math.ceil(length / 13)),
});
/** Rounding of an exFAT: three entries of 32 bytes at least, one for every 15 letters (exFAT specification §7). */
export const exfatRounding = (cluster: number): Rounding => ({
  cluster,
  entry: (length) => 32 * (2 + Math.ceil(length / 15)),
});
/** Rounding of what keeps its folders in blocks of 4 KiB. */
export const blockRounding: Rounding = {
  cluster: 4 * KIB,
  entry: (length) => 8 + Math.ceil((length * 3) / 4) * 4,
};
