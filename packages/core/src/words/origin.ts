import type { IdentitySource } from '../model/imageIdentity';
import type { Origin } from '../model/origin';
import { formatBoth } from '../units/bytes';
import { imagePlaceWords } from './imagePlace';

/** Where an image says something of itself. */
export function identitySourceWords(s: IdentitySource): string {
  switch (s.code) {
    case 'os-release':
    case 'disc information':
    case 'tree information':
      return `${s.path} on ${imagePlaceWords(s.place)}`;
    case 'kernel header':
      return `header of the kernel ${s.path} on ${imagePlaceWords(s.place)}`;
    case 'program':
      return `header of the program ${s.path} on ${imagePlaceWords(s.place)}`;
    case 'loader':
      return `header of the loader ${s.path} on ${imagePlaceWords(s.place)}`;
    case 'section of a unified kernel':
      return `section ${s.section} of ${s.path} on ${imagePlaceWords(s.place)}`;
    case 'volume label':
      return `label of ${imagePlaceWords(s.place)}`;
  }
}

/** Where a value of a system comes from. */
export function originWords(o: Origin): string {
  switch (o.code) {
    case 'not said':
      return 'nothing told it: this is a guess';
    case 'image says':
      return `from the image: ${identitySourceWords(o.source)}`;
    case 'age of its kernel':
      return `kernel ${o.version.split(' ')[0] ?? ''} came out in that year, and knows nothing newer: ${identitySourceWords(o.source)}`;
    case 'how it starts':
      return 'from the image: by what of it starts, and how';
    case 'its layout':
      return `from the image: its layout is ${o.layout}`;
    case 'its size':
      return `from the image: its tables reach to ${formatBoth(o.bytes)}`;
    case 'file name':
      return 'from the name of the file alone';
  }
}
