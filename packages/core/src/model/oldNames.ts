import { follows, type Grammar } from '../units/grammar';
import { each, plain, type Plain } from './plain';

/** Fields of a record that must hold for a grammar, each with what it is called in a note. */
type Rules = readonly (readonly [field: string, is: Grammar, called: string])[];

/** A record whose fields hold: what does not is set to null, and said. */
function withRules(record: Plain, rules: Rules, said: string[]): Plain {
  const out = { ...record };
  for (const [field, is, called] of rules) {
    const value = record[field];
    if (typeof value !== 'string' || follows(is, value)) continue;
    out[field] = null;
    said.push(`${called} “${value}”`);
  }
  return out;
}

const NOTES_MOST = 2000;
/** A record with what was taken from it in its notes, so that nothing vanishes. */
function noted(record: Plain, rules: Rules): Plain {
  const said: string[] = [];
  const out = withRules(record, rules, said);
  if (said.length === 0) return record;
  const before = typeof record.notes === 'string' ? record.notes : '';
  return {
    ...out,
    notes: `${before === '' ? '' : `${before}\n`}Was: ${said.join(', ')}`.slice(0, NOTES_MOST),
  };
}

/** A share’s name without what no share name may have. */
const shareName = (name: string, i: number): string => {
  const kept = name
    .replace(/["\\/[\]:|<>+=;,*?%\p{Cc}\p{Cs}\p{Zl}\p{Zp}]+/gu, ' ')
    .trim()
    .slice(0, 80)
    .trim();
  return follows('shareName', kept) ? kept : `share ${i + 1}`;
};

function sharing(old: unknown, said: string[]): unknown {
  const s = plain(old);
  if (!s) return old;
  const named = withRules(s, [['name', 'hostLabel', 'server']], said);
  const group = withRules(named, [['workgroup', 'workgroup', 'workgroup']], said);
  return {
    ...group,
    ...(group.workgroup === null ? { workgroup: 'WORKGROUP' } : {}),
    folders: each(s.folders, (f, i) => {
      if (typeof f.name !== 'string' || follows('shareName', f.name)) return f;
      said.push(`folder “${f.name}”`);
      return { ...f, name: shareName(f.name, i) };
    }),
  };
}

function reach(old: unknown, said: string[]): unknown {
  const r = plain(old);
  if (!r || !Array.isArray(r.hostKeys)) return old;
  const sound = (k: unknown): boolean => {
    const { type, key } = plain(k) ?? {};
    return (
      typeof type !== 'string' ||
      typeof key !== 'string' ||
      (follows('keyType', type) && follows('base64', key))
    );
  };
  const gone = r.hostKeys.filter((k) => !sound(k));
  if (gone.length > 0) said.push(`${gone.length} keys of its shell`);
  return { ...r, hostKeys: r.hostKeys.filter(sound) };
}

const withPartTypes = (old: unknown): unknown => {
  const content = plain(old);
  if (!content) return old;
  return {
    ...content,
    parts: each(content.parts, (p) =>
      typeof p.type === 'string' && p.type !== '' && !follows('partitionType', p.type)
        ? { ...p, type: '' }
        : p,
    ),
  };
};

/** The moment of the newest line of a log: what is said now comes right behind it. */
const newest = (log: unknown): string =>
  (Array.isArray(log) ? log : []).reduce<string>((at: string, line: unknown) => {
    const here = plain(line)?.at;
    return typeof here === 'string' && here > at ? here : at;
  }, '1970-01-01T00:00:00.000Z');

/** An interface without what a command would take for an option; the usual one where nothing is left. */
const interfaceOr =
  (usual: string, key: string) =>
  (record: Plain): Plain => {
    const name = record[key];
    if (typeof name !== 'string' || follows('interface', name)) return record;
    const kept = name.replace(/^[-.]+/, '');
    return { ...record, [key]: follows('interface', kept) ? kept : usual };
  };
const within = (old: unknown, list: string, make: (record: Plain) => Plain): unknown => {
  const holder = plain(old);
  return holder ? { ...holder, [list]: each(holder[list], make) } : old;
};

/**
 * Version 8 took any text for names that go into files of other programs. From version 9 on each follows the grammar of its
 * standard: what does not is taken out, and said in the notes of its record or in the log of its box.
 */
export function fromVersion8(old: Plain): Plain {
  const lines: Plain[] = [];
  const boxes = each(old.boxes, (box) => {
    const said: string[] = [];
    const after = { ...box, reach: reach(box.reach, said), sharing: sharing(box.sharing, said) };
    const ports = {
      gate: within(box.gate, 'ports', interfaceOr('eth0', 'device')),
      guests: within(box.guests, 'nets', interfaceOr('br0', 'bridge')),
    };
    if (said.length === 0) return { ...box, ...ports };
    lines.push({
      id: `names-${String(box.id)}`.slice(0, 80),
      at: newest(old.log),
      boxId: box.id,
      stop: null,
      kind: 'note',
      text: `Names that other programs do not take were changed. They were: ${said.join(', ')}`.slice(
        0,
        4000,
      ),
    });
    return { ...after, ...ports };
  });
  return {
    ...old,
    boxes,
    networks: each(old.networks, (n) => noted(n, [['domain', 'domain', 'domain']])),
    hosts: each(old.hosts, (h) =>
      noted(h, [
        ['label', 'hostLabel', 'name'],
        ['port', 'interface', 'interface'],
      ]),
    ),
    items: each(old.items, (item) =>
      'content' in item ? { ...item, content: withPartTypes(item.content) } : item,
    ),
    profiles: each(old.profiles, (p) => {
      const admin = plain(p.admin);
      return admin && typeof admin.path === 'string' && !follows('urlPath', admin.path)
        ? { ...p, admin: { ...admin, path: '/' } }
        : p;
    }),
    ...(lines.length > 0
      ? { log: [...(Array.isArray(old.log) ? (old.log as unknown[]) : []), ...lines] }
      : {}),
  };
}
