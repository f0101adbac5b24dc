import { sectionJson, type Section } from './sections';
import type { Survey, SurveyedDrive } from './types';

type Row = Record<string, unknown> & { children?: Row[] };

const text = (v: unknown): string | null => (typeof v === 'string' && v.trim() !== '' ? v.trim() : null);
/** Older versions of lsblk print numbers and flags as text. */
const num = (v: unknown): number =>
  typeof v === 'number' ? v : typeof v === 'string' && /^\d+$/.test(v) ? Number(v) : 0;
const flag = (v: unknown): boolean | null =>
  typeof v === 'boolean' ? v : v === '1' || v === 1 ? true : v === '0' || v === 0 ? false : null;

function describe(row: Row): string {
  const found: string[] = [];
  const walk = (r: Row): void => {
    const system = text(r.fstype);
    const label = text(r.label) ?? text(r.partlabel);
    if (system) found.push(label ? `${label} (${system})` : system);
    for (const child of r.children ?? []) walk(child);
  };
  walk(row);
  return found.slice(0, 6).join(', ');
}

/** Real drives only: whole disks; not loop devices, memory disks, optical drives, mapped devices or empty readers. */
export function readDrives(sections: Map<string, Section>, survey: Survey): void {
  const json = sectionJson(sections.get('lsblk')) as { blockdevices?: unknown } | undefined;
  if (!json || !Array.isArray(json.blockdevices)) {
    survey.missing.push('Drives: no readable lsblk section');
    return;
  }
  const rows = (json.blockdevices as Row[]).filter(
    (r) =>
      r && text(r.type) === 'disk' && num(r.size) > 0 && !/^(zram|ram|loop|fd)\d/.test(text(r.name) ?? ''),
  );
  survey.drives = rows.map((r): SurveyedDrive => {
    const name = text(r.kname) ?? text(r.name) ?? '?';
    const transport =
      text(r.tran) ?? (name.startsWith('nvme') ? 'nvme' : name.startsWith('mmcblk') ? 'mmc' : null);
    return {
      name,
      bytes: num(r.size),
      serial: text(r.serial),
      model: text(r.model),
      transport,
      rotational: flag(r.rota),
      removable: (flag(r.rm) ?? false) || (flag(r.hotplug) ?? false) || transport === 'usb',
      holds: describe(r),
    };
  });
  for (const d of survey.drives)
    if (!d.serial) survey.missing.push(`Serial of drive ${d.name}: not reported`);
}
