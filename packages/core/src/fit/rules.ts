import { formatBoth, formatIec, GIB } from '../units/bytes';
import type { FactKey } from '../schema/facts';
import type { Profile } from '../schema/profile';
import type { MachineView } from './view';

export type RuleOutcome = 'meets' | 'change' | 'no' | 'ask';

export interface Finding {
  rule: string;
  outcome: RuleOutcome;
  because: string;
  /** Short form for a crossing of the match sheet. */
  short: string;
  /** The fact to find out, where the outcome is "ask". */
  missing?: FactKey;
  repair?: string;
}

export type Rule = (machine: MachineView, profile: Profile) => Finding;

const LEVELS = ['v1', 'v2', 'v3', 'v4'];
/** Firmware keeps a little memory for itself, so an 8 GB machine reports less: common practice, no source. */
const MEMORY_GRACE = 0.9;

const STARTS_BY: Record<string, string> = {
  uefi: 'Starts in UEFI mode, as this machine does.',
  bios: 'Starts in BIOS mode, as this machine does.',
  board: 'Starts by a board’s own loader, as this machine does.',
};

const numberOf = (m: MachineView, key: FactKey): number | undefined => {
  const v = m.facts[key];
  return typeof v === 'number' ? v : typeof v === 'string' && /^\d+$/.test(v) ? Number(v) : undefined;
};
const finding = (
  rule: string,
  outcome: RuleOutcome,
  short: string,
  because: string,
  more: Partial<Finding> = {},
): Finding => ({
  rule,
  outcome,
  short,
  because,
  ...more,
});
const ask = (rule: string, missing: FactKey, what: string): Finding =>
  finding(rule, 'ask', `${what}?`, `${what} is not known.`, { missing });

const width: Rule = (m, p) => {
  const arch = m.facts['cpu.arch'];
  const bits = numberOf(m, 'cpu.bits');
  const wants = p.needs.archs.join(' or ');
  if (typeof arch !== 'string') return ask('cpu', 'cpu.arch', 'CPU architecture');
  if (arch === 'x86_64' && bits === 32)
    return finding('cpu', 'no', '32-bit CPU', `Built for ${wants}; the CPU is 32-bit.`);
  if ((p.needs.archs as string[]).includes(arch))
    return finding('cpu', 'meets', arch, `Built for ${wants}, and the CPU is ${arch}.`);
  if (arch === 'x86_64' && p.needs.archs.includes('i686'))
    return finding('cpu', 'meets', 'runs 32-bit builds', 'The CPU also runs 32-bit builds.');
  const short = arch === 'i686' || bits === 32 ? '32-bit CPU' : `${wants} image only`;
  return finding('cpu', 'no', short, `Built for ${wants}; the CPU is ${arch}.`);
};

const level: Rule = (m, p) => {
  const need = p.needs.cpuLevel;
  if (need === null || m.facts['cpu.arch'] !== 'x86_64' || need === 'v1')
    return finding('cpu level', 'meets', '', 'No CPU level beyond the first is asked for.');
  const have = m.facts['cpu.level'];
  if (typeof have !== 'string') return ask('cpu level', 'cpu.level', 'x86-64 level');
  return LEVELS.indexOf(have) >= LEVELS.indexOf(need)
    ? finding('cpu level', 'meets', `level ${have}`, `Needs x86-64-${need}; the CPU reaches ${have}.`)
    : finding(
        'cpu level',
        'no',
        `CPU level ${have}, needs ${need}`,
        `Needs x86-64-${need}; the CPU only reaches ${have}. It would stop at a black screen.`,
      );
};

const cores: Rule = (m, p) => {
  if (p.needs.cores <= 1) return finding('cores', 'meets', '', 'One core is enough.');
  const have = numberOf(m, 'cpu.cores');
  if (have === undefined) return ask('cores', 'cpu.cores', 'Number of cores');
  return have >= p.needs.cores
    ? finding('cores', 'meets', `${have} cores`, `Needs ${p.needs.cores} cores, has ${have}.`)
    : finding(
        'cores',
        'no',
        `${have} of ${p.needs.cores} cores`,
        `Needs ${p.needs.cores} cores, has ${have}.`,
      );
};

const memory: Rule = (m, p) => {
  const have = numberOf(m, 'memory.bytes');
  const need = p.needs.memoryBytes;
  if (have === undefined) return ask('memory', 'memory.bytes', 'Memory');
  const words = `Needs ${formatIec(need)} of memory, has ${formatIec(have)}.`;
  if (have >= need * MEMORY_GRACE) return finding('memory', 'meets', formatIec(have), words);
  const more = Math.max(1, Math.ceil((need - have) / GIB));
  if (m.facts['cpu.arch'] !== 'x86_64')
    return finding(
      'memory',
      'no',
      `${formatIec(have)} of ${formatIec(need)}`,
      `${words} It is soldered on a board of this kind.`,
    );
  return finding('memory', 'change', `+${more} GiB memory`, words, {
    repair: `Add at least ${more} GiB of memory, if a slot is free.`,
  });
};

const bootDrive: Rule = (m, p) => {
  const need = p.needs.bootBytes;
  const free = m.drives.filter((d) => !d.matters);
  const fit = free.filter((d) => d.bytes >= need).sort((a, b) => a.bytes - b.bytes)[0];
  if (fit)
    return finding(
      'boot drive',
      'meets',
      `boots from ${formatIec(fit.bytes)}`,
      `Needs a boot drive of ${formatBoth(need)}; “${fit.name}” has ${formatBoth(fit.bytes)}.`,
    );
  const room = numberOf(m, 'ports.drives') !== 0;
  const spare = (room ? m.spares : []).filter((d) => d.bytes >= need).sort((a, b) => a.bytes - b.bytes)[0];
  const why = m.drives.some((d) => d.matters && d.bytes >= need)
    ? 'The only drive large enough holds what must be kept.'
    : m.drives.length === 0
      ? 'No drive is known in the machine.'
      : `Its largest free drive is ${formatIec(Math.max(0, ...free.map((d) => d.bytes)))}.`;
  const repair = spare
    ? `Put in “${spare.name}” (${formatIec(spare.bytes)}) from the shelf.`
    : `Fetch a ${room ? 'drive' : 'card'} of at least ${formatBoth(need)}.`;
  return finding(
    'boot drive',
    'change',
    spare ? `“${spare.name}” as boot drive` : 'needs a boot drive',
    `Needs a boot drive of ${formatBoth(need)}. ${why}`,
    { repair },
  );
};

const dataDrives: Rule = (m, p) => {
  const need = p.needs.dataDrives;
  if (need === 0) return finding('data drives', 'meets', '', 'No data drive is asked for.');
  const ports = numberOf(m, 'ports.drives');
  if (ports === undefined) return ask('data drives', 'ports.drives', 'Number of drive ports');
  if (ports < need + 1) {
    const noun = `${ports} drive ${ports === 1 ? 'port' : 'ports'}`;
    return finding(
      'data drives',
      'no',
      noun,
      `Needs ${need + 1} ports (one boot, ${need} data); it has ${noun}.`,
    );
  }
  const have = m.drives.filter((d) => !d.matters && !d.removable).length;
  return have >= need + 1
    ? finding(
        'data drives',
        'meets',
        `boot + ${need} data`,
        `${have} free drives in ${ports} ports: one to boot, ${need} for data.`,
      )
    : finding(
        'data drives',
        'change',
        `${need + 1 - have} more drives`,
        `Needs ${need} data drives besides the boot drive; ${have} free ${have === 1 ? 'drive is' : 'drives are'} in it.`,
        { repair: `Add ${need + 1 - have} more; the ports are there.` },
      );
};

const graphics: Rule = (m, p) => {
  if (p.needs.graphics === 'not needed') return finding('graphics', 'meets', '', 'No graphics are needed.');
  const family = m.facts['graphics.family'];
  if (typeof family !== 'string') return ask('graphics', 'graphics.family', 'Graphics driver family');
  if (family === 'none')
    return finding('graphics', 'no', 'no graphics', 'Needs graphics with a driver; the machine has none.');
  if (family === 'out-of-tree' && p.needs.graphics === 'in-kernel') {
    return finding(
      'graphics',
      'no',
      'closed driver',
      'This release carries in-kernel drivers only; the machine’s graphics need one from outside.',
    );
  }
  return finding(
    'graphics',
    'meets',
    `${family} driver`,
    `The graphics run on an ${family} driver, which the release carries.`,
  );
};

const firmware: Rule = (m, p) => {
  const mode = m.facts['firmware.mode'];
  const wants = p.needs.firmware;
  const pc = m.facts['cpu.arch'] === 'x86_64' || m.facts['cpu.arch'] === 'i686';
  if (pc && wants.includes('bios') && wants.includes('uefi'))
    return finding('firmware', 'meets', 'BIOS or UEFI', 'Starts in BIOS and in UEFI mode.');
  if (typeof mode !== 'string') return ask('firmware', 'firmware.mode', 'Boot mode');
  if ((wants as string[]).includes(mode)) return finding('firmware', 'meets', mode, STARTS_BY[mode] ?? '');
  if (mode === 'board')
    return finding(
      'firmware',
      'no',
      'board’s own loader',
      `Needs ${wants.map((w) => w.toUpperCase()).join(' or ')}; this machine starts by a board’s own loader.`,
    );
  if (!wants.includes('uefi') && !wants.includes('bios'))
    return finding(
      'firmware',
      'no',
      'for boards only',
      'Starts by a board’s own loader only, which this machine has not.',
    );
  if (mode === 'bios')
    return finding(
      'firmware',
      'ask',
      'has it UEFI?',
      'Needs UEFI; the machine runs in BIOS mode now. Its setup screen tells whether it can do both.',
      { missing: 'firmware.mode' },
    );
  return finding(
    'firmware',
    'change',
    'switch to BIOS mode',
    'Needs BIOS mode; the machine is set to UEFI.',
    { repair: 'Switch to the BIOS (legacy) mode in setup, if it offers one.' },
  );
};

const secureBoot: Rule = (m, p) => {
  if (p.signedLoader || m.facts['firmware.secureBoot'] !== 'on')
    return finding('secure boot', 'meets', '', 'Secure Boot does not stand in the way.');
  return finding(
    'secure boot',
    'change',
    'Secure Boot off first',
    'Secure Boot is on and the loader is not signed.',
    { repair: 'Turn Secure Boot off in setup.' },
  );
};

const wired: Rule = (m, p) => {
  const need = p.needs.wiredPorts;
  if (need === 0) return finding('network', 'meets', '', 'No wired port is asked for.');
  const have = numberOf(m, 'network.wired');
  if (have === undefined) return ask('network', 'network.wired', 'Number of wired network ports');
  const noun = have === 0 ? 'no network port' : `${have} network ${have === 1 ? 'port' : 'ports'}`;
  if (have >= need)
    return finding(
      'network',
      'meets',
      `${have} wired`,
      `Needs ${need} wired ${need === 1 ? 'port' : 'ports'}, has ${have}.`,
    );
  return finding(
    'network',
    'change',
    noun,
    `Needs ${need} wired ${need === 1 ? 'port' : 'ports'}, has ${have === 0 ? 'none' : have}.`,
    {
      repair: `Add ${need - have} wired ${need - have === 1 ? 'port' : 'ports'}: a card, or a USB adapter where the speed allows.`,
    },
  );
};

const virtualisation: Rule = (m, p) => {
  if (!p.needs.virtualisation)
    return finding('virtualisation', 'meets', '', 'No virtual machines are asked for.');
  const have = m.facts['cpu.virtualisation'];
  if (typeof have !== 'boolean')
    return ask('virtualisation', 'cpu.virtualisation', 'Hardware virtualisation');
  return have
    ? finding('virtualisation', 'meets', 'runs guests', 'The CPU runs virtual machines in hardware.')
    : finding(
        'virtualisation',
        'no',
        'no virtualisation',
        'The CPU does not offer virtualisation in hardware, or it is off in setup.',
      );
};

/** In order of weight: what no part can mend comes first. */
export const rules: readonly Rule[] = [
  width,
  level,
  virtualisation,
  cores,
  graphics,
  firmware,
  dataDrives,
  memory,
  bootDrive,
  wired,
  secureBoot,
];
