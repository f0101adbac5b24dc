import { said } from './notSaid';
import { ask, countMargin, finding, idle, type Rule } from './finding';
import type { SettingRepair } from './repairs';
import { bootDrive, dataDrives, memory, wired } from './partRules';
import { offersOf } from './places';

const LEVELS = ['v1', 'v2', 'v3', 'v4'];
/** The year from which CPUs of a level were sold: a lower bound for the year of any CPU that reaches it. Common practice, no source. */
const LEVEL_SINCE: Record<string, number> = { v2: 2008, v3: 2013, v4: 2017 };

const width: Rule = (m, { release }) => {
  const arch = m.text('cpu.arch');
  const bits = m.number('cpu.bits');
  const wants: string[] = release.archs;
  if (arch === undefined) return ask('cpu', 'cpu.arch');
  if (arch === 'x86_64' && bits === 32) return finding('cpu', 'no', { code: 'CPU has 32 bits', wants });
  if (wants.includes(arch)) return finding('cpu', 'meets', { code: 'architecture fits', arch, wants });
  if (arch === 'aarch64' && wants.includes('armv7l')) {
    // Newer 64-bit cores have dropped the 32-bit state, and a board's loader may not start a 32-bit system at all.
    const narrow = m.flag('cpu.arm32');
    if (narrow === undefined) return ask('cpu', 'cpu.arm32');
    if (narrow) return finding('cpu', 'meets', { code: 'runs 32-bit builds' });
  }
  if (arch === 'x86_64' && wants.includes('i686'))
    return finding('cpu', 'meets', { code: 'runs 32-bit builds' });
  const narrow = arch === 'i686' || bits === 32;
  return finding('cpu', 'no', { code: 'other architecture', arch, wants, narrow });
};

const level: Rule = (m, { release }) => {
  const need = release.cpuLevel;
  if (need === null || need === 'v1' || m.text('cpu.arch') !== 'x86_64') return idle('cpu level');
  const have = m.text('cpu.level');
  if (have === undefined) return ask('cpu level', 'cpu.level');
  const margin = { of: 'level' as const, need, have };
  return LEVELS.indexOf(have) >= LEVELS.indexOf(need)
    ? finding('cpu level', 'meets', { code: 'CPU level reached', need, have }, { margin })
    : finding('cpu level', 'no', { code: 'CPU level not reached', need, have }, { margin });
};

const cores: Rule = (m, { profile }) => {
  const need = profile.needs.cores;
  if (need <= 1) return idle('cores');
  const have = m.number('cpu.cores');
  if (have === undefined) return ask('cores', 'cpu.cores');
  const enough = have >= need;
  const reason = { code: 'cores counted' as const, need, have, enough };
  return finding('cores', enough ? 'meets' : 'no', reason, countMargin(need, have));
};

/** Too old and too new both fail at the same black screen, for opposite reasons. */
const window: Rule = (m, { release }) => {
  const rule = 'release window';
  const { oldestYear: oldest, newestYear: newest, version } = release;
  if (oldest === null && newest === null) return idle(rule);
  const year = m.number('cpu.year');
  const since = LEVEL_SINCE[m.text('cpu.level') ?? ''];
  if (year === undefined) {
    if (newest === null && oldest !== null && since !== undefined && since >= oldest)
      return finding(rule, 'meets', { code: 'level dates the CPU', version, oldest, since });
    return ask(rule, 'cpu.year');
  }
  const margin = { of: 'years' as const, oldest, newest, have: year };
  if (oldest !== null && year < oldest)
    return finding(
      rule,
      'no',
      { code: 'older than the release knows', version, oldest, year },
      { soft: true, margin },
    );
  if (newest !== null && year > newest)
    return finding(
      rule,
      'no',
      { code: 'newer than the release knows', version, newest, year },
      { soft: true, margin },
    );
  return finding(
    rule,
    'meets',
    { code: 'within the release window', version, oldest, newest, year },
    { margin },
  );
};

/** Kernel drivers of the graphics in a server's management chip: a picture for setup, nothing to draw with. Common practice, no source. */
const MANAGEMENT = new Set(['ast', 'mgag200', 'hibmc-drm', 'hibmc_drm']);

const graphics: Rule = (m, { profile, variant }) => {
  if (!profile.needs.graphics) return idle('graphics');
  const driver = m.text('graphics.driver');
  if (driver !== undefined && MANAGEMENT.has(driver))
    return finding('graphics', 'no', { code: 'management graphics', driver });
  const family = m.text('graphics.family');
  if (family === undefined) return ask('graphics', 'graphics.family');
  if (family === 'none') return finding('graphics', 'no', { code: 'no graphics' });
  const carries: string[] = variant.drivers;
  return carries.includes(family)
    ? finding('graphics', 'meets', { code: 'driver carried', family, variant: variant.name })
    : finding('graphics', 'no', { code: 'driver not carried', family, variant: variant.name, carries });
};

const toMode = (value: 'uefi' | 'bios'): { setting: SettingRepair } => ({
  setting: { kind: 'setting', set: 'firmware.mode', value, seen: true },
});

const firmware: Rule = (m, { profile, release }) => {
  const rule = 'firmware';
  const wants: string[] = profile.needs.firmware;
  const arch = m.text('cpu.arch');
  const pc = arch === 'x86_64' || arch === 'i686';
  const mode = m.text('firmware.mode');
  const offers = offersOf(m);
  // A 64-bit CPU behind a 32-bit UEFI: a loader of 64 bits alone is not found (UEFI 2.10 §3.5.1.1).
  const narrow = mode === 'uefi' && m.number('firmware.bits') === 32 && arch === 'x86_64';
  if (narrow && wants.includes('uefi') && !(release.archs as string[]).includes('i686')) {
    if (wants.includes('bios') && offers?.includes('bios'))
      return finding(rule, 'change', { code: 'BIOS mode wanted' }, toMode('bios'));
    return finding(rule, 'no', { code: 'UEFI has 32 bits', system: profile.name }, { soft: true });
  }
  if (pc && wants.includes('bios') && wants.includes('uefi'))
    return finding(rule, 'meets', { code: 'starts in both modes' });
  if (mode === undefined) return ask(rule, 'firmware.mode');
  if (wants.includes(mode)) return finding(rule, 'meets', { code: 'starts in its mode', mode });
  if (mode === 'board') return finding(rule, 'no', { code: 'starts by a board’s loader', wants });
  if (!wants.includes('uefi') && !wants.includes('bios'))
    return finding(rule, 'no', { code: 'made for boards alone' });
  // Its setup screen tells whether it can do both: many machines with UEFI have no compatibility mode any more.
  if (mode === 'bios') {
    if (offers === undefined)
      return finding(rule, 'ask', { code: 'UEFI wanted, BIOS seen' }, { missing: 'firmware.offers' });
    return offers.includes('uefi')
      ? finding(rule, 'change', { code: 'UEFI wanted, BIOS seen' }, toMode('uefi'))
      : finding(rule, 'no', { code: 'offers no UEFI' });
  }
  if (offers === undefined)
    return finding(rule, 'ask', { code: 'compatibility mode not known' }, { missing: 'firmware.offers' });
  return offers.includes('bios')
    ? finding(rule, 'change', { code: 'BIOS mode wanted' }, toMode('bios'))
    : finding(rule, 'no', { code: 'offers no BIOS mode' });
};

const secureBoot: Rule = (m, { profile }) => {
  const rule = 'secure boot';
  if (profile.secureBoot === 'signed') return idle(rule, { code: 'loader signed' });
  const mode = m.text('firmware.mode');
  if (mode === 'bios' || mode === 'board') return idle(rule, { code: 'no Secure Boot there' });
  const state = m.text('firmware.secureBoot');
  if (state === 'off' || state === 'absent') return idle(rule, { code: 'Secure Boot off' });
  if (profile.secureBoot === 'own key at first restart')
    return finding(rule, 'meets', { code: 'own key enrolled' });
  // Where the state was never seen, looking costs one visit to setup, which the build makes anyway.
  const known = state === 'on';
  return finding(
    rule,
    'change',
    { code: 'Secure Boot refuses', known },
    { setting: { kind: 'setting', set: 'firmware.secureBoot', value: 'off', seen: known } },
  );
};

const virtualisation: Rule = (m, { profile }) => {
  if (!profile.needs.virtualisation) return idle('virtualisation');
  const have = m.flag('cpu.virtualisation');
  if (have === undefined) return ask('virtualisation', 'cpu.virtualisation');
  return have
    ? finding('virtualisation', 'meets', { code: 'runs guests' })
    : finding('virtualisation', 'no', { code: 'runs no guests' });
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
  said,
];
