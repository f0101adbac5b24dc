import { formatExact } from '../units/bytes';
import type { Inspection } from '../model/inspection';

/** What a sheet says of a packed file; undefined for a file that is not packed. */
export function packedWords(
  inspection: Inspection,
): { title: string; inside: string; writing: string } | undefined {
  const { kind, innerName, innerBytes } = inspection.container;
  if (kind === 'none') return undefined;
  const title = `Packed as ${kind}`;
  if (innerBytes === null)
    return {
      title,
      inside: 'What is inside is not known yet: the file has to be read to its end for that.',
      writing: 'Written as it is, it starts nothing.',
    };
  return {
    title,
    inside: `Inside is ${innerName ? `“${innerName}”, ` : 'one image, '}${formatExact(innerBytes)}. The picture and the table show what is inside.`,
    writing:
      'Written as it is, it starts nothing. The stand-in writer unpacks while it writes, and compares what it reads back with what is inside.',
  };
}
