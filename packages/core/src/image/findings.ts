import { allZero } from '../formats/bytes';
import { excess } from './excess';
import type { GptCopy, GptPart } from '../formats/gpt/read';
import type { FoundLoader } from './loaders';
import type { Candidate, ImageFacts } from './read';
import type { ImageFault, ImageFinding } from '../model/imageFinding';
import type { ContainerKind } from '../model/inspection';

/** The finding about a packed file, whatever is inside. */
export const packedFinding = (kind: ContainerKind): ImageFinding => ({
  grade: 'stop',
  fault: { code: 'packed', kind },
  offset: 0,
});

/** Where the last thing that a table or a volume names would end, in bytes. */
export function reach(facts: ImageFacts): number {
  // A volume without a table has no entry to say where it ends; its own boot sector does.
  const ends = facts.candidates.map((c) => c.start + (c.from === 'whole' ? (c.mark?.bytes ?? 0) : c.bytes));
  return Math.max(0, facts.iso?.bytes ?? 0, ...ends);
}

/** Some BIOS firmware wants an active entry though the boot code would not: common practice, no source. */
function ofRecord({ mbr, gpt, iso, head }: ImageFacts): ImageFinding[] {
  const plain = mbr !== undefined && gpt === undefined && iso === undefined;
  if (!plain || mbr.entries.some((e) => e.active) || allZero(head.subarray(0, 440))) return [];
  return [{ grade: 'check', fault: { code: 'no entry active' }, offset: 446 }];
}

function ofGpt({ gpt, source }: ImageFacts, cutShort: boolean): ImageFinding[] {
  if (!gpt) return [];
  const out: ImageFinding[] = [];
  const none = gpt.parts.length === 0;
  const { primary, backup, sectorSize } = gpt;
  const unsound = (copy: 'first' | 'second', found: GptCopy | undefined): ImageFault => ({
    code: 'table copy unsound',
    copy,
    faults: found?.faults ?? [],
    there: found !== undefined,
    other: !none,
  });
  if (!primary?.sound)
    out.push({
      grade: none ? 'stop' : 'check',
      fault: unsound('first', primary),
      offset: primary?.header ?? sectorSize,
    });
  if (!backup?.sound)
    out.push({
      grade: none ? 'stop' : 'note',
      fault: unsound('second', backup),
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
        fault: { code: 'table copies differ' },
        offset: backup.array,
      });
  }
  const end = primary?.sound ? primary.alternate + sectorSize : undefined;
  if (end !== undefined && end < source.size)
    out.push({
      grade: 'note',
      fault: { code: 'made for a smaller disk', disk: end, more: source.size - end },
      offset: end,
    });
  // Of a file that lacks even parts, this goes without saying.
  if (end !== undefined && end > source.size && !cutShort)
    out.push({
      grade: 'check',
      fault: { code: 'made for a larger disk', disk: end, less: end - source.size },
      offset: source.size,
    });
  for (const p of gpt.parts) {
    const used = primary?.sound ? primary : backup;
    if (used && (p.start < used.firstUsable || p.start + p.bytes - 1 > used.lastUsable))
      out.push({
        grade: 'check',
        fault: { code: 'part outside the usable range', part: p.index },
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
      {
        grade: 'stop',
        fault: { code: 'parts overlap', first: before.index, second: c.index },
        offset: c.start,
      },
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
        fault: {
          code: 'file system larger than its part',
          part: c.index,
          filesystem: c.mark?.kind ?? null,
          says,
          holds: c.bytes,
        },
        offset: c.start,
      });
  }
  for (const l of loaders) {
    if (l.removable && l.fault !== null)
      out.push({
        grade: 'check',
        fault: { code: 'loader cannot run', path: l.path, place: l.place, fault: l.fault },
        offset: l.offset,
      });
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
      fault: { code: 'cut short', wanted, missing: wanted - size },
      offset: size,
    });
  }
  out.push(...ofGpt(facts, wanted > size));
  for (const { fault, drive, offset } of facts.mbr?.faults ?? [])
    out.push({ grade: 'check', fault: { code: 'chain of logical drives', fault, drive }, offset });
  out.push(...overlaps(facts), ...ofParts(facts, loaders), ...ofRecord(facts));
  if (facts.catalogue && !facts.catalogue.valid)
    out.push({
      grade: 'check',
      fault: { code: 'boot catalogue damaged' },
      offset: facts.iso?.bootCatalogue,
    });
  if (facts.layout === 'none' && facts.candidates.length === 0)
    out.push({
      grade: 'stop',
      fault: { code: size === 0 ? 'empty' : 'nothing known in it' },
    });
  else out.push(...(await excess(facts, wanted)));
  return out;
}
