/** What an entry starts: a kernel of a kind, another configuration, or something in the firmware. */
export interface SyslinuxEntry {
  label: string;
  kernel: string | undefined;
  /** By which key the kernel was named: `kernel` goes by the name's ending. */
  how: 'kernel' | 'linux' | 'com32' | 'config' | 'boot' | 'localboot';
  initrd: readonly string[];
  chosen: boolean;
}

/** A configuration of SYSLINUX, ISOLINUX or EXTLINUX (Syslinux documentation, “syslinux.txt”). */
export interface SyslinuxConfig {
  /** What is started when nobody types: a label, or a command. */
  standard: string | undefined;
  /** A module that draws the menu. */
  ui: string | undefined;
  entries: readonly SyslinuxEntry[];
  /** Files whose lines belong here; in the order they are named. */
  includes: readonly string[];
}

const MAX_LINES = 5000;
const MAX_ENTRIES = 500;

const HOW: Record<string, SyslinuxEntry['how']> = {
  kernel: 'kernel',
  linux: 'linux',
  com32: 'com32',
  config: 'config',
  boot: 'boot',
  bss: 'boot',
  fdimage: 'boot',
  localboot: 'localboot',
};

/** The disks that a line of kernel arguments names by initrd=. */
const initrdOf = (append: string): string[] => {
  const hit = /(?:^|\s)initrd=(\S+)/.exec(append)?.[1];
  return hit === undefined ? [] : hit.split(',').filter((s) => s !== '');
};

type Open = { -readonly [K in keyof SyslinuxEntry]: SyslinuxEntry[K] };

/** Reads a configuration's lines; keys of either case, what is not told apart here is passed over. */
export function readSyslinuxConfig(text: string): SyslinuxConfig {
  const entries: Open[] = [];
  const includes: string[] = [];
  let standard: string | undefined;
  let ui: string | undefined;
  let everywhere: string[] = [];
  for (const raw of text.split(/\r?\n/).slice(0, MAX_LINES)) {
    const line = raw.trim();
    if (line === '' || line.startsWith('#')) continue;
    const [, word = '', value = ''] = /^(\S+)\s*(.*)$/.exec(line) ?? [];
    let key = word.toLowerCase();
    let rest = value;
    if (key === 'menu') {
      const [, second = '', after = ''] = /^(\S+)\s*(.*)$/.exec(value) ?? [];
      if (second.toLowerCase() !== 'include') {
        const open = entries.at(-1);
        if (open && second.toLowerCase() === 'default') open.chosen = true;
        continue;
      }
      [key, rest] = ['include', after];
    }
    const open = entries.at(-1);
    const how = HOW[key];
    if (key === 'label') {
      if (entries.length < MAX_ENTRIES)
        entries.push({
          label: rest,
          kernel: undefined,
          how: 'kernel',
          initrd: [...everywhere],
          chosen: false,
        });
    } else if (key === 'include') includes.push(rest.split(/\s+/)[0] ?? '');
    else if (key === 'default') standard = rest;
    else if (key === 'ui') ui = rest;
    else if (key === 'append') {
      if (open) open.initrd = [...open.initrd.filter((i) => !everywhere.includes(i)), ...initrdOf(rest)];
      else everywhere = initrdOf(rest);
    } else if (key === 'initrd' && open) open.initrd = rest.split(',').filter((s) => s !== '');
    else if (how && open) {
      open.how = how;
      open.kernel = rest.split(/\s+/)[0] ?? '';
      open.initrd = [...open.initrd, ...initrdOf(rest)];
    }
  }
  return { standard, ui, entries, includes };
}
