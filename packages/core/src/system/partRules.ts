import { ask, byteMargin, countMargin, finding, idle, type Rule } from './finding';
import { drivePorts, driveState, expansionSlots, startsFrom, usable } from './places';

/** Firmware keeps a little memory for itself, so an 8 GB machine reports less: common practice, no source. */
const MEMORY_GRACE = 0.9;

/** Memory against what the system needs; bytes. */
export const memory: Rule = (m, { profile }) => {
  const rule = 'memory';
  const have = m.number('memory.bytes');
  const need = profile.needs.memoryBytes;
  if (have === undefined) return ask(rule, 'memory.bytes');
  const more = byteMargin(need, have);
  const installed = m.view.modules?.reduce((n, b) => n + b, 0) ?? null;
  if (have >= need * MEMORY_GRACE)
    return finding(rule, 'meets', { code: 'memory enough', need, have, installed }, more);
  // The modules are there; graphics that keep a share of them are a setting, not a lack.
  if (installed !== null && installed >= need && m.text('firmware.graphicsMemory') !== 'automatic')
    return finding(
      rule,
      'change',
      { code: 'graphics take memory', need, have, installed },
      {
        ...more,
        setting: {
          kind: 'setting',
          set: 'firmware.graphicsMemory',
          value: 'automatic',
          seen: m.text('firmware.graphicsMemory') === 'fixed',
        },
      },
    );
  if (installed !== null && installed >= need)
    return finding(rule, 'meets', { code: 'memory enough', need, have, installed }, more);
  const arch = m.text('cpu.arch');
  if (m.text('memory.form') === 'soldered' || (arch !== undefined && arch !== 'x86_64' && arch !== 'i686'))
    return finding(rule, 'no', { code: 'memory soldered', need, have }, more);
  const most = m.number('memory.max');
  if (most !== undefined && most < need)
    return finding(rule, 'no', { code: 'memory at its most', need, have, most }, more);
  const free = m.number('memory.free');
  if (free === undefined)
    return finding(
      rule,
      'ask',
      { code: 'memory slot not known', need, have },
      { ...more, missing: 'memory.free' },
    );
  if (free === 0 && most === undefined)
    return finding(
      rule,
      'ask',
      { code: 'larger modules not known', need, have },
      { ...more, missing: 'memory.max' },
    );
  const bytes = Math.ceil(need * MEMORY_GRACE - have);
  return finding(
    rule,
    'change',
    { code: 'memory short', need, have },
    { ...more, needs: [{ kind: 'memory', bytes }] },
  );
};

/** A drive to start from, of the bytes the system needs, that may be used. */
export const bootDrive: Rule = (m, { profile }) => {
  const rule = 'boot drive';
  const need = profile.needs.bootBytes;
  const { boot } = driveState(m.view, need);
  if (boot)
    return finding(
      rule,
      'meets',
      { code: 'boots from', need, drive: boot.name, bytes: boot.bytes },
      byteMargin(need, boot.bytes),
    );
  const large = usable(m.view.drives).filter((d) => d.bytes >= need);
  const [card] = large.filter((d) => d.kind === 'card' || d.transport === 'mmc');
  if (card && !startsFrom(m.view, card) && m.flag('firmware.startsCard') === undefined)
    return finding(
      rule,
      'ask',
      { code: 'card start not known', need, drive: card.name },
      { missing: 'firmware.startsCard' },
    );
  const [nvme] = large.filter((d) => d.transport === 'nvme');
  if (nvme)
    return finding(
      rule,
      'change',
      { code: 'NVMe not started', need, drive: nvme.name },
      { needs: [{ kind: 'boot', bytes: need }] },
    );
  const kept = m.view.drives.some((d) => d.fate === 'keep' && d.bytes >= need);
  const largest = Math.max(0, ...usable(m.view.drives).map((d) => d.bytes));
  const reason = kept
    ? { code: 'large drive kept' as const, need }
    : m.view.drives.length === 0
      ? { code: 'no drive known' as const, need }
      : { code: 'free drives too small' as const, need, largest };
  return finding(rule, 'change', reason, { needs: [{ kind: 'boot', bytes: need }] });
};

/** What a mirror of the largest of these drives keeps, and what larger ones among them cannot give to it; bytes. */
function mirror(data: readonly { bytes: number }[], need: number): { usable: number; lost: number } {
  const taken = data
    .map((d) => d.bytes)
    .sort((a, b) => b - a)
    .slice(0, need);
  const least = Math.min(...taken);
  return { usable: least, lost: taken.reduce((n, b) => n + b - least, 0) };
}

/** Ports and free drives for the data drives the system needs besides the boot drive. */
export const dataDrives: Rule = (m, { profile }) => {
  const rule = 'data drives';
  const need = profile.needs.dataDrives;
  if (need === 0) return idle(rule);
  const ports = drivePorts(m);
  if (ports === undefined) return ask(rule, 'ports.drives');
  const { boot, data } = driveState(m.view, profile.needs.bootBytes);
  const lacking = Math.max(0, need - data.length);
  // A board that starts from its card keeps its ports for data.
  const wants = boot?.kind === 'card' ? need : need + 1;
  const drives = lacking > 0 ? [{ kind: 'drives' as const, count: lacking + (boot ? 0 : 1) }] : [];
  const more = {
    slack: countMargin(wants, ports).slack ?? 1,
    margin: { of: 'ports' as const, need: wants, have: ports },
  };
  if (ports < wants) {
    const slots = expansionSlots(m);
    const said = slots === undefined ? 'not known' : slots === 0 ? 'none' : 'free';
    const reason = { code: 'ports short' as const, wants, need, ports, slots: said } as const;
    if (slots === undefined) return finding(rule, 'ask', reason, { ...more, missing: 'ports.pcie' });
    if (slots === 0) return finding(rule, 'no', reason, more);
    return finding(rule, 'change', reason, {
      ...more,
      needs: [{ kind: 'ports', count: wants - ports }, ...drives],
    });
  }
  const bays = m.number('ports.bays') ?? null;
  const leads = m.number('power.sataLeads') ?? null;
  if (lacking > 0 && Math.min(bays ?? lacking, leads ?? lacking) < lacking)
    // A carrier or a splitter may help: it can be set aside with a reason.
    return finding(rule, 'no', { code: 'no room for drives', lacking, bays, leads }, { ...more, soft: true });
  return lacking === 0
    ? finding(
        rule,
        'meets',
        { code: 'ports enough', ports, data: data.length, need, ...mirror(data, need) },
        more,
      )
    : finding(
        rule,
        'change',
        { code: 'data drives short', need, there: data.length, lacking },
        { ...more, needs: drives },
      );
};

/** Wired network ports, counted. */
export const wired: Rule = (m, { profile }) => {
  const rule = 'network';
  const need = profile.needs.wiredPorts;
  if (need === 0) return idle(rule);
  const have = m.number('network.wired');
  if (have === undefined) return ask(rule, 'network.wired');
  const enough = have >= need;
  const reason = { code: 'wired ports counted' as const, need, have, enough };
  return finding(rule, enough ? 'meets' : 'change', reason, {
    ...countMargin(need, have),
    ...(enough ? {} : { needs: [{ kind: 'wired', count: need - have }] }),
  });
};
