import { formatExact, formatIec } from '../units/bytes';
import { excess } from './excess';
import type { GptPart } from '../formats/gpt/read';
import type { FoundLoader } from './loaders';
import type { Candidate, ImageFacts } from './read';
import type { ContainerKind, ImageFinding } from '../model/inspection';

/** The finding about a packed file, whatever is inside. */
export const packedFinding = (kind: ContainerKind): ImageFinding => ({
  grade: 'stop',
  what: `This is a ${kind} file: what is in it is packed, and written as it is it will not start. Unpack it first, or use a writer that unpacks.`,
  offset: 0,
});

/** Where the last thing that a table or a volume names would end. */
function reach(facts: ImageFacts): number {
  // A volume without a table has no entry to say where it ends; its own boot sector does.
  const ends = facts.candidates.map((c) => c.start + (c.from === 'whole' ? (c.mark?.bytes ?? 0) : c.bytes));
  return Math.max(0, facts.iso?.bytes ?? 0, ...ends);
}

function ofGpt({ gpt, source }: ImageFacts, cutShort: boolean): ImageFinding[] {
  if (!gpt) return [];
  const out: ImageFinding[] = [];
  const none = gpt.parts.length === 0;
  const { primary, backup, sectorSize } = gpt;
  if (!primary?.sound)
    out.push({
      grade: none ? 'stop' : 'check',
      what: `First copy of the partition table: ${primary ? primary.faults.join('; ') : 'not there'}.${none ? '' : ' The second copy is good and is used.'}`,
      offset: primary?.header ?? sectorSize,
    });
  if (!backup?.sound)
    out.push({
      grade: none ? 'stop' : 'note',
      what: `Second copy of the partition table: ${backup ? backup.faults.join('; ') : 'not at the end of the file'}.${none ? '' : ' The first copy is good and is used.'}`,
      offset: backup?.header ?? source.size,
    });
  const same = (a: GptPart, b: GptPart | undefined): boolean =>
    b !== undefined &&
    a.start === b.start &&
    a.bytes === b.bytes &&
    a.guid === b.guid &&
    a.typeGuid === b.typeGuid;
  if (primary?.sound && backup?.sound) {
    const differ =
      primary.parts.length !== backup.parts.length || primary.parts.some((p, i) => !same(p, backup.parts[i]));
    if (differ)
      out.push({
        grade: 'check',
        what: 'The two copies of the partition table are both whole and do not name the same parts. Firmware goes by the first.',
        offset: backup.array,
      });
  }
  const end = primary?.sound ? primary.alternate + sectorSize : undefined;
  if (end !== undefined && end < source.size)
    out.push({
      grade: 'note',
      what: `The partition table was made for a disk of ${formatExact(end)}; the file is ${formatExact(source.size - end)} larger.`,
      offset: end,
    });
  // Of a file that lacks even parts, this goes without saying.
  if (end !== undefined && end > source.size && !cutShort)
    out.push({
      grade: 'check',
      what: `The partition table was made for a disk of ${formatExact(end)}; the file is ${formatExact(end - source.size)} smaller.`,
      offset: source.size,
    });
  for (const p of gpt.parts) {
    const used = primary?.sound ? primary : backup;
    if (used && (p.start < used.firstUsable || p.start + p.bytes - 1 > used.lastUsable))
      out.push({
        grade: 'check',
        what: `Part ${p.index} lies outside what its table leaves for parts.`,
        offset: p.at,
      });
  }
  return out;
}

/** Two parts that claim the same bytes; a hybrid optical image maps its whole volume as a part on purpose. */
function overlaps(facts: ImageFacts): ImageFinding[] {
  if (facts.iso) return [];
  const parts = [...facts.candidates].filter((c) => c.from !== 'whole').sort((a, b) => a.start - b.start);
  return parts.flatMap((c, i): ImageFinding[] => {
    const before: Candidate | undefined = parts[i - 1];
    if (!before || before.from !== c.from || c.start >= before.start + before.bytes) return [];
    return [
      { grade: 'stop', what: `Parts ${before.index} and ${c.index} claim the same bytes.`, offset: c.start },
    ];
  });
}

function ofParts(facts: ImageFacts, loaders: readonly FoundLoader[]): ImageFinding[] {
  const out: ImageFinding[] = [];
  for (const c of facts.candidates) {
    const says = c.mark?.bytes;
    if (c.from !== 'whole' && says !== undefined && says > c.bytes)
      out.push({
        grade: 'check',
        what: `The ${c.mark?.kind ?? 'file system'} on part ${c.index} says it spans ${formatExact(says)}; its part holds ${formatExact(c.bytes)}.`,
        offset: c.start,
      });
  }
  for (const l of loaders) {
    if (l.removable && l.fault !== '')
      out.push({ grade: 'check', what: `${l.path} on ${l.place} cannot run: ${l.fault}.`, offset: l.offset });
  }
  return out;
}

/** Faults of the file itself, apart from what it starts: cut short, appended to, damaged, table copies that disagree. */
export async function findings(facts: ImageFacts, loaders: readonly FoundLoader[]): Promise<ImageFinding[]> {
  const out: ImageFinding[] = [];
  const size = facts.source.size;
  const wanted = reach(facts);
  if (wanted > size) {
    out.push({
      grade: 'stop',
      what: `The file is cut short: its tables reach to ${formatExact(wanted)}, the file ends ${formatIec(wanted - size)} before. Fetch it again.`,
      offset: size,
    });
  }
  out.push(...ofGpt(facts, wanted > size));
  for (const fault of facts.mbr?.faults ?? [])
    out.push({ grade: 'check', what: `${fault.what}.`, offset: fault.offset });
  out.push(...overlaps(facts), ...ofParts(facts, loaders));
  if (facts.catalogue && !facts.catalogue.valid)
    out.push({
      grade: 'check',
      what: 'The boot catalogue of the optical volume is damaged.',
      offset: facts.iso?.bootCatalogue,
    });
  if (facts.layout === 'none' && facts.candidates.length === 0)
    out.push({
      grade: 'stop',
      what:
        size === 0
          ? 'The file is empty.'
          : 'No partition table, file system or optical volume is found in this file.',
    });
  else out.push(...(await excess(facts, wanted)));
  return out;
}
