import { ask, countMargin, finding, idle, type Rule } from './finding';
import { bootDrive, dataDrives, memory, wired } from './partRules';

const LEVELS = ['v1', 'v2', 'v3', 'v4'];
/** The year from which CPUs of a level were sold: a lower bound for the year of any CPU that reaches it. Common practice, no source. */
const LEVEL_SINCE: Record<string, number> = { v2: 2008, v3: 2013, v4: 2017 };

const STARTS_BY: Record<string, string> = {
  uefi: 'Starts in UEFI mode, as this machine does.',
  bios: 'Starts in BIOS mode, as this machine does.',
  board: 'Starts by a board’s own loader, as this machine does.',
};

const width: Rule = (m, { release }) => {
  const arch = m.text('cpu.arch');
  const bits = m.number('cpu.bits');
  const wants = release.archs.join(' or ');
  if (arch === undefined) return ask('cpu', 'cpu.arch', 'CPU architecture');
  if (arch === 'x86_64' && bits === 32)
    return finding('cpu', 'no', '32-bit CPU', `Built for ${wants}; the CPU is 32-bit.`);
  if ((release.archs as string[]).includes(arch))
    return finding('cpu', 'meets', arch, `Built for ${wants}, and the CPU is ${arch}.`);
  if (arch === 'x86_64' && release.archs.includes('i686'))
    return finding('cpu', 'meets', 'runs 32-bit builds', 'The CPU also runs 32-bit builds.');
  const short = arch === 'i686' || bits === 32 ? '32-bit CPU' : `${wants} image only`;
  return finding('cpu', 'no', short, `Built for ${wants}; the CPU is ${arch}.`);
};

const level: Rule = (m, { release }) => {
  const need = release.cpuLevel;
  if (need === null || need === 'v1' || m.text('cpu.arch') !== 'x86_64')
    return idle('cpu level', 'No CPU level beyond the first is asked for.');
  const have = m.text('cpu.level');
  if (have === undefined) return ask('cpu level', 'cpu.level', 'x86-64 level');
  const words = `needs ${need}, has ${have}`;
  return LEVELS.indexOf(have) >= LEVELS.indexOf(need)
    ? finding('cpu level', 'meets', `level ${have}`, `Needs x86-64-${need}; the CPU reaches ${have}.`, {
        margin: words,
      })
    : finding(
        'cpu level',
        'no',
        `CPU level ${have}, needs ${need}`,
        `Needs x86-64-${need}; the CPU only reaches ${have}. It would stop at a black screen.`,
        { margin: words },
      );
};

const cores: Rule = (m, { profile }) => {
  const need = profile.needs.cores;
  if (need <= 1) return idle('cores', 'One core is enough.');
  const have = m.number('cpu.cores');
  if (have === undefined) return ask('cores', 'cpu.cores', 'Number of cores');
  const words = countMargin(need, have);
  return have >= need
    ? finding('cores', 'meets', `${have} cores`, `Needs ${need} cores, has ${have}.`, words)
    : finding('cores', 'no', `${have} of ${need} cores`, `Needs ${need} cores, has ${have}.`, words);
};

/** Too old and too new both fail at the same black screen, for opposite reasons. */
const window: Rule = (m, { release }) => {
  const { oldestYear: oldest, newestYear: newest, version } = release;
  if (oldest === null && newest === null)
    return idle('release window', 'The release names no oldest or newest hardware.');
  const year = m.number('cpu.year');
  const since = LEVEL_SINCE[m.text('cpu.level') ?? ''];
  if (year === undefined) {
    if (newest === null && oldest !== null && since !== undefined && since >= oldest)
      return finding(
        'release window',
        'meets',
        `from ${since} or later`,
        `Release ${version} knows hardware from ${oldest} on; a CPU of this level is from ${since} or later.`,
      );
    return ask('release window', 'cpu.year', 'Year of the CPU');
  }
  const window = `${oldest ?? '…'} to ${newest ?? 'now'}`;
  if (oldest !== null && year < oldest)
    return finding(
      'release window',
      'no',
      `from ${year}, too old for ${version}`,
      `Release ${version} is known to run on hardware from ${oldest} on; this is from ${year}.`,
      { soft: true, margin: `${window}; it is from ${year}` },
    );
  if (newest !== null && year > newest)
    return finding(
      'release window',
      'no',
      `from ${year}, too new for ${version}`,
      `Release ${version} knows hardware up to ${newest}; this is from ${year}, and its kernel may be older than the graphics.`,
      { soft: true, margin: `${window}; it is from ${year}` },
    );
  return finding(
    'release window',
    'meets',
    `from ${year}`,
    `From ${year}, within ${window} of release ${version}.`,
    {
      margin: `${window}; it is from ${year}`,
    },
  );
};

const graphics: Rule = (m, { profile, variant }) => {
  if (!profile.needs.graphics) return idle('graphics', 'No graphics are needed.');
  const family = m.text('graphics.family');
  if (family === undefined) return ask('graphics', 'graphics.family', 'Graphics driver family');
  if (family === 'none')
    return finding('graphics', 'no', 'no graphics', 'Needs graphics with a driver; the machine has none.');
  return (variant.drivers as string[]).includes(family)
    ? finding(
        'graphics',
        'meets',
        `${family} driver`,
        `The graphics run on an ${family} driver, which the variant “${variant.name}” carries.`,
      )
    : finding(
        'graphics',
        'no',
        family === 'out-of-tree' ? 'closed driver' : 'open driver',
        `The variant “${variant.name}” carries ${variant.drivers.join(' and ')} drivers only; the machine’s graphics need one of the ${family} kind.`,
      );
};

const firmware: Rule = (m, { profile }) => {
  const wants: string[] = profile.needs.firmware;
  const arch = m.text('cpu.arch');
  const pc = arch === 'x86_64' || arch === 'i686';
  if (pc && wants.includes('bios') && wants.includes('uefi'))
    return finding('firmware', 'meets', 'BIOS or UEFI', 'Starts in BIOS and in UEFI mode.');
  const mode = m.text('firmware.mode');
  if (mode === undefined) return ask('firmware', 'firmware.mode', 'Boot mode');
  if (wants.includes(mode)) return finding('firmware', 'meets', mode, STARTS_BY[mode] ?? '');
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
  const text = 'Switch to the BIOS (legacy) mode in setup, if it offers one.';
  return finding(
    'firmware',
    'change',
    'switch to BIOS mode',
    'Needs BIOS mode; the machine is set to UEFI.',
    {
      repair: text,
      setting: { kind: 'setting', text, set: 'firmware.mode', value: 'bios' },
    },
  );
};

const secureBoot: Rule = (m, { profile }) => {
  const rule = 'secure boot';
  if (profile.secureBoot === 'signed') return idle(rule, 'Its loader is signed, so Secure Boot may stay on.');
  const mode = m.text('firmware.mode');
  if (mode === 'bios' || mode === 'board')
    return idle(rule, 'Secure Boot is UEFI’s own; here there is none.');
  const state = m.text('firmware.secureBoot');
  if (state === 'off' || state === 'absent') return idle(rule, 'Secure Boot does not stand in the way.');
  if (profile.secureBoot === 'own key at first restart')
    return finding(
      rule,
      'meets',
      'enrol its key',
      'Secure Boot may stay on: enrol the system’s own key at the first restart, before its blue screen times out.',
    );
  // Where the state was never seen, looking costs one visit to setup, which the build makes anyway.
  const text =
    state === 'on'
      ? 'Turn Secure Boot off in setup.'
      : 'Look in setup, and turn Secure Boot off if it is on.';
  return finding(
    rule,
    'change',
    'Secure Boot off first',
    state === 'on'
      ? 'Secure Boot is on and the loader is not signed.'
      : 'The loader is not signed, and the state of Secure Boot is not known.',
    { repair: text, setting: { kind: 'setting', text, set: 'firmware.secureBoot', value: 'off' } },
  );
};

const virtualisation: Rule = (m, { profile }) => {
  if (!profile.needs.virtualisation) return idle('virtualisation', 'No virtual machines are asked for.');
  const have = m.flag('cpu.virtualisation');
  if (have === undefined) return ask('virtualisation', 'cpu.virtualisation', 'Hardware virtualisation');
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
  window,
  graphics,
  firmware,
  dataDrives,
  memory,
  bootDrive,
  wired,
  secureBoot,
];
