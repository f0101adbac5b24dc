import type { ImageFault } from '../model/imageFinding';
import { formatExact, formatIec } from '../units/bytes';
import { packedFaultWords } from './packedFault';
import { imagePlaceWords } from './imagePlace';
import { loaderFaultWords } from './start';

type Of<C extends ImageFault['code']> = Extract<ImageFault, { code: C }>;

const CHAIN: Record<Of<'chain of logical drives'>['fault'], string> = {
  circle: 'The chain of logical drives runs in a circle',
  'beyond the end': 'The chain of logical drives goes on beyond the end of the file',
  'leaves the extended part': 'The chain of logical drives leaves the extended part',
  'too many': 'The chain of logical drives has more of them than any tool writes',
  'no end mark': 'A table of the chain of logical drives has no end mark 55 AA',
  'drive reaches beyond': 'reaches beyond the extended part',
};

const GPT: Record<Of<'table copy unsound'>['faults'][number], string> = {
  'header size impossible': 'its header size is impossible',
  'header checksum wrong': 'header CRC-32 is wrong',
  'header names another place': 'header names another place as its own',
  'array dimensions impossible': 'entry array has impossible dimensions',
  'array beyond the end': 'entry array lies beyond the end of the file',
  'array checksum wrong': 'entry array CRC-32 is wrong',
};

function copyWords(f: Of<'table copy unsound'>): string {
  const [name, other] = f.copy === 'first' ? ['First', 'second'] : ['Second', 'first'];
  const gone = f.copy === 'first' ? 'not there' : 'not at the end of the file';
  const what = f.there ? f.faults.map((x) => GPT[x]).join('; ') : gone;
  return `${name} copy of the partition table: ${what}.${f.other ? ` The ${other} copy is good and is used.` : ''}`;
}

/** A fault of an image file, as a sentence. */
export function imageFaultWords(f: ImageFault): string {
  switch (f.code) {
    case 'earlier rules':
      return f.words;
    case 'packed':
      return `This is a ${f.kind} file: what is in it is packed, and written as it is it will not start. Unpack it first, or use a writer that unpacks.`;
    case 'cannot be unpacked':
      return packedFaultWords(f.why);
    case 'empty':
      return 'The file is empty.';
    case 'nothing known in it':
      return 'No partition table, file system or optical volume is found in this file.';
    case 'cut short':
      return `The file is cut short: its tables reach to ${formatExact(f.wanted)}, the file ends ${formatIec(f.missing)} before. Fetch it again.`;
    case 'table copy unsound':
      return copyWords(f);
    case 'table copies differ':
      return 'The two copies of the partition table are both whole and do not name the same parts. Firmware goes by the first.';
    case 'made for a smaller disk':
      return `The partition table was made for a disk of ${formatExact(f.disk)}; the file is ${formatExact(f.more)} larger.`;
    case 'made for a larger disk':
      return `The partition table was made for a disk of ${formatExact(f.disk)}; the file is ${formatExact(f.less)} smaller.`;
    case 'part outside the usable range':
      return `Part ${f.part} lies outside what its table leaves for parts.`;
    case 'chain of logical drives':
      return `${f.drive === null ? '' : `Logical drive ${f.drive} `}${CHAIN[f.fault]}.`;
    case 'parts overlap':
      return `Parts ${f.first} and ${f.second} claim the same bytes.`;
    case 'file system larger than its part':
      return `The ${f.filesystem ?? 'file system'} on part ${f.part} says it spans ${formatExact(f.says)}; its part holds ${formatExact(f.holds)}.`;
    case 'loader cannot run':
      return `${f.path} on ${imagePlaceWords(f.place)} cannot run: ${loaderFaultWords(f.fault)}.`;
    case 'no entry active':
      return 'No entry of the partition table is marked active. Some BIOS firmware passes over such a drive, whatever its boot code does: mark the part with the system active where a machine does not start it.';
    case 'boot catalogue damaged':
      return 'The boot catalogue of the optical volume is damaged.';
    case 'appended':
      return `${formatExact(f.bytes)} are appended behind everything this image names, and they are not empty. They are no part of it.`;
    case 'padded with zeros':
      return `${formatExact(f.bytes)} of zeros follow the end of the volume.`;
  }
}
