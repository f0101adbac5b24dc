import type { GrubImage } from '../../formats/grub/modules';
import { parseGrubScript, type Statement } from '../../formats/grub/script';
import type { Word } from '../../formats/grub/words';
import { isoAsVolume } from '../../formats/volume';
import { openIso } from '../../formats/iso9660/read';
import type { ByteSource } from '../../formats/source';
import type { RungWhy } from '../../model/chain';
import type { Rung } from '../../model/inspection';
import {
  initialDiskRung,
  kernelRung,
  openWanted,
  readText,
  rung,
  type KernelWay,
  type Wanted,
} from './files';
import { operandsOf, optionsOf, UNTOLD, type GrubDevices, type Resolved } from './grubEnvironment';
import { searchVolumes } from './grubSearch';
import { loadEnvironment, probeDevice } from './grubVariables';
import { grubTest, type Truth } from './grubTest';
import { specificationEntries } from './loaderEntries';
import { apart } from './volumes';

/** An entry of a menu: what it is called, and what it runs. */
export interface GrubEntry {
  title: string;
  id: string | undefined;
  submenu: boolean;
  body: readonly Statement[];
}

/** What a script was about when it ended: what it loaded, and what it could not. */
export interface Loaded {
  kernel: Rung | undefined;
  /** A program that is started in place of a kernel, to be followed by itself. */
  program: Wanted | undefined;
  disks: Rung[];
}

/** Nothing loaded yet, or what was is given up. */
export const nothingLoaded = (): Loaded => ({ kernel: undefined, program: undefined, disks: [] });

/** What a script runs on: the platform it is built for, what is built into it, and the devices it can name. */
export interface GrubMachine {
  source: ByteSource;
  platform: 'pc' | 'efi';
  cpu: 'i386' | 'x86_64' | 'arm64';
  image: GrubImage;
  devices: GrubDevices;
}

/** Thrown inside where a run has taken too many steps or files, never out of it. */
export class TooDeep extends Error {}

const MAX_STEPS = 20_000;
const MAX_FILES = 60;
const MAX_ENTRIES = 500;
const MAX_NESTED = 48;

/** Commands that load a kernel, the module that brings each, and how it takes what it loads. */
const KERNELS: Record<string, { modules: readonly string[]; way: KernelWay }> = {
  linux: { modules: ['linux'], way: 'linux' },
  linux16: { modules: ['linux16', 'linux'], way: 'linux' },
  linuxefi: { modules: ['linuxefi', 'linux'], way: 'linux' },
  multiboot: { modules: ['multiboot'], way: 'multiboot' },
  multiboot2: { modules: ['multiboot2'], way: 'multiboot' },
};
const DISKS = ['initrd', 'initrd16', 'initrdefi', 'module', 'module2'];
/** Commands whose effect on what is loaded is not followed. */
const UNFOLLOWED =
  /^(kfreebsd|knetbsd|kopenbsd|xnu_|plan9|ntldr|truecrypt|freedos|pxechainloader|efi?net|appleloader|eval|wimboot)/;
/** Commands whose answer depends on the machine or on who is there. */
const OPEN = new Set([
  'cpuid',
  'keystatus',
  'smbios',
  'background_image',
  'loadfont',
  'sleep',
  'read',
  'regexp',
]);

/** Runs scripts of GRUB as far as they bear on what is started. Bounded in steps and files. */
export class GrubRun {
  readonly vars = new Map<string, string>();
  entries: GrubEntry[] = [];
  loaded = nothingLoaded();
  /** The files that were run as scripts, in order. */
  readonly read: Wanted[] = [];
  /** Why the last file or device that was asked for could not be had. */
  trouble: RungWhy | undefined;
  booted = false;
  private readonly functions = new Map<string, readonly Statement[]>();
  private steps = 0;
  private nested = 0;

  constructor(readonly machine: GrubMachine) {}

  get root(): string {
    return this.vars.get('root') ?? '';
  }

  private expand(words: readonly Word[]): string[] {
    const out: string[] = [];
    for (const word of words) {
      let text = '';
      let split = false;
      let quoted = word.length === 0;
      for (const piece of word) {
        if ('text' in piece) {
          text += piece.text;
          quoted = true;
        } else {
          text += this.vars.get(piece.variable) ?? '';
          if (piece.quoted) quoted = true;
          else split = true;
        }
      }
      if (split) out.push(...text.split(/\s+/).filter((t) => t !== '' || quoted));
      else out.push(text);
    }
    return out;
  }

  resolve(path: string): Resolved<Wanted> {
    return this.machine.devices.file(path, this.root);
  }

  private fail(why: RungWhy): false {
    this.trouble = why;
    return false;
  }

  /** Is one of these modules built in, or on the volume where modules are looked for? */
  async has(modules: readonly string[]): Promise<true | RungWhy> {
    if (modules.some((m) => this.machine.image.modules.has(m))) return true;
    let why: RungWhy | undefined;
    for (const name of modules) {
      const folder = `${this.vars.get('prefix') ?? ''}/${this.machine.cpu}-${this.machine.platform}`;
      const at = this.resolve(`${folder}/${name}.mod`);
      const opened = 'why' in at ? at : await openWanted(at.found);
      if (!('why' in opened)) return true;
      const missing =
        opened.why.code === 'not there' && !('why' in at)
          ? ({ code: 'module missing', path: at.found.path, place: at.found.volume.place } as const)
          : opened.why;
      why ??= missing;
    }
    return why ?? { code: 'command not followed', command: modules[0] ?? '' };
  }

  /** Runs a file as a script in place; false where it cannot be had or is broken. */
  async source(path: string): Promise<boolean> {
    const at = this.resolve(path);
    if ('why' in at) return this.fail(at.why);
    if (this.read.length >= MAX_FILES) throw new TooDeep();
    const file = await readText(at.found);
    if ('why' in file) return this.fail(file.why);
    const statements = parseGrubScript(file.text);
    this.read.push(at.found);
    if (!statements)
      return this.fail({ code: 'grammar broken', path: at.found.path, place: at.found.volume.place });
    await this.run(statements);
    return true;
  }

  async run(statements: readonly Statement[]): Promise<Truth> {
    let truth: Truth = true;
    this.nested += 1;
    if (this.nested > MAX_NESTED) throw new TooDeep();
    for (const statement of statements) {
      if (this.booted) break;
      truth = await this.one(statement);
    }
    this.nested -= 1;
    return truth;
  }

  private async one(s: Statement): Promise<Truth> {
    this.steps += 1;
    if (this.steps > MAX_STEPS) throw new TooDeep();
    switch (s.is) {
      case 'command':
        return this.command(s);
      case 'function':
        this.functions.set(s.name, s.body);
        return true;
      case 'if':
        for (const c of s.cases) {
          const when = await this.run(c.when);
          if (when === false) continue;
          const then = await this.run(c.then);
          // What the bytes do not decide is gone through both ways, so that every entry of the menu is found.
          if (when) return then;
        }
        return true;
      case 'loop':
        for (const value of this.expand(s.over)) {
          this.vars.set(s.variable, value);
          await this.run(s.body);
        }
        return true;
      case 'while':
        for (let turn = 0; turn < 100; turn += 1) {
          const when = await this.run(s.when);
          if (when === undefined || when === s.until) break;
          await this.run(s.body);
        }
        return true;
    }
  }

  private async command(s: Extract<Statement, { is: 'command' }>): Promise<Truth> {
    const words = this.expand(s.words);
    let negated = false;
    while (words[0] === '!') {
      negated = !negated;
      words.shift();
    }
    const [name = '', ...rest] = words;
    const truth = await this.named(name, rest, s);
    return negated && truth !== undefined ? !truth : truth;
  }

  private async named(
    name: string,
    rest: string[],
    s: Extract<Statement, { is: 'command' }>,
  ): Promise<Truth> {
    const set = /^([A-Za-z_][A-Za-z0-9_]*)=(.*)$/s.exec(name === 'set' ? (rest[0] ?? '') : name);
    if (set) {
      const value = set[2] ?? '';
      // root and prefix take a device with or without its brackets.
      this.vars.set(set[1] ?? '', set[1] === 'root' ? value.replace(/^\((.*)\)$/, '$1') : value);
      return true;
    }
    const own = this.functions.get(name);
    if (own) return this.run(own);
    const kernel = KERNELS[name];
    if (kernel) return this.loadKernel(rest, kernel);
    if (DISKS.includes(name)) return this.loadDisks(operandsOf(rest), name);
    if (UNFOLLOWED.test(name)) {
      this.loaded.kernel = rung('kernel', { code: 'command not followed', command: name });
      return true;
    }
    switch (name) {
      case 'menuentry':
      case 'submenu': {
        const { options, rest: titles } = optionsOf(rest, ['id', 'class', 'users', 'hotkey', 'source']);
        if (this.entries.length < MAX_ENTRIES)
          this.entries.push({
            title: titles[0] ?? '',
            id: options.get('id'),
            submenu: name === 'submenu',
            body: s.body ?? [],
          });
        return true;
      }
      case 'test':
        return grubTest(rest, this.looksFor);
      case '[':
        return grubTest(rest.at(-1) === ']' ? rest.slice(0, -1) : rest, this.looksFor);
      case 'false':
        return false;
      case 'unset':
        for (const v of rest) this.vars.delete(v);
        return true;
      case 'source':
      case '.':
      case 'configfile':
      case 'normal': {
        const path = rest[0] ?? `${this.vars.get('prefix') ?? ''}/grub.cfg`;
        // A configuration of its own has a menu of its own, if it has one.
        const before = this.entries;
        if (name === 'configfile') this.entries = [];
        const found = await this.source(path);
        if (name === 'configfile' && this.entries.length === 0) this.entries = before;
        return found;
      }
      case 'search':
        return this.search(rest);
      case 'search.fs_uuid':
      case 'search.fs_label':
      case 'search.file':
        return this.search([
          `--${name === 'search.file' ? 'file' : name === 'search.fs_uuid' ? 'fs-uuid' : 'label'}`,
          `--set=${rest[1] ?? 'root'}`,
          rest[0] ?? '',
        ]);
      case 'load_env':
        return loadEnvironment(this, rest);
      case 'probe':
        return probeDevice(this, rest);
      case 'loopback':
        return this.loopback(rest);
      case 'chainloader':
        return this.chainload(operandsOf(rest)[0] ?? '');
      case 'blscfg':
        return this.specification();
      case 'boot':
        this.booted = this.loaded.kernel !== undefined || this.loaded.program !== undefined;
        return this.booted;
      default:
        return OPEN.has(name) ? undefined : true;
    }
  }

  private readonly looksFor = async (path: string, as: 'e' | 'f' | 'd' | 's'): Promise<Truth> => {
    const at = this.resolve(path);
    if ('why' in at) return at.why.code === 'file system not opened' ? undefined : false;
    const volume = await at.found.volume.open();
    if (!volume) return undefined;
    const found = await volume.find(at.found.path);
    if (!found) return false;
    if (as === 'd') return found.directory;
    if (as === 'f') return !found.directory;
    return as === 'e' || (!found.directory && found.bytes > 0);
  };

  private async loadKernel(
    rest: readonly string[],
    { modules, way }: { modules: readonly string[]; way: KernelWay },
  ): Promise<boolean> {
    const path = operandsOf(rest)[0] ?? '';
    const here = await this.has(modules);
    const at = here === true ? this.resolve(path) : { why: here };
    const kernel =
      'why' in at ? rung('kernel', at.why) : await kernelRung(this.machine.source, at.found, way);
    this.loaded = { ...nothingLoaded(), kernel };
    return kernel.state === 'whole';
  }

  private async loadDisks(paths: readonly string[], command: string): Promise<boolean> {
    const files = command.startsWith('module') ? paths.slice(0, 1) : paths;
    for (const path of files) {
      const at = this.resolve(path);
      this.loaded.disks.push(
        'why' in at ? rung('initial disk', at.why) : await initialDiskRung(this.machine.source, at.found),
      );
    }
    return this.loaded.disks.every((d) => d.state === 'whole');
  }

  private async chainload(path: string): Promise<boolean> {
    const here = await this.has(['chain']);
    const at = here === true ? this.resolve(path) : { why: here };
    // Sectors instead of a file: a boot record, which is not followed.
    const sectors = 'found' in at && /^\/?\+?\d+$/.test(at.found.path);
    const why: RungWhy | undefined = sectors
      ? { code: 'command not followed', command: 'chainloader +1' }
      : 'why' in at
        ? at.why
        : undefined;
    this.loaded = {
      ...nothingLoaded(),
      kernel: why && rung('loader', why),
      program: why || !('found' in at) ? undefined : at.found,
    };
    return why === undefined;
  }

  private async search(words: string[]): Promise<Truth> {
    const { options, rest } = optionsOf(words, ['hint']);
    const by =
      options.has('fs-uuid') || options.has('u')
        ? 'uuid'
        : options.has('label') || options.has('l')
          ? 'label'
          : 'file';
    const what = rest[0] ?? '';
    const { found, open } = await searchVolumes(this.machine.devices.volumes, by, what);
    const { devices } = this.machine;
    const variable = options.get('set') || options.get('s') || 'root';
    if (found) {
      this.vars.set(variable, devices.name(found));
      return true;
    }
    if (!open) return this.fail({ code: 'search finds nothing', by, what });
    devices.untold = open;
    this.vars.set(variable, UNTOLD);
    return undefined;
  }

  private async loopback(rest: string[]): Promise<boolean> {
    const [name = '', path = ''] = rest.filter((w) => !w.startsWith('-'));
    const at = this.resolve(path);
    if ('why' in at) return this.fail(at.why);
    const opened = await openWanted(at.found);
    if ('why' in opened) return this.fail(opened.why);
    const { file } = opened;
    this.machine.devices.define(
      name,
      apart({ of: 'in a file', path }, async () => {
        const iso = await openIso(file);
        return iso && isoAsVolume(iso, file);
      }),
    );
    return true;
  }

  /** Entries by the Boot Loader Specification, as a menu's own. */
  private async specification(): Promise<Truth> {
    const device = this.machine.devices.find(this.vars.get('boot') ?? this.root);
    if ('why' in device) return this.fail(device.why);
    for (const { title, id, entry } of await specificationEntries(device.found)) {
      const path = (p: string): Word => [{ text: `(${this.machine.devices.name(device.found)})${p}` }];
      const command = (...words: Word[]): Statement => ({ is: 'command', words, body: undefined, line: 0 });
      const disks = entry.initrd.filter((i) => !i.startsWith('$'));
      const body = [command([{ text: 'linux' }], path(entry.linux ?? ''))];
      if (disks.length > 0) body.push(command([{ text: 'initrd' }], ...disks.map(path)));
      this.entries.push({ title, id, submenu: false, body });
    }
    return true;
  }
}
