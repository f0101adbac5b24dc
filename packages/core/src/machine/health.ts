import type { DriveHealth } from '../model/details';
import { formatSi } from '../units/bytes';
import type { Section } from './sections';
import type { Survey } from './types';

type Json = Record<string, unknown>;
const object = (v: unknown): Json =>
  typeof v === 'object' && v !== null && !Array.isArray(v) ? (v as Json) : {};
const number = (v: unknown): number | null => (typeof v === 'number' && Number.isFinite(v) ? v : null);
const text = (v: unknown): string | null =>
  typeof v === 'string' && v.trim() !== '' ? v.trim().slice(0, 200) : null;

/** One data unit of an NVMe drive is a thousand blocks of 512 bytes: NVMe Base Specification, SMART log page. */
const NVME_UNIT = 512_000;
/** Attributes whose normalised value counts down from 100 as the flash wears, by the names smartctl gives them (its drive database). */
const LIFE_LEFT =
  /^(SSD_Life_Left|Remaining_Lifetime_Perc|Percent_Lifetime_Remain|Media_Wearout_Indicator|Wear_Leveling_Count|Perc_Rated_Life_Remain|Lifetime_Remaining%?)$/i;
/** Attributes that count what was written, by name, with the bytes of one count. */
const WRITTEN: readonly [RegExp, number][] = [
  [/^(Total_LBAs_Written|Host_Writes_LBAs?)$/i, 512],
  [/^Host_Writes_32MiB$/i, 32 * 1024 ** 2],
  [/^(Host_Writes_MiB|Lifetime_Writes_MiB)$/i, 1024 ** 2],
  [/^(Host_Writes_GiB|Lifetime_Writes_GiB|Total_Writes_GiB)$/i, 1024 ** 3],
];
/** Attributes that count sectors given up, or waiting to be. */
const GIVEN_UP = /^(Reallocated_Sector_Ct|Current_Pending_Sector|Offline_Uncorrectable)$/i;

/** A value of the Device Statistics log, by its name there (ACS-4 §9.5: general, rotating media and solid-state pages). */
function statistic(root: Json, name: string): number | null {
  const { pages } = object(root.ata_device_statistics);
  for (const page of Array.isArray(pages) ? pages.map(object) : [])
    for (const row of Array.isArray(page.table) ? page.table.map(object) : [])
      if (row.name === name) return number(row.value);
  return null;
}

/** One drive out of the JSON that smartctl prints; undefined where it says nothing of a drive. */
export function readHealth(name: string, json: unknown): DriveHealth | undefined {
  const root = object(json);
  const nvme = object(root.nvme_smart_health_information_log);
  const table = object(root.ata_smart_attributes).table;
  const rows = (Array.isArray(table) ? table : []).map(object);
  const named = (name: RegExp): Json[] => rows.filter((r) => name.test(text(r.name) ?? ''));
  const raw = (r: Json | undefined): number | null => number(object(r?.raw).value);
  const left = number(named(LIFE_LEFT)[0]?.value);
  const counted = WRITTEN.flatMap(([name, bytes]) => {
    const count = raw(named(name)[0]);
    return count === null ? [] : [count * bytes];
  });
  const bad = named(GIVEN_UP).flatMap((r) => raw(r) ?? []);
  const given = statistic(root, 'Number of Reallocated Logical Sectors');
  const sectors = statistic(root, 'Logical Sectors Written');
  const block = number(root.logical_block_size) ?? 512;
  const units = number(nvme.data_units_written);
  const out: DriveHealth = {
    name,
    serial: text(root.serial_number),
    sata: text(object(root.sata_version).string) !== null,
    passed:
      typeof object(root.smart_status).passed === 'boolean'
        ? object(root.smart_status).passed === true
        : null,
    wearPercent:
      number(nvme.percentage_used) ??
      number(object(root.endurance_used).current_percent) ??
      statistic(root, 'Percentage Used Endurance Indicator') ??
      (left === null ? null : Math.max(0, 100 - left)),
    hours: number(object(root.power_on_time).hours) ?? number(nvme.power_on_hours),
    writtenBytes:
      units !== null ? units * NVME_UNIT : sectors !== null ? sectors * block : (counted[0] ?? null),
    badSectors: number(nvme.media_errors) ?? (bad.length > 0 ? bad.reduce((n, b) => n + b, 0) : given),
  };
  const says = [out.passed, out.wearPercent, out.hours, out.writtenBytes, out.badSectors].some(
    (v) => v !== null,
  );
  return says ? out : undefined;
}

/** The section holds one JSON text per drive, each under a line “---- name”. */
export function readHealths(section: Section | undefined, survey: Survey): void {
  const pieces = (section?.text ?? '').split(/^---- (\S+)$/m).slice(1);
  for (let i = 0; i + 1 < pieces.length; i += 2) {
    let json: unknown;
    try {
      json = JSON.parse(pieces[i + 1] ?? '');
    } catch {
      continue;
    }
    const found = readHealth(pieces[i] ?? '', json);
    if (found) survey.details.health.push(found);
  }
}

/** A drive's health as something to act on. Limits: common practice, no source. */
export function healthWords(h: DriveHealth): { grade: 'good' | 'check' | 'stop'; words: string } {
  if (h.passed === false)
    return { grade: 'stop', words: 'It reports that it is failing. Copy off what matters and take it out.' };
  if ((h.badSectors ?? 0) > 0)
    return {
      grade: 'check',
      words: `${h.badSectors} bad sectors. Use it for what can be lost; not for the archive.`,
    };
  const { wearPercent: wear, writtenBytes: written } = h;
  if (wear === null) return { grade: 'good', words: 'Nothing against it.' };
  // Rated writes left, if it goes on wearing as it has: what was written stands for the share that is used.
  const left = written !== null && wear > 0 && wear < 100 ? (written / wear) * (100 - wear) : null;
  const rest = left === null ? '' : ` About ${formatSi(left)} of rated writes are left.`;
  if (wear >= 100)
    return {
      grade: 'check',
      words: `Its rated life is used up (${wear} %). A boot drive for a while; not for the archive.`,
    };
  if (wear >= 70)
    return {
      grade: 'check',
      words: `${wear} % of its rated life is used. Use it as a boot drive; not for the archive.${rest}`,
    };
  return { grade: 'good', words: `${wear} % of its rated life is used.${rest}` };
}
