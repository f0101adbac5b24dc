import type { LaidPart, Layout } from '../laid';
import { labelOf } from './mkfs';

/** Options and the order of checking (fstab(5)): the root first, others after it, what checks itself never. */
function fields(p: LaidPart): [mount: string, type: string, options: string, pass: number] {
  if (p.filesystem === 'swap') return ['none', 'swap', 'sw', 0];
  const mount = p.mount ?? 'none';
  if (p.use === 'start') return [mount, 'vfat', 'umask=0077', 2];
  const selfChecking = p.filesystem !== 'ext4' && p.filesystem !== 'vfat';
  const pass = selfChecking ? 0 : mount === '/' ? 1 : 2;
  // A data drive that does not answer must not keep the box from starting.
  const options = p.use === 'data' ? 'defaults,nofail' : 'defaults';
  return [mount, p.filesystem ?? 'auto', options, pass];
}

/** The lines of fstab(5) for what is mounted, by label: labels stay what they are when drives answer in another order. */
export function fstab(layout: Layout): string {
  const mounted = layout.parts.filter(
    (p) => p.fate === 'new' && (p.filesystem === 'swap' || p.mount !== null) && labelOf(p) !== '',
  );
  const rows = mounted.map((p) => {
    const [mount, type, options, pass] = fields(p);
    return [`LABEL=${labelOf(p)}`, mount.replaceAll(' ', '\\040'), type, options, '0', String(pass)];
  });
  const widths = [0, 1, 2, 3].map((i) => Math.max(0, ...rows.map((r) => r[i]?.length ?? 0)));
  return (
    rows.map((r) => r.map((f, i) => f.padEnd(widths[i] ?? 0)).join('  ')).join('\n') +
    (rows.length > 0 ? '\n' : '')
  );
}
