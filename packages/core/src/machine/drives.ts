import { pairsOf, sectionJson, type Section } from './sections';
import { blockNumber, contentFrom, type BlockRow } from './content';
import { firmwareKindOf } from './firmware';
import type { Attachment } from '../model/medium';
import type { Survey, SurveyedDrive } from './types';

const text = (v: unknown): string | null => (typeof v === 'string' && v.trim() !== '' ? v.trim() : null);
const flag = (v: unknown): boolean | null =>
  typeof v === 'boolean' ? v : v === '1' || v === 1 ? true : v === '0' || v === 0 ? false : null;

const sectorOf = (v: unknown): 512 | 4096 | null => {
  const bytes = blockNumber(v);
  return bytes === 512 || bytes === 4096 ? bytes : null;
};

/** Zoned models of the block layer (Linux, Documentation/ABI/stable/sysfs-block, queue/zoned); a drive that hides its zones says “none”. */
const shingledOf = (zoned: unknown): true | null =>
  zoned === 'host-aware' || zoned === 'host-managed' ? true : null;

/** What the section “disks” says of one: its controller's PCI class, MMC or SD, a serial. */
function carriers(section: Section | undefined): Map<string, Map<string, string>> {
  const out = new Map<string, Map<string, string>>();
  for (const line of (section?.text ?? '').split('\n')) {
    const row = pairsOf(line);
    const name = row.get('name');
    if (name) out.set(name, row);
  }
  return out;
}

/** Classes of mass-storage controllers (PCI Code and ID Assignment Specification, base class 01h). */
const CONTROLLER: Record<string, string> = { '0101': 'ide', '0106': 'sata', '0107': 'sas', '0108': 'nvme' };

/**
 * How a drive is connected. “ata” says no more than the command set: the controller's class tells SATA from IDE; a drive
 * that names a SATA version is one whatever mode its controller is in.
 */
function transportOf(
  name: string,
  told: string | null,
  carrier: ReadonlyMap<string, string> | undefined,
  sata: boolean,
): string | null {
  if (name.startsWith('nvme')) return 'nvme';
  if (name.startsWith('mmcblk')) return 'mmc';
  if (told !== null && told !== 'ata') return told;
  const controller = CONTROLLER[(carrier?.get('class') ?? '').slice(2, 6)];
  if (sata) return 'sata';
  if (told === 'ata') return controller === 'sata' ? 'sata' : controller === 'ide' ? 'ide' : 'ata';
  return controller ?? told;
}

/**
 * How a drive is attached, where its bus tells it. An MMC controller carries soldered flash as well as cards: the type of
 * what sits on it decides (Linux, Documentation/ABI/testing/sysfs-bus-mmc), and nothing else.
 */
function attachmentOf(
  transport: string | null,
  soldered: boolean,
  type: string | undefined,
): Attachment | null {
  if (soldered) return 'soldered';
  if (transport === 'mmc') return type === 'SD' ? 'card slot' : null;
  if (transport === 'usb') return 'external';
  return transport === 'nvme' || transport === 'sata' || transport === 'sas' || transport === 'ide'
    ? 'internal'
    : null;
}

/**
 * What was found before is used: the firmware’s kind and its boot entries say what on a drive starts. Real drives only: whole disks; not loop devices, memory disks, optical drives, mapped devices or empty readers.
 */
export function readDrives(sections: Map<string, Section>, survey: Survey): void {
  const firmware = firmwareKindOf((key) => survey.facts[key]?.value);
  const json = sectionJson(sections.get('lsblk')) as { blockdevices?: unknown } | undefined;
  if (!json || !Array.isArray(json.blockdevices)) {
    survey.missing.push('Drives: no readable lsblk section');
    return;
  }
  const rows = (json.blockdevices as BlockRow[]).filter(
    (r) =>
      r &&
      text(r.type) === 'disk' &&
      (blockNumber(r.size) ?? 0) > 0 &&
      // Areas of soldered flash for its own boot code are parts of it, not drives.
      !/^(zram|ram|loop|fd)\d|^mmcblk\d+(boot\d+|rpmb|gp\d+)$/.test(text(r.name) ?? ''),
  );
  const disks = carriers(sections.get('disks'));
  const names = new Set((json.blockdevices as BlockRow[]).map((r) => text(r?.name) ?? ''));
  survey.drives = rows.map((r): SurveyedDrive => {
    const name = text(r.kname) ?? text(r.name) ?? '?';
    const carrier = disks.get(name);
    const health = survey.details.health.find((h) => h.name === name);
    const transport = transportOf(name, text(r.tran), carrier, health?.sata === true);
    // Firmware marks internal ports as ones for hot plugging, and some drives call themselves removable: only what is
    // plugged in from outside is.
    const soldered = carrier?.get('type') === 'MMC' || names.has(`${name}boot0`);
    const card = transport === 'mmc' && !soldered;
    const unknownBus = transport === null && ((flag(r.rm) ?? false) || (flag(r.hotplug) ?? false));
    return {
      name,
      bytes: blockNumber(r.size) ?? 0,
      serial: text(r.serial) ?? text(carrier?.get('serial')) ?? health?.serial ?? null,
      model: text(r.model),
      transport,
      rotational: flag(r.rota),
      sectorBytes: sectorOf(r['phy-sec']),
      shingled: shingledOf(r.zoned),
      removable: transport === 'usb' || card || unknownBus,
      removableMedium: flag(r.rm),
      attachment: attachmentOf(transport, soldered, carrier?.get('type')),
      content: contentFrom(r, survey.details.bootEntries, firmware),
    };
  });
  for (const d of survey.drives)
    if (!d.serial) survey.missing.push(`Serial of drive ${d.name}: not reported`);
}
