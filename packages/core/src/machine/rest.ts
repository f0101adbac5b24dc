import { canonicalHardware, isNoCard } from '../units/hardware';
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
  } else if (secure === 'absent') {
    survey.facts['firmware.secureBoot'] = { value: 'absent', source: 'firmware, secureboot=absent' };
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
  most?: unknown;
  bus?: unknown;
  address?: unknown;
}

/** The address of a card as the kernel tells it; null where it tells none. */
function cardAddress(told: unknown): string | null {
  const found = typeof told === 'string' ? canonicalHardware(told) : undefined;
  return found === undefined || isNoCard(found) ? null : found;
}

/** Network devices with hardware behind them; bridges and tunnels are left out by the script. */
export function readNetwork(sections: Map<string, Section>, survey: Survey): void {
  const json = sectionJson(sections.get('network'));
  if (!Array.isArray(json)) {
    survey.missing.push('Network ports: no readable network section');
    return;
  }
  const rows = (json as PortRow[]).filter((r) => typeof r.name === 'string');
  // An adapter or a phone on USB is not the machine's own; earlier reports tell it by its name (systemd.net-naming-scheme).
  const onUsb = (r: PortRow): boolean =>
    r.bus === 'usb' || (r.bus === undefined && /^(enx|usb\d)/.test(String(r.name)));
  const foreign = rows.filter(onUsb).map((r) => String(r.name));
  if (foreign.length > 0)
    survey.missing.push(`Network: ${foreign.join(', ')} hangs on USB and is not counted as a port`);
  const own = rows.filter((r) => !onUsb(r));
  survey.networkPorts = own.map((r) => ({
    name: String(r.name),
    kind: r.kind === 'wireless' ? ('wireless' as const) : ('wired' as const),
    driver: typeof r.driver === 'string' && r.driver !== '' ? r.driver : null,
    speedMbps: typeof r.speed === 'number' && r.speed > 0 ? r.speed : null,
    hardware: cardAddress(r.address),
    family: r.intree === 'Y' ? ('in-kernel' as const) : r.intree === 'N' ? ('out-of-tree' as const) : null,
  }));
  const wired = own.filter((r) => r.kind !== 'wireless');
  const most = Math.max(0, ...wired.map((r) => (typeof r.most === 'number' ? r.most : 0)));
  const linked = Math.max(0, ...wired.map((r) => (typeof r.speed === 'number' ? r.speed : 0)));
  const named = (key: 'most' | 'speed', value: number): string =>
    wired.flatMap((r) => (r[key] === value && typeof r.name === 'string' ? [r.name] : []))[0] ?? '';
  if (most > 0)
    survey.facts['network.speed'] = {
      value: most,
      source: `network, ${named('most', most)} offers ${most} Mb/s (ethtool, Supported link modes)`,
    };
  else if (linked > 0)
    // What two ends agreed on is the slower one's speed.
    survey.assumed['network.speed'] = {
      value: linked,
      because: `network, ${named('speed', linked)} is linked at ${linked} Mb/s; the port itself may do more`,
    };
  for (const kind of ['wired', 'wireless'] as const) {
    const names = survey.networkPorts.filter((p) => p.kind === kind).map((p) => p.name);
    survey.facts[`network.${kind}`] = {
      value: names.length,
      source: `network, ${names.join(' ') || `no ${kind} device`}`,
    };
  }
}

/** Drivers that show a picture the firmware left behind, on any hardware: a basic-graphics start. */
const BASIC =
  /^(simple-framebuffer|simpledrm|efi-framebuffer|efifb|vesa-framebuffer|vesafb|platform-framebuffer|ofdrm|vesadrm|efidrm)$/;
/** Drivers of a bus, never of what is drawn. */
const BUS = /^(virtio-pci|pcieport|vfio-pci|pci-stub)$/;
/** Makers of graphics, by PCI vendor number, whose hardware is run by a driver of the kernel or by one from outside it: common practice, no source. */
const TWO_DRIVERS = new Set(['10de']);
const OPEN_DRIVER = /^(nouveau|nova)/;
const isDisplay = (d: { class: string }): boolean => d.class.startsWith('03');

/** The kernel driver that runs the display, and whether it comes with the kernel. */
export function readGraphics(sections: Map<string, Section>, survey: Survey): void {
  const json = sectionJson(sections.get('graphics'));
  if (!Array.isArray(json)) {
    survey.missing.push('Graphics: no readable graphics section');
    return;
  }
  const cards = json as { card?: unknown; driver?: unknown; intree?: unknown }[];
  const driven = cards.filter((c) => typeof c.driver === 'string' && c.driver !== '');
  const card = driven.find((c) => !BASIC.test(String(c.driver)) && !BUS.test(String(c.driver)));
  if (!card) {
    // Nothing drives it now: a start with basic graphics, or a system without the driver. That is not “no graphics”.
    const basic = driven.find((c) => BASIC.test(String(c.driver)));
    const [device] = survey.details.pci.filter(isDisplay);
    survey.missing.push(
      basic
        ? `Graphics: started with basic graphics (${String(basic.driver)}); which driver it wants is not known from this start`
        : `Graphics: no graphics driver is in use${device ? ` on ${device.slot} (${device.id})` : ''}; which it wants is not known`,
    );
    return;
  }
  const driver = String(card.driver);
  survey.facts['graphics.driver'] = { value: driver, source: `graphics, driver ${driver}` };
  const two = survey.details.pci.find((d) => isDisplay(d) && TWO_DRIVERS.has(d.id.slice(0, 4)));
  if (two && OPEN_DRIVER.test(driver)) {
    survey.assumed['graphics.family'] = {
      value: 'out-of-tree',
      because: `pci, ${two.slot} is ${two.id}: the open driver ${driver} is in use, and such hardware wants the one from outside the kernel for games`,
    };
  } else if (card.intree === 'Y' || card.intree === 'N') {
    survey.facts['graphics.family'] = {
      value: card.intree === 'Y' ? 'in-kernel' : 'out-of-tree',
      source: `graphics, intree ${card.intree}`,
    };
  } else
    survey.missing.push(
      'Graphics driver family: modinfo did not say whether the driver comes with the kernel',
    );
}
