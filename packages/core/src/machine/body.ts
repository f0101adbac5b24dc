import type { BatteryState, Link } from '../model/details';
import { EdidError, hexBytes, readEdid, type Edid } from '../formats/edid';
import { pairsOf, type Section } from './sections';
import type { Survey } from './types';

const lines = (section: Section | undefined): string[] =>
  (section?.text ?? '')
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean);
const number = (text: string | undefined): number | null =>
  text !== undefined && /^-?\d+(\.\d+)?$/.test(text) ? Number(text) : null;

/** The display a person will look at first: one built in before one plugged in. */
const BUILT_IN = /^(eDP|LVDS|DSI)/;

/** Connected displays with their EDID, and the kernel's device for the HDMI remote-control line. */
export function readDisplays(section: Section | undefined, survey: Survey): void {
  if (!section) return;
  const rows = lines(section);
  const connectors = rows.filter((l) => / status=/.test(l));
  const read: { connector: string; edid: Edid }[] = [];
  for (const row of connectors) {
    const connector = row.split(' ')[0] ?? '';
    const values = pairsOf(row);
    const hex = values.get('edid') ?? '';
    if (values.get('status') !== 'connected') continue;
    if (hex === '') {
      survey.missing.push(`Display on ${connector}: connected, but it tells nothing of itself`);
      continue;
    }
    try {
      read.push({ connector, edid: readEdid(hexBytes(hex)) });
      survey.details.displays.push({ connector, edid: hex.slice(0, 2048) });
    } catch (error) {
      if (!(error instanceof EdidError)) throw error;
      survey.missing.push(`Display on ${connector}: ${error.message}`);
    }
  }
  const seen = read.find((r) => BUILT_IN.test(r.connector)) ?? read[0];
  if (seen) {
    const { connector, edid } = seen;
    const fact = (key: keyof Survey['facts'], value: string | boolean, what: string): void => {
      survey.facts[key] = { value, source: `displays, ${connector}, EDID ${what}` };
    };
    if (edid.native) {
      fact('display.native', `${edid.native.width} × ${edid.native.height}`, 'first detailed timing');
      fact('display.portrait', edid.portrait, `native ${edid.native.width} × ${edid.native.height}`);
    }
    if (edid.sizeMm) fact('display.size', `${edid.sizeMm.width} × ${edid.sizeMm.height}`, 'image size');
    fact('display.audio', edid.audio, edid.audio ? 'audio in the CTA-861 block' : 'no audio block');
  }
  const line = rows.find((l) => l.startsWith('cec='));
  if (line) survey.facts['display.remote'] = { value: true, source: `displays, ${line}` };
  else if (section.whole && connectors.some((l) => l.startsWith('HDMI')))
    survey.facts['display.remote'] = { value: false, source: 'displays, an HDMI connector and no /dev/cec*' };
}

/** Batteries: energy in µWh, or charge in µAh with the design voltage. Linux documentation, power_supply class. */
export function readPower(section: Section | undefined, survey: Survey): void {
  if (!section) return;
  const supplies = section.text.split(/^(?=type=)/m).filter((s) => s.startsWith('type='));
  // A mouse or a pad has a battery of its own: its scope is the device (Linux documentation, power_supply class).
  const batteries = supplies.filter((s) => s.startsWith('type=Battery') && !/\bscope=Device\b/.test(s));
  if (section.whole || batteries.length > 0)
    survey.facts['power.battery'] = {
      value: batteries.length > 0,
      source: batteries.length > 0 ? 'power, type=Battery' : 'power, no battery listed',
    };
  survey.details.batteries = batteries.map((b): BatteryState => {
    const v = pairsOf(b);
    const volts = (number(v.get('voltage_min_design')) ?? 0) / 1e6;
    const wh = (energy: string, charge: string): number | null => {
      const e = number(v.get(energy));
      const c = number(v.get(charge));
      return e !== null ? e / 1e6 : c !== null && volts > 0 ? (c / 1e6) * volts : null;
    };
    const cycles = number(v.get('cycle_count'));
    return {
      name: (v.get('name') ?? 'battery').slice(0, 200),
      designWh: wh('energy_full_design', 'charge_full_design'),
      fullWh: wh('energy_full', 'charge_full'),
      cycles: cycles !== null && cycles > 0 ? cycles : null,
    };
  });
  const [first] = survey.details.batteries;
  if (first?.designWh && first.fullWh !== null)
    survey.facts['power.wear'] = {
      value: Math.round((100 * first.fullWh) / first.designWh),
      source: `power, ${first.name}: ${first.fullWh.toFixed(1)} of ${first.designWh.toFixed(1)} Wh`,
    };
}

/** Fans and temperatures as the kernel's hwmon class shows them: turns a minute, thousandths of a degree. */
export function readSensors(section: Section | undefined, survey: Survey): void {
  for (const line of lines(section)) {
    const found = /^(fan|temp) (-?\d+) (.+)$/.exec(line);
    if (!found) continue;
    const [, kind, value, label] = found;
    survey.details.sensors.push({
      label: (label ?? '').slice(0, 200),
      kind: kind === 'fan' ? 'fan' : 'temperature',
      value: kind === 'fan' ? Number(value) : Number(value) / 1000,
    });
  }
  const turning = survey.details.sensors.find((s) => s.kind === 'fan' && s.value > 0);
  if (turning)
    survey.facts['body.fan'] = {
      value: true,
      source: `sensors, ${turning.label}: ${turning.value} a minute`,
    };
}

const CLASS: Record<string, Link['what']> = { '01': 'drive', '02': 'network', '03': 'graphics' };

/** PCIe links as sysfs shows them; a device that runs below what it could is worth a look. */
export function readLinks(section: Section | undefined, survey: Survey): void {
  for (const line of lines(section)) {
    const v = pairsOf(line);
    const what = CLASS[(v.get('class') ?? '').slice(2, 4)] ?? 'other';
    if (what === 'other' || !v.has('maxwidth')) continue;
    const lanes = (key: string): number | null => {
      const n = number(v.get(key));
      return n !== null && n > 0 && n <= 32 ? n : null;
    };
    survey.details.links.push({
      name: (line.split(' ')[0] ?? '').slice(0, 200),
      what,
      gts: number(v.get('speed')),
      maxGts: number(v.get('maxspeed')),
      lanes: lanes('width'),
      maxLanes: lanes('maxwidth'),
    });
  }
}

/** Entries of the firmware's boot manager as efibootmgr prints them: variables Boot#### (UEFI 2.10 §3.1.3). */
export function readBootEntries(section: Section | undefined, survey: Survey): void {
  const rows = lines(section);
  const order =
    /^BootOrder:\s*(\S+)/.exec(rows.find((l) => l.startsWith('BootOrder')) ?? '')?.[1]?.split(',') ?? [];
  const next = /^BootNext:\s*([0-9A-F]{4})$/i.exec(rows.find((l) => l.startsWith('BootNext')) ?? '')?.[1];
  const entries = rows.flatMap((row) => {
    const found = /^Boot([0-9A-F]{4})(\*?)\s+([^\t]*)(?:\t(.*))?$/i.exec(row);
    if (!found) return [];
    const [, id = '', star, label = '', path = ''] = found;
    return [
      {
        id,
        label: label.trim().slice(0, 200),
        active: star === '*',
        first: order[0] === id,
        // A report without the line tells nothing of the order: its entries count as in it, as they stand.
        inOrder: order.length === 0 || order.includes(id),
        next: next === id,
        path: path.slice(0, 1000),
      },
    ];
  });
  const place = (id: string): number => (order.includes(id) ? order.indexOf(id) : order.length);
  survey.details.bootEntries = entries.sort((a, b) => place(a.id) - place(b.id));
}

/** Devices of the PCI bus by their numbers. */
export function readPci(section: Section | undefined, survey: Survey): void {
  for (const line of lines(section).slice(0, 256)) {
    const v = pairsOf(line);
    const [vendor, device] = (/id=0x([0-9a-f]{4}):0x([0-9a-f]{4})/i.exec(line) ?? []).slice(1);
    if (!vendor || !device) continue;
    survey.details.pci.push({
      slot: (line.split(' ')[0] ?? '').slice(0, 200),
      class: (v.get('class') ?? '').replace(/^0x/, ''),
      id: `${vendor}:${device}`.toLowerCase(),
      driver: v.get('driver') || null,
    });
  }
}

/** How many ATA ports the controllers offer; how many are led out to connectors only a look inside tells. */
export function readPorts(section: Section | undefined, survey: Survey): void {
  const count = number(/^ata=(\d+)$/m.exec(section?.text ?? '')?.[1]);
  if (count !== null && count > 0)
    survey.assumed['ports.sata'] = {
      value: count,
      because: `ports, ata=${count}: the controller offers so many; count the connectors to be sure`,
    };
}
