import { fstabLine } from '../../formats/writer/octal';
import { linesOf } from '../../formats/writer/template';
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
export const fstab = (layout: Layout): string =>
  linesOf(
    layout.parts
      .filter((p) => p.fate === 'new' && (p.filesystem === 'swap' || p.mount !== null) && labelOf(p) !== '')
      .map((p) => {
        const [mount, type, options, pass] = fields(p);
        return fstabLine`LABEL=${labelOf(p)}  ${mount}  ${type}  ${options}  0  ${pass}`;
      }),
  );
