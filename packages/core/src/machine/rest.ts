import { sectionJson, type Section } from './sections';
import type { Survey } from './types';

/** /proc/meminfo counts in KiB although it prints kB: Linux kernel documentation, filesystems/proc. */
export function readMemory(sections: Map<string, Section>, survey: Survey): void {
  const line = sections
    .get('meminfo')
    ?.text.split('\n')
    .find((l) => l.startsWith('MemTotal'));
  const kib = /MemTotal:\s+(\d+)/.exec(line ?? '')?.[1];
  if (kib)
    survey.facts['memory.bytes'] = {
      value: Number(kib) * 1024,
      source: `meminfo, ${line?.replace(/\s+/g, ' ')}`,
    };
  else survey.missing.push('Memory: no MemTotal line');
}

/** Boot mode from the presence of /sys/firmware/efi; the Secure Boot variable's last byte (UEFI 2.10 §3.3). */
export function readFirmware(sections: Map<string, Section>, survey: Survey): void {
  const text = sections.get('firmware')?.text ?? '';
  const value = (key: string): string | undefined => new RegExp(`^${key}=(\\S+)`, 'm').exec(text)?.[1];
  const mode = value('mode');
  if (mode === 'uefi' || mode === 'bios' || mode === 'board')
    survey.facts['firmware.mode'] = { value: mode, source: `firmware, mode=${mode}` };
  else survey.missing.push('Firmware mode: the running system does not show it');
  const bits = value('bits');
  if (bits === '32' || bits === '64')
    survey.facts['firmware.bits'] = { value: bits, source: `firmware, bits=${bits}` };
  const secure = value('secureboot');
  if (secure === '0' || secure === '1') {
    survey.facts['firmware.secureBoot'] = {
      value: secure === '1' ? 'on' : 'off',
      source: `firmware, secureboot=${secure}`,
    };
  } else if (mode === 'bios' || mode === 'board') {
    // Secure Boot is UEFI's own (UEFI 2.10 §32); other ways of starting have none of it.
    survey.facts['firmware.secureBoot'] = { value: 'absent', source: `firmware, mode=${mode}` };
  } else survey.missing.push('Secure Boot: its state is not in the report');
  const date = /^date=(\S.*)$/m.exec(text)?.[1];
  if (date) survey.facts['firmware.date'] = { value: date.slice(0, 40), source: `firmware, date=${date}` };
}

interface PortRow {
  name?: unknown;
  kind?: unknown;
  driver?: unknown;
  speed?: unknown;
  intree?: unknown;
}

/** Network devices with hardware behind them; bridges and tunnels are left out by the script. */
export function readNetwork(sections: Map<string, Section>, survey: Survey): void {
  const json = sectionJson(sections.get('network'));
  if (!Array.isArray(json)) {
    survey.missing.push('Network ports: no readable network section');
    return;
  }
  survey.networkPorts = (json as PortRow[])
    .filter((r) => typeof r.name === 'string')
    .map((r) => ({
      name: String(r.name),
      kind: r.kind === 'wireless' ? ('wireless' as const) : ('wired' as const),
      driver: typeof r.driver === 'string' && r.driver !== '' ? r.driver : null,
      speedMbps: typeof r.speed === 'number' && r.speed > 0 ? r.speed : null,
      family: r.intree === 'Y' ? ('in-kernel' as const) : r.intree === 'N' ? ('out-of-tree' as const) : null,
    }));
  const fastest = Math.max(
    0,
    ...survey.networkPorts.map((p) => (p.kind === 'wired' ? (p.speedMbps ?? 0) : 0)),
  );
  if (fastest > 0)
    survey.facts['network.speed'] = {
      value: fastest,
      source: `network, speed ${fastest} on ${survey.networkPorts.find((p) => p.speedMbps === fastest)?.name}`,
    };
  for (const kind of ['wired', 'wireless'] as const) {
    const names = survey.networkPorts.filter((p) => p.kind === kind).map((p) => p.name);
    survey.facts[`network.${kind}`] = {
      value: names.length,
      source: `network, ${names.join(' ') || `no ${kind} device`}`,
    };
  }
}

/** The kernel driver bound to the first graphics card, and whether that driver comes with the kernel. */
export function readGraphics(sections: Map<string, Section>, survey: Survey): void {
  const json = sectionJson(sections.get('graphics'));
  if (!Array.isArray(json)) {
    survey.missing.push('Graphics: no readable graphics section');
    return;
  }
  const cards = json as { card?: unknown; driver?: unknown; intree?: unknown }[];
  const card = cards.find((c) => typeof c.driver === 'string' && c.driver !== '');
  if (!card) {
    survey.facts['graphics.family'] = {
      value: 'none',
      source: `graphics, ${cards.length ? 'a card without a driver' : 'no card'}`,
    };
    return;
  }
  survey.facts['graphics.driver'] = {
    value: String(card.driver),
    source: `graphics, driver ${String(card.driver)}`,
  };
  if (card.intree === 'Y' || card.intree === 'N') {
    survey.facts['graphics.family'] = {
      value: card.intree === 'Y' ? 'in-kernel' : 'out-of-tree',
      source: `graphics, intree ${card.intree}`,
    };
  } else
    survey.missing.push(
      'Graphics driver family: modinfo did not say whether the driver comes with the kernel',
    );
}
