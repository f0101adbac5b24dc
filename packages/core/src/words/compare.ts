import { firmwareTitle, type ImagePart, type Loader, type Starts } from '../model/inspection';
import { formatExact } from '../units/bytes';
import type { ReadingDifference } from '../write/compareReadings';
import type { TreeDifference } from '../write/compareTrees';
import { imagePlaceWords } from './imagePlace';
import { loaderFaultWords } from './start';

const NONE = 'not there';

const partWords = (p: ImagePart | null): string =>
  p === null
    ? NONE
    : [
        `byte ${p.start}`,
        formatExact(p.bytes),
        p.filesystem ?? 'not recognised',
        p.label ?? '',
        p.uuid ?? '',
        p.active ? 'active' : '',
      ]
        .filter((s) => s !== '')
        .join(', ');

function loaderWords(l: Loader | null): string {
  if (l === null) return NONE;
  const signed = l.signed ? `signed by ${l.signers.join(' and ') || 'an unread key'}` : 'not signed';
  const fault = l.fault ? `, ${loaderFaultWords(l.fault)}` : '';
  return `${l.machine ?? 'not a loader'}, ${formatExact(l.bytes)}, ${signed}${fault}`;
}

const STARTS: Record<Starts, string> = { yes: 'starts', no: 'does not start', unknown: 'cannot tell' };
const startsWords = (s: Starts | null): string => (s === null ? NONE : STARTS[s]);

/** One row of what differs between two images: what it is, and what each has. */
export function differenceWords(d: ReadingDifference): { what: string; first: string; second: string } {
  switch (d.about) {
    case 'size':
      return { what: 'size', first: formatExact(d.first), second: formatExact(d.second) };
    case 'layout':
      return { what: 'layout', first: d.first, second: d.second };
    case 'part':
      return { what: `part ${d.index}`, first: partWords(d.first), second: partWords(d.second) };
    case 'loader': {
      const one = d.first ?? d.second;
      return {
        what: one ? `${one.path} on ${imagePlaceWords(one.place)}` : '',
        first: loaderWords(d.first),
        second: loaderWords(d.second),
      };
    }
    case 'outcome':
      return {
        what: `${firmwareTitle[d.firmware]}, as ${d.attached === 'disk' ? 'a stick or drive' : 'optical media'}`,
        first: startsWords(d.first),
        second: startsWords(d.second),
      };
  }
}

/** The part two trees are of. */
export const treeTitle = ({ part }: TreeDifference): string =>
  part === null ? 'the optical volume' : `part ${part.index}${part.label ? ` “${part.label}”` : ''}`;
