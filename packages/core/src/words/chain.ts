import type { RungWhy } from '../model/chain';
import type { Rung } from '../model/inspection';
import { formatExact } from '../units/bytes';
import { imagePlaceWords } from './imagePlace';

const BY = {
  uuid: 'a volume with the UUID',
  label: 'a volume named',
  file: 'a volume with the file',
} as const;
const on = (w: { path: string; place: Parameters<typeof imagePlaceWords>[0] }): string =>
  `${w.path} on ${imagePlaceWords(w.place)}`;

/** Why a rung holds, is missing, or cannot be read. */
export function rungWhyWords(w: RungWhy): string {
  switch (w.code) {
    case 'there':
      return on(w);
    case 'built in':
      return 'built into the loader';
    case 'a program of its own':
      return 'a program of its own; what it does next is not followed';
    case 'not there':
      return `${on(w)} is not there`;
    case 'empty':
      return `${on(w)} is empty`;
    case 'cut short':
      return `${on(w)} is cut short: not all of its ${formatExact(w.bytes)} are there`;
    case 'no kernel':
      return `${on(w)} is no kernel`;
    case 'no initial disk':
      return `${on(w)} is no initial disk`;
    case 'no loader':
      return `${on(w)} is no program that firmware can run`;
    case 'another architecture':
      return `${on(w)} is built for ${w.machine}`;
    case 'module missing':
      return `its module ${on(w)} is not there`;
    case 'grammar broken':
      return `the grammar of ${on(w)} is broken, so that none of it is run`;
    case 'no configuration':
      return `no configuration on ${imagePlaceWords(w.place)}; looked for ${w.paths.slice(0, 3).join(', ')}${w.paths.length > 3 ? '…' : ''}`;
    case 'names nothing':
      return w.path === ''
        ? 'what is built in names no kernel'
        : `${w.path} names no kernel that is started by itself`;
    case 'search finds nothing':
      return `it looks for ${BY[w.by]} ${w.what}, and the image has none`;
    case 'device not there':
      return w.device === ''
        ? 'it was started from a volume that it has no name for'
        : `it looks on ${w.device}, which the image does not have`;
    case 'second stage damaged':
      return 'its second stage is damaged';
    case 'second stage cut short':
      return 'its second stage is cut short';
    case 'second stage packed otherwise':
      return 'its second stage is packed in a way that is not read here';
    case 'too deep':
      return 'it goes through more files or steps than are followed';
    case 'file system not opened':
      return `${imagePlaceWords(w.place)} is not opened here`;
    case 'another drive':
      return `it looks on another drive (${w.device})`;
    case 'command not followed':
      return `${w.command} is not followed`;
  }
}

/** The state of a rung in a word. */
export const rungStateWords: Record<Rung['state'], string> = {
  whole: 'whole',
  missing: 'missing',
  unreadable: 'cannot be read here',
};
