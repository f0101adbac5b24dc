import { formatExact, formatIec } from '../units/bytes';
import type { ImageFacts } from './read';
import type { Finding } from './types';

/** Faults of the file itself, apart from what it starts: cut short, table copies that disagree, still packed. */
export function findings(facts: ImageFacts): Finding[] {
  const out: Finding[] = [];
  const size = facts.source.size;
  if (facts.container !== 'none') {
    out.push({
      grade: 'stop',
      what: `This is a ${facts.container} archive, not an image. Unpack it, then open what is inside.`,
    });
    return out;
  }
  // A volume without a table has no entry to say where it ends; its own boot sector does.
  const ends = facts.candidates.map((c) => c.start + (c.from === 'whole' ? (c.fat?.bytes ?? 0) : c.bytes));
  const wanted = Math.max(0, facts.iso?.bytes ?? 0, ...ends);
  if (wanted > size) {
    out.push({
      grade: 'stop',
      what: `The file is cut short: its tables reach to ${formatExact(wanted)}, the file ends ${formatIec(wanted - size)} before. Fetch it again.`,
      offset: size,
    });
  }
  const { gpt } = facts;
  if (gpt && !gpt.primary?.sound) {
    const why = gpt.primary ? gpt.primary.faults.join('; ') : 'not there';
    out.push({
      grade: gpt.parts.length ? 'check' : 'stop',
      what: `First copy of the partition table: ${why}.`,
      offset: gpt.primary?.header ?? 512,
    });
  }
  if (gpt && !gpt.backup?.sound) {
    const why = gpt.backup ? gpt.backup.faults.join('; ') : 'not at the end of the file';
    out.push({
      grade: gpt.parts.length ? 'note' : 'stop',
      what: `Second copy of the partition table: ${why}.`,
      offset: gpt.backup?.header ?? size,
    });
  }
  if (facts.catalogue && !facts.catalogue.valid) {
    out.push({
      grade: 'check',
      what: 'The boot catalogue of the optical volume is damaged.',
      offset: facts.iso?.bootCatalogue,
    });
  }
  if (facts.layout === 'none' && facts.candidates.length === 0) {
    out.push({
      grade: 'stop',
      what:
        size === 0
          ? 'The file is empty.'
          : 'No partition table, file system or optical volume is found in this file.',
    });
  }
  return out;
}
