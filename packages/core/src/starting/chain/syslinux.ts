import { readSyslinuxConfig, type SyslinuxConfig, type SyslinuxEntry } from '../../formats/syslinuxConfig';
import { holds } from '../../formats/bytes';
import { folderOf, pathFrom, plainPath } from '../../formats/volume';
import type { ByteSource } from '../../formats/source';
import type { RungWhy } from '../../model/chain';
import type { Rung } from '../../model/inspection';
import { initialDiskRung, kernelRung, openWanted, readText, rung } from './files';
import type { ChainVolume } from './volumes';

/** Where a loader of the family was started from: its volume and the folder it was installed in. */
export interface SyslinuxStart {
  source: ByteSource;
  volume: ChainVolume;
  folder: string;
  /** Which of them it is; it looks for its own configuration first. */
  as: 'syslinux' | 'isolinux' | 'extlinux';
  /** From version 5 on, its core needs this module beside it. */
  needsModule: boolean;
}

const FILES = {
  syslinux: ['syslinux.cfg'],
  isolinux: ['isolinux.cfg', 'syslinux.cfg'],
  extlinux: ['extlinux.conf', 'syslinux.cfg'],
};
/** Folders searched (Syslinux wiki, “Config”, “Working directory”); the one it was installed in comes first. */
const FOLDERS = [
  '/boot/isolinux',
  '/isolinux',
  '/boot/syslinux',
  '/syslinux',
  '/boot/extlinux',
  '/extlinux',
  '/boot',
  '/',
];
const MAX_FILES = 40;
const MAX_CONFIGS = 8;
/** A module of the library that another names, as its dynamic section spells it. */
const LIBRARY = ['libcom32.c32', 'libutil.c32', 'libgpl.c32', 'liblua.c32', 'libmenu.c32'];

class SyslinuxRun {
  private files = 0;
  constructor(private readonly start: SyslinuxStart) {}

  private wanted(path: string): { volume: ChainVolume; path: string } {
    return { volume: this.start.volume, path };
  }

  async there(path: string): Promise<boolean> {
    const found = await (await this.start.volume.open())?.find(path);
    return found !== undefined && !found.directory;
  }

  /** The first of the places where a file is that is there. */
  async first(names: readonly string[], folders: readonly string[]): Promise<string | undefined> {
    for (const folder of folders)
      for (const name of names) if (await this.there(pathFrom(folder, name))) return pathFrom(folder, name);
    return undefined;
  }

  get folders(): string[] {
    const { folder, as } = this.start;
    const own = FOLDERS.filter((f) => (as === 'isolinux' ? true : !f.includes('isolinux')));
    return [...new Set([folder, ...own])];
  }

  /** A module, and what it needs of the library; what of them is missing. */
  async module(name: string, folder: string): Promise<RungWhy | undefined> {
    const file = /\.c32$/i.test(name) ? name : `${name}.c32`;
    const path = name.startsWith('/') ? plainPath(file) : await this.first([file], [folder, ...this.folders]);
    const missing = (what: string): RungWhy => ({
      code: 'module missing',
      path: pathFrom(folder, what),
      place: this.start.volume.place,
    });
    if (path === undefined) return missing(file);
    const opened = await openWanted(this.wanted(path));
    if ('why' in opened) return opened.why.code === 'not there' ? missing(path) : opened.why;
    const bytes = await opened.file.read(0, 512 * 1024);
    if (!holds(bytes.subarray(0, 4), 'ELF')) return missing(path);
    for (const library of LIBRARY) {
      if (path.toLowerCase().endsWith(library) || !holds(bytes, library)) continue;
      if ((await this.first([library], [folderOf(path), folder, ...this.folders])) === undefined)
        return missing(library);
    }
    return undefined;
  }

  /** A configuration with the files that it includes. */
  async config(path: string): Promise<SyslinuxConfig | { why: RungWhy }> {
    this.files += 1;
    if (this.files > MAX_FILES) return { why: { code: 'too deep' } };
    const file = await readText(this.wanted(path));
    if ('why' in file) return file;
    const own = readSyslinuxConfig(file.text);
    let { standard, ui } = own;
    const entries = [...own.entries];
    for (const include of own.includes) {
      const inner = await this.config(pathFrom(folderOf(path), include));
      // A file that is not there is passed over, as the loader does.
      if ('why' in inner) continue;
      standard ??= inner.standard;
      ui ??= inner.ui;
      entries.push(...inner.entries);
    }
    return { standard, ui, entries, includes: [] };
  }

  async kernel(path: string, initrd: readonly string[], folder: string): Promise<Rung[]> {
    const { source } = this.start;
    const rungs = [await kernelRung(source, this.wanted(pathFrom(folder, path)))];
    for (const disk of initrd) rungs.push(await initialDiskRung(source, this.wanted(pathFrom(folder, disk))));
    return rungs;
  }

  async entry(e: SyslinuxEntry, folder: string, depth: number): Promise<Rung[]> {
    const { kernel = '' } = e;
    if (e.how === 'config' && depth < MAX_CONFIGS) return this.menu(pathFrom(folder, kernel), depth + 1);
    if (e.how === 'com32' || (e.how === 'kernel' && /\.c32$/i.test(kernel))) {
      const missing = await this.module(kernel, folder);
      const whole: RungWhy = { code: 'command not followed', command: kernel };
      return [rung('kernel', missing ?? whole)];
    }
    if (e.how === 'localboot' || e.how === 'boot' || /\.(0|bin|bs|bss|img)$/i.test(kernel))
      return [rung('kernel', { code: 'command not followed', command: e.how === 'kernel' ? kernel : e.how })];
    return this.kernel(kernel, e.initrd, folder);
  }

  /** A configuration's rung, and what it starts when nobody types. */
  async menu(path: string, depth = 0): Promise<Rung[]> {
    const { place } = this.start.volume;
    const config = await this.config(path);
    if ('why' in config) return [rung('configuration', config.why)];
    const folder = folderOf(path);
    const there = rung('configuration', { code: 'there', path, place });
    const ui =
      config.ui?.split(/\s+/)[0] ??
      (/\.c32\b/i.test(config.standard ?? '') ? config.standard?.split(/\s+/)[0] : undefined);
    const missing = ui === undefined ? undefined : await this.module(ui, folder);
    if (missing) return [rung('configuration', missing)];
    const menu = ui !== undefined;
    const byLabel = config.entries.find((e) => e.label.toLowerCase() === config.standard?.toLowerCase());
    const entry = menu ? (config.entries.find((e) => e.chosen) ?? byLabel ?? config.entries[0]) : byLabel;
    if (entry) return [there, ...(await this.entry(entry, folder, depth))];
    // What is no label is a command: a kernel and its arguments.
    const [command] = config.standard?.split(/\s+/) ?? [];
    if (!menu && command !== undefined && command !== '')
      return [there, ...(await this.kernel(command, [], folder))];
    return [there, rung('kernel', { code: 'names nothing', path, place })];
  }
}

/**
 * Follows SYSLINUX, ISOLINUX or EXTLINUX from its core through its module and configuration to the kernel that is started
 * when nobody types. Source: Syslinux documentation, “syslinux.txt”, “menu.txt”, and its wiki, “Config”.
 */
export async function followSyslinux(start: SyslinuxStart): Promise<Rung[]> {
  const run = new SyslinuxRun(start);
  if (start.needsModule) {
    const missing = await run.module('ldlinux.c32', start.folder);
    if (missing) return [rung('loader', missing)];
  }
  const names = FILES[start.as];
  const path = await run.first(names, run.folders);
  if (path === undefined)
    return [
      rung('configuration', {
        code: 'no configuration',
        paths: run.folders.map((f) => pathFrom(f, names[0] ?? '')),
        place: start.volume.place,
      }),
    ];
  return run.menu(path);
}
