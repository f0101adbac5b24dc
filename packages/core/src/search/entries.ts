import type { Bench } from '../model/bench';
import { stops, stopTitle } from '../model/box';
import { formatIec } from '../units/bytes';

export interface FindEntry {
  title: string;
  detail: string;
  /** Address within the application. */
  path: string;
}

/** Everything on the bench that can be found by words, most wanted kinds first. */
export function findEntries(bench: Bench): FindEntry[] {
  const out: FindEntry[] = [];
  for (const b of bench.boxes) {
    out.push({ title: b.name, detail: `box, ${b.purpose}`, path: `/box/${b.id}` });
    for (const s of stops)
      out.push({ title: `${b.name}: ${stopTitle[s]}`, detail: 'stop', path: `/box/${b.id}/${s}` });
  }
  for (const i of bench.items) {
    const size = 'bytes' in i ? `, ${formatIec(i.bytes)}` : '';
    const serial = 'serial' in i && i.serial ? `, ${i.serial}` : '';
    out.push({
      title: i.name,
      detail: `${i.kind}${size}${serial}`,
      path: i.kind === 'image' ? `/images/${i.id}` : `/shelf/${i.id}`,
    });
  }
  for (const p of bench.profiles)
    out.push({
      title: p.name,
      detail: `profile, ${p.purpose}, ${p.releases.map((r) => r.version).join(', ')}`,
      path: `/profiles/${encodeURIComponent(p.id)}`,
    });
  for (const e of [...bench.log].reverse())
    out.push({
      title: e.text,
      detail: `log, ${e.at.slice(0, 10)}`,
      path: e.boxId ? `/box/${e.boxId}/keep` : '/logbook',
    });
  return out;
}
