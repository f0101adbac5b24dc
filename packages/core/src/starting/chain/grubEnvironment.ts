import type { RungWhy } from '../../model/chain';
import type { Wanted } from './files';
import { notOpened, type ChainVolume } from './volumes';

/** What a device or a path of a script leads to. */
export type Resolved<T> = { found: T } | { why: RungWhy };

/** A device that a search left open, because a volume that is not opened here may hold what was searched for. */
export const UNTOLD = '?';

/** Names that GRUB gives volumes (GRUB manual, “Naming convention”): hd0,gpt2; hd0,msdos1; hd0; cd0; and those of scripts. */
export class GrubDevices {
  private readonly own = new Map<string, ChainVolume>();
  /** The volume that was not opened, where a search stayed without an answer. */
  untold: ChainVolume | undefined;

  constructor(
    readonly volumes: readonly ChainVolume[],
    private readonly attached: 'disk' | 'optical',
  ) {}

  /** The name of the drive that it was started from. */
  get drive(): string {
    return this.attached === 'optical' ? 'cd0' : 'hd0';
  }

  name(volume: ChainVolume): string {
    if (volume.from === 'whole') return this.drive;
    return `${this.drive},${volume.from === 'gpt' ? 'gpt' : 'msdos'}${volume.index}`;
  }

  define(name: string, volume: ChainVolume): void {
    this.own.set(name, volume);
  }

  find(device: string): Resolved<ChainVolume> {
    const own = this.own.get(device);
    if (own) return { found: own };
    if (device === UNTOLD && this.untold) return { why: notOpened(this.untold) };
    const hit = /^(hd|cd|fd)(\d*)(?:,(gpt|msdos)?(\d+))?$/.exec(device);
    if (!hit) return { why: { code: 'device not there', device } };
    const [, kind = '', number = '', , part] = hit;
    // On a stick or a disc it is started from, the first drive is itself; any other is none of the image.
    const itself = kind === 'cd' ? this.attached === 'optical' : kind === 'hd' && Number(number || 0) === 0;
    if (!itself) return { why: { code: 'another drive', device } };
    const volume = this.volumes.find((v) =>
      part === undefined ? v.from === 'whole' : v.from !== 'whole' && v.index === Number(part),
    );
    return volume ? { found: volume } : { why: { code: 'device not there', device } };
  }

  /** A path with or without a device in front, from the device that is the root. */
  file(path: string, root: string): Resolved<Wanted> {
    const hit = /^\(([^)]*)\)(.*)$/.exec(path);
    const device = hit ? hit[1] || root : root;
    const rest = hit ? (hit[2] ?? '') : path;
    const found = this.find(device);
    if ('why' in found) return found;
    return { found: { volume: found.found, path: rest } };
  }
}

/** Reads an environment block: lines of name=value behind its first line (GRUB manual, “The GRUB environment block”). */
export function environmentBlock(text: string): Map<string, string> {
  const out = new Map<string, string>();
  if (!text.startsWith('# GRUB Environment Block')) return out;
  for (const line of text.split('\n').slice(1)) {
    const at = line.indexOf('=');
    if (at > 0 && !line.startsWith('#')) out.set(line.slice(0, at), line.slice(at + 1));
  }
  return out;
}

/** The words of a command told apart: options with what belongs to them, and the rest. */
export function optionsOf(
  words: readonly string[],
  takesValue: readonly string[],
): { options: Map<string, string>; rest: string[] } {
  const options = new Map<string, string>();
  const rest: string[] = [];
  for (let i = 0; i < words.length; i += 1) {
    const word = words[i] ?? '';
    const [, name = '', value] = /^--?([A-Za-z][\w-]*)(?:=(.*))?$/s.exec(word) ?? [];
    if (name === '') rest.push(word);
    else if (value !== undefined) options.set(name, value);
    else if (takesValue.includes(name)) options.set(name, words[(i += 1)] ?? '');
    else options.set(name, '');
  }
  return { options, rest };
}

/** The words of a command that are no long options: what it works on. */
export const operandsOf = (words: readonly string[]): string[] => words.filter((w) => !w.startsWith('--'));
