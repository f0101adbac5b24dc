import { sectionJson, type Section } from './sections';
import { blockNumber, contentFrom, type BlockRow } from './content';
import { firmwareKindOf } from './firmware';
import type { Survey, SurveyedDrive } from './types';

const text = (v: unknown): string | null => (typeof v === 'string' && v.trim() !== '' ? v.trim() : null);
const flag = (v: unknown): boolean | null =>
  typeof v === 'boolean' ? v : v === '1' || v === 1 ? true : v === '0' || v === 0 ? false : null;

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
      !/^(zram|ram|loop|fd)\d/.test(text(r.name) ?? ''),
  );
  survey.drives = rows.map((r): SurveyedDrive => {
    const name = text(r.kname) ?? text(r.name) ?? '?';
    const transport =
      text(r.tran) ?? (name.startsWith('nvme') ? 'nvme' : name.startsWith('mmcblk') ? 'mmc' : null);
    return {
      name,
      bytes: blockNumber(r.size) ?? 0,
      serial: text(r.serial),
      model: text(r.model),
      transport,
      rotational: flag(r.rota),
      removable: (flag(r.rm) ?? false) || (flag(r.hotplug) ?? false) || transport === 'usb',
      content: contentFrom(r, survey.details.bootEntries, firmware),
    };
  });
  for (const d of survey.drives)
    if (!d.serial) survey.missing.push(`Serial of drive ${d.name}: not reported`);
}
