import type { MemoryModule } from '../model/details';
import type { Section } from './sections';
import type { Survey } from './types';

const UNIT: Record<string, number> = { KB: 1024, MB: 1024 ** 2, GB: 1024 ** 3, TB: 1024 ** 4 };

/** A size as dmidecode prints it: its units are powers of 1024, whatever their letters say. */
function bytesOf(text: string | undefined): number | null {
  const found = /^(\d+)\s*(k|M|G|T)B$/i.exec((text ?? '').trim());
  return found ? Number(found[1]) * (UNIT[`${found[2]?.toUpperCase()}B`] ?? 0) : null;
}

const known = (text: string | undefined): string | null =>
  text === undefined || /^(unknown|other|none|not specified|<.*>)$/i.test(text.trim()) || text.trim() === ''
    ? null
    : text.trim().slice(0, 200);

/** Form factors in the shelf's words; SMBIOS 3.x, table 76. */
const FORM: Record<string, string> = {
  DIMM: 'DIMM',
  SODIMM: 'SO-DIMM',
  'Row Of Chips': 'soldered',
  Chip: 'soldered',
  Die: 'soldered',
};

const blocks = (text: string, title: string): Map<string, string>[] =>
  text
    .split(/\n\s*\n/)
    .filter((b) => new RegExp(`^\\s*(Handle.*\\n.*)?${title}`, 'm').test(b))
    .map((b) => {
      const out = new Map<string, string>();
      for (const line of b.split('\n')) {
        const at = line.indexOf(':');
        if (at > 0) out.set(line.slice(0, at).trim(), line.slice(at + 1).trim());
      }
      return out;
    });

/** Types in the shelf's words: LPDDR of any generation is soldered and one kind here; DDR-generations stand by themselves. */
const typeOf = (text: string | null): string | null =>
  text === null
    ? null
    : /^LPDDR/i.test(text)
      ? 'LPDDR'
      : /^(SDRAM|DDR[2345]?)$/i.test(text)
        ? text.toUpperCase()
        : text;

/** Registered by the type's detail, with check bits where the whole is wider than the data (SMBIOS 3.7 §7.18). */
function kindOf(devices: readonly Map<string, string>[]): { kind: string; source: string } | undefined {
  const [first] = devices.filter((d) => bytesOf(d.get('Size')) !== null);
  const detail = first?.get('Type Detail') ?? '';
  if (/\bRegistered\b/.test(detail)) return { kind: 'registered', source: `Type Detail: ${detail}` };
  const width = (key: string): number => Number(/^(\d+) bits/.exec(first?.get(key) ?? '')?.[1] ?? 0);
  const [whole, data] = [width('Total Width'), width('Data Width')];
  if (whole === 0 || data === 0) return undefined;
  return {
    kind: whole > data ? 'unbuffered' : 'none',
    source: `Total Width: ${whole} bits, Data Width: ${data} bits`,
  };
}

/** Memory devices (SMBIOS structure type 17) and the array they sit in (type 16), as dmidecode prints them. */
export function readModules(section: Section | undefined, survey: Survey): void {
  // A report of the first kind has no such section: nothing is missing from it that it could have told.
  if (!section) return;
  const { text } = section;
  const devices = blocks(text, 'Memory Device\\s*$');
  if (devices.length === 0) {
    survey.missing.push('Memory slots: only root can read them, with dmidecode');
    return;
  }
  const modules = devices.map((d): MemoryModule => {
    const bytes = bytesOf(d.get('Size'));
    const form = known(d.get('Form Factor'));
    return {
      slot: known(d.get('Locator')) ?? 'a slot',
      bytes,
      type: bytes === null ? null : typeOf(known(d.get('Type'))),
      form: form === null ? null : (FORM[form] ?? form),
      speedMts: Number(/^(\d+) MT\/s/.exec(d.get('Speed') ?? '')?.[1] ?? Number.NaN) || null,
    };
  });
  survey.details.modules = modules;
  const filled = modules.filter((m) => m.bytes !== null);
  const slots = modules.filter((m) => m.form !== 'soldered');
  const free = slots.filter((m) => m.bytes === null);
  const fact = (
    key: keyof Survey['facts'],
    value: string | number | null | undefined,
    source: string,
  ): void => {
    if (value !== null && value !== undefined) survey.facts[key] = { value, source: `dmi, ${source}` };
  };
  fact('memory.slots', slots.length, `Memory Device × ${modules.length}`);
  fact('memory.free', free.length, free.map((m) => `${m.slot}: no module`).join(', ') || 'no empty slot');
  // What can be added goes into a slot: a module in one tells type and form before memory that is soldered.
  const first = filled.find((m) => m.form !== 'soldered') ?? filled[0];
  fact('memory.type', first?.type, `Type: ${first?.type}`);
  const carried = filled.length > 0 ? kindOf(devices) : undefined;
  fact('memory.checked', carried?.kind, carried?.source ?? '');
  const form = slots.find((m) => m.form !== null)?.form ?? first?.form;
  if (form === 'DIMM' || form === 'SO-DIMM' || form === 'soldered')
    fact('memory.form', form, `Form Factor: ${form}`);
  const most = blocks(text, 'Physical Memory Array\\s*$').reduce(
    (n, a) => n + (bytesOf(a.get('Maximum Capacity')) ?? 0),
    0,
  );
  // Firmware often tells less or more than the board takes (common practice, no source): a hint, never firm by itself.
  if (most > 0)
    survey.assumed['memory.max'] = {
      value: most,
      because: `dmi, Maximum Capacity: ${most / 1024 ** 3} GB; firmware often tells this wrongly, look it up for the board`,
    };
}
