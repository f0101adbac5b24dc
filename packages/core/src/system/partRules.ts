import { formatBoth, formatIec, GIB } from '../units/bytes';
import { ask, byteMargin, countMargin, finding, idle, plural, type Rule } from './finding';
import { drivePorts, driveState, expansionSlots, usable } from './places';

/** Firmware keeps a little memory for itself, so an 8 GB machine reports less: common practice, no source. */
const MEMORY_GRACE = 0.9;
const rule = 'memory';

export const memory: Rule = (m, { profile }) => {
  const have = m.number('memory.bytes');
  const need = profile.needs.memoryBytes;
  if (have === undefined) return ask(rule, 'memory.bytes', 'Memory');
  const words = `Needs ${formatIec(need)} of memory, has ${formatIec(have)}.`;
  const more = byteMargin(need, have);
  if (have >= need * MEMORY_GRACE) return finding(rule, 'meets', formatIec(have), words, more);
  const short = `${formatIec(have)} of ${formatIec(need)}`;
  const arch = m.text('cpu.arch');
  if (m.text('memory.form') === 'soldered' || (arch !== undefined && arch !== 'x86_64' && arch !== 'i686'))
    return finding(rule, 'no', short, `${words} It is soldered.`, more);
  const most = m.number('memory.max');
  if (most !== undefined && most < need)
    return finding(rule, 'no', short, `${words} It takes ${formatIec(most)} at most.`, more);
  const free = m.number('memory.free');
  if (free === undefined)
    return finding(rule, 'ask', 'a free memory slot?', `${words} Whether a slot is free is not known.`, {
      ...more,
      missing: 'memory.free',
    });
  if (free === 0 && most === undefined)
    return finding(
      rule,
      'ask',
      'larger modules?',
      `${words} No slot is free; whether it takes larger modules is not known.`,
      { ...more, missing: 'memory.max' },
    );
  const bytes = Math.ceil(need * MEMORY_GRACE - have);
  return finding(rule, 'change', `+${Math.max(1, Math.ceil((need - have) / GIB))} GiB memory`, words, {
    ...more,
    needs: [{ kind: 'memory', bytes }],
  });
};

export const bootDrive: Rule = (m, { profile }) => {
  const need = profile.needs.bootBytes;
  const { boot } = driveState(m.view, need);
  if (boot)
    return finding(
      'boot drive',
      'meets',
      `boots from ${formatIec(boot.bytes)}`,
      `Needs a boot drive of ${formatBoth(need)}; “${boot.name}” has ${formatBoth(boot.bytes)}.`,
      byteMargin(need, boot.bytes),
    );
  const free = usable(m.view.drives);
  const why = m.view.drives.some((d) => d.fate === 'keep' && d.bytes >= need)
    ? 'The only drive large enough holds what must be kept.'
    : m.view.drives.length === 0
      ? 'No drive is known in the machine.'
      : `Its largest free drive is ${formatIec(Math.max(0, ...free.map((d) => d.bytes)))}.`;
  return finding(
    'boot drive',
    'change',
    'needs a boot drive',
    `Needs a boot drive of ${formatBoth(need)}. ${why}`,
    {
      needs: [{ kind: 'boot', bytes: need }],
    },
  );
};

export const dataDrives: Rule = (m, { profile }) => {
  const name = 'data drives';
  const need = profile.needs.dataDrives;
  if (need === 0) return idle(name, 'No data drive is asked for.');
  const ports = drivePorts(m);
  if (ports === undefined) return ask(name, 'ports.drives', 'Number of drive ports');
  const { boot, data } = driveState(m.view, profile.needs.bootBytes);
  const lacking = Math.max(0, need - data.length);
  // A board that starts from its card keeps its ports for data.
  const wants = boot?.kind === 'card' ? need : need + 1;
  const drives = lacking > 0 ? [{ kind: 'drives' as const, count: lacking + (boot ? 0 : 1) }] : [];
  const words = `Needs ${plural(wants, 'port')} (${wants > need ? 'one boot, ' : ''}${need} data); it has ${plural(ports, 'drive port')}.`;
  const more = { ...countMargin(wants, ports), margin: `needs ${plural(wants, 'port')}, has ${ports}` };
  if (ports < wants) {
    const slots = expansionSlots(m);
    if (slots === undefined)
      return finding(name, 'ask', 'a free card slot?', `${words} A card adds ports where a slot is free.`, {
        ...more,
        missing: 'ports.pcie',
      });
    if (slots === 0) return finding(name, 'no', plural(ports, 'drive port'), words, more);
    return finding(name, 'change', `${plural(wants - ports, 'more port')}`, words, {
      ...more,
      needs: [{ kind: 'ports', count: wants - ports }, ...drives],
    });
  }
  return lacking === 0
    ? finding(
        name,
        'meets',
        `boot + ${need} data`,
        `${plural(data.length + 1, 'free drive')} in ${plural(ports, 'port')}: one to boot, ${need} for data.`,
        more,
      )
    : finding(
        name,
        'change',
        `${plural(lacking, 'more drive')}`,
        `Needs ${plural(need, 'data drive')} besides the boot drive; ${plural(data.length, 'free drive is', 'free drives are')} in it for that.`,
        { ...more, needs: drives },
      );
};

export const wired: Rule = (m, { profile }) => {
  const name = 'network';
  const need = profile.needs.wiredPorts;
  if (need === 0) return idle(name, 'No wired port is asked for.');
  const have = m.number('network.wired');
  if (have === undefined) return ask(name, 'network.wired', 'Number of wired network ports');
  const noun = have === 0 ? 'no network port' : plural(have, 'network port');
  const more = countMargin(need, have);
  if (have >= need)
    return finding(name, 'meets', `${have} wired`, `Needs ${plural(need, 'wired port')}, has ${have}.`, more);
  return finding(
    name,
    'change',
    noun,
    `Needs ${plural(need, 'wired port')}, has ${have === 0 ? 'none' : have}.`,
    { ...more, needs: [{ kind: 'wired', count: need - have }] },
  );
};
