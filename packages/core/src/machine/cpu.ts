import { isJsonAsItStands, sectionJson, unwrapped, wrappedAt, type Section } from './sections';
import { cpuLevel, LEVEL_FLAGS } from './cpuLevel';
import type { Survey } from './types';

interface LscpuRow {
  field: string;
  data: string | null;
  children?: LscpuRow[];
}

/** One kind of core that lscpu tells apart: its model, and how many such cores there are. */
interface CoreKind {
  model: string | undefined;
  cores: number | undefined;
  source: string;
}

const wholeNumber = (text: string | undefined): number | undefined =>
  text !== undefined && /^\d+$/.test(text) ? Number(text) : undefined;

/** The kinds of cores: each model name heads its own sockets or clusters. */
function coreKinds(json: unknown): CoreKind[] {
  const out: CoreKind[] = [];
  const walk = (rows: unknown): void => {
    if (!Array.isArray(rows)) return;
    for (const row of rows as LscpuRow[]) {
      if (row?.field === 'Model name:') {
        const own = lscpuRows({ lscpu: row.children });
        for (const unit of ['Socket', 'Cluster', 'Book', 'Drawer']) {
          const per = wholeNumber(own.get(`Core(s) per ${unit.toLowerCase()}`));
          const units = wholeNumber(own.get(`${unit}(s)`));
          if (per === undefined || units === undefined || per * units === 0) continue;
          const source = `lscpu, Core(s) per ${unit.toLowerCase()}: ${per} × ${unit}(s): ${units}`;
          out.push({ model: row.data ?? undefined, cores: per * units, source });
          break;
        }
        if (own.size > 0 && out.at(-1)?.model !== (row.data ?? undefined))
          out.push({ model: row.data ?? undefined, cores: undefined, source: '' });
      }
      walk(row?.children);
    }
  };
  walk((json as { lscpu?: unknown } | undefined)?.lscpu);
  return out;
}

function lscpuRows(json: unknown): Map<string, string> {
  const out = new Map<string, string>();
  const walk = (rows: unknown): void => {
    if (!Array.isArray(rows)) return;
    for (const row of rows as LscpuRow[]) {
      if (typeof row?.field === 'string' && typeof row.data === 'string')
        out.set(row.field.replace(/:$/, ''), row.data);
      walk(row?.children);
    }
  };
  walk((json as { lscpu?: unknown } | undefined)?.lscpu);
  return out;
}

/** Rows of /proc/cpuinfo: name, colon, value. A line without a colon goes on where a long one was wrapped. */
function cpuinfoRows(text: string): Map<string, string> {
  const out = new Map<string, string>();
  let name: string | undefined;
  let pieces: string[] = [];
  const close = (): void => {
    if (name === undefined) return;
    const row = unwrapped(pieces.join('\n'));
    out.set(name, row.slice(row.indexOf(':') + 1).trim());
  };
  for (const line of text.split('\n')) {
    const at = line.indexOf(':');
    if (at <= 0) {
      pieces.push(line);
      continue;
    }
    close();
    name = line.slice(0, at).trim();
    pieces = [line];
  }
  close();
  return out;
}

/** Columns at which terminals, viewers and fields cut a line: common practice, no source. */
const WIDTHS = new Set([72, 76, 78, 79, 80, 100, 120, 128, 132, 160, 200, 255, 256, 512, 1024, 4096]);

interface Flags {
  /** Undefined where the report has none. */
  list: readonly string[] | undefined;
  /** Nothing was cut off or put together: what is not among them, the processor does not have. */
  whole: boolean;
  source: string;
}

/** Flags of the processor, and whether a missing one tells anything. */
function flagsOf(
  sections: ReadonlyMap<string, Section>,
  rows: ReadonlyMap<string, string>,
  info: ReadonlyMap<string, string>,
): Flags {
  const own = rows.get('Flags');
  const text = own ?? info.get('flags') ?? info.get('Features');
  const section = sections.get(own === undefined ? 'cpuinfo' : 'lscpu');
  const lines = section?.text.split('\n') ?? [];
  const width = wrappedAt([...sections.values()].map((s) => s.text));
  const begin = text?.slice(0, 24) ?? '';
  const reaches = lines.some((l) => l.includes(begin) && (l.length === width || WIDTHS.has(l.length)));
  // Rows of cpuinfo have their colon, and what lscpu writes is JSON as it stands.
  const wrapped = own === undefined ? lines.some((l) => !l.includes(':')) : !isJsonAsItStands(section);
  return {
    list: text?.split(/\s+/),
    whole: section?.whole === true && !reaches && !wrapped,
    source: own === undefined ? 'cpuinfo, flags' : 'lscpu, Flags',
  };
}

/** Cores and threads by the kernel's own table of them (Linux documentation, ABI/stable/sysfs-devices-system-cpu). */
function topologyOf(section: Section | undefined): { cores: number; threads: number } | undefined {
  if (!section?.whole) return undefined;
  const rows = section.text.split('\n').filter((l) => /^cpu\d+ package=-?\d+ core=-?\d+$/.test(l));
  if (rows.length === 0) return undefined;
  return { cores: new Set(rows.map((r) => r.replace(/^cpu\d+ /, ''))).size, threads: rows.length };
}

const ARCH: Record<string, string> = {
  i386: 'i686',
  i486: 'i686',
  i586: 'i686',
  arm64: 'aarch64',
  armv6l: 'armv7l',
  armhf: 'armv7l',
  // A 64-bit CPU under a 32-bit kernel calls itself so.
  armv8l: 'aarch64',
  amd64: 'x86_64',
};

/** Cores by implementer 41h that run 64-bit code, by part number: the main identification registers of their reference manuals. */
const PARTS_64 = /^0xd(0[3-9a-e]|4[0-9a-f]|8[0-9a-f])$/i;

/** A core that runs 64-bit code under a 32-bit kernel, by its part number; the kernel itself does not say so. */
function wideArmPart(info: ReadonlyMap<string, string>): string | undefined {
  const part = info.get('CPU part');
  return info.get('CPU implementer')?.toLowerCase() === '0x41' && part !== undefined && PARTS_64.test(part)
    ? part
    : undefined;
}

/** Reads architecture, width, level, cores and threads from `lscpu -J`, with /proc/cpuinfo and `uname -m` behind it. */
export function readCpu(sections: Map<string, Section>, survey: Survey): void {
  const lscpu = sectionJson(sections.get('lscpu'));
  const rows = lscpuRows(lscpu);
  const info = cpuinfoRows(sections.get('cpuinfo')?.text ?? '');
  const uname = sections.get('machine')?.text.split('\n')[0]?.trim();
  const fact = (key: keyof Survey['facts'], value: string | number | boolean, source: string): void => {
    survey.facts[key] = { value, source };
  };

  const rawArch = rows.get('Architecture') ?? uname;
  const arch = rawArch ? (ARCH[rawArch] ?? rawArch) : undefined;
  const { list, whole, source: flagSource } = flagsOf(sections, rows, info);
  const flags = list ?? [];
  if (arch)
    fact(
      'cpu.arch',
      arch,
      rows.has('Architecture') ? `lscpu, Architecture: ${rawArch}` : `uname -m: ${uname}`,
    );
  const x86 = arch === 'x86_64' || arch === 'i686';
  const cut = list !== undefined && !whole;
  if (x86 && list !== undefined) {
    // A 64-bit CPU can run a 32-bit system: the flag "lm" (long mode) tells, not the running kernel.
    const wide = flags.includes('lm');
    if (wide || whole)
      fact('cpu.bits', wide ? '64' : '32', `${flagSource}: ${wide ? 'lm present' : 'no lm'}`);
    else if (arch === 'x86_64') fact('cpu.bits', '64', `architecture ${arch}`);
    if (wide && arch === 'i686')
      fact('cpu.arch', 'x86_64', `${flagSource}: lm present, though a 32-bit system runs`);
    const level = wide && whole ? cpuLevel(flags) : undefined;
    if (level) fact('cpu.level', level, `${flagSource}: ${LEVEL_FLAGS[level].join(' ')}`);
    const virtual = flags.find((f) => f === 'vmx' || f === 'svm');
    if (virtual) fact('cpu.virtualisation', true, `${flagSource}: ${virtual}`);
    else if (whole)
      // A kernel hides the flag where setup has it switched off (common practice, no source): it may be a setting.
      survey.assumed['cpu.virtualisation'] = {
        value: false,
        because: `${flagSource}: neither vmx nor svm; it may be switched off in setup`,
      };
  } else if (arch === 'aarch64' || arch === 'riscv64') {
    fact('cpu.bits', '64', `architecture ${arch}`);
  } else if (arch === 'armv7l') {
    const part = wideArmPart(info);
    fact('cpu.bits', part ? '64' : '32', part ? `cpuinfo, CPU part: ${part}` : `architecture ${arch}`);
    if (part) fact('cpu.arch', 'aarch64', `cpuinfo, CPU part: ${part}, though a 32-bit system runs`);
  }

  const aes = flags.includes('aes');
  if (list !== undefined && arch && (aes || whole))
    fact('cpu.aes', aes, `${flagSource}: ${aes ? 'aes' : 'no aes'}`);
  const clock = Number(rows.get('CPU max MHz')?.replace(',', '.') ?? Number.NaN);
  const named = /@ ([\d.]+)\s*GHz/.exec(rows.get('Model name') ?? info.get('model name') ?? '')?.[1];
  if (clock > 0) fact('cpu.mhz', Math.round(clock), `lscpu, CPU max MHz: ${clock}`);
  else if (named) fact('cpu.mhz', Math.round(Number(named) * 1000), `the model’s own name: ${named} GHz`);

  const kinds = coreKinds(lscpu);
  const models = [...new Set(kinds.flatMap((k) => k.model ?? []))];
  const model = models.length > 1 ? models.join(' + ') : (rows.get('Model name') ?? info.get('model name'));
  if (model && model !== '-')
    fact(
      'cpu.model',
      model,
      rows.has('Model name') ? `lscpu, Model name: ${model}` : `cpuinfo, model name: ${model}`,
    );
  const perSocket = wholeNumber(rows.get('Core(s) per socket'));
  const sockets = wholeNumber(rows.get('Socket(s)'));
  const topology = topologyOf(sections.get('topology'));
  const infoCores = wholeNumber(info.get('cpu cores'));
  if (kinds.length > 0 && kinds.every((k) => k.cores !== undefined)) {
    const cores = kinds.reduce((sum, k) => sum + (k.cores ?? 0), 0);
    fact('cpu.cores', cores, kinds.map((k) => k.source).join(' + '));
  } else if (perSocket !== undefined && sockets !== undefined) {
    fact('cpu.cores', perSocket * sockets, `lscpu, Core(s) per socket: ${perSocket} × Socket(s): ${sockets}`);
  } else if (topology) {
    fact('cpu.cores', topology.cores, `topology: ${topology.cores} pairs of package and core`);
  } else if (infoCores !== undefined) {
    survey.assumed['cpu.cores'] = {
      value: infoCores,
      because: `cpuinfo, cpu cores: ${infoCores}, which counts one socket; a second one is not seen there`,
    };
  }
  const threads = wholeNumber(rows.get('CPU(s)'));
  const siblings = wholeNumber(info.get('siblings'));
  if (threads !== undefined) fact('cpu.threads', threads, `lscpu, CPU(s): ${threads}`);
  else if (topology) fact('cpu.threads', topology.threads, `topology: ${topology.threads} threads`);
  else if (siblings !== undefined)
    survey.assumed['cpu.threads'] = {
      value: siblings,
      because: `cpuinfo, siblings: ${siblings}, which counts one socket; a second one is not seen there`,
    };

  if (!arch) survey.missing.push('CPU architecture: neither lscpu nor uname answered');
  if (x86 && list === undefined) survey.missing.push('CPU level: no flags in the report');
  if (cut)
    survey.missing.push(
      'CPU flags: the list is cut or wrapped, so that what is not in it is not known; save the report to a file and bring that',
    );
  if (!survey.facts['cpu.cores'] && !survey.assumed['cpu.cores'])
    survey.missing.push('CPU cores: not in the report');
}
