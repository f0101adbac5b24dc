import { sh, type Shell } from '../../formats/writer/shell';
import type { DriveThere } from '../../model/layout';
import { attributeBits } from '../../formats/gpt/attributes';
import type { LaidPart, Layout } from '../laid';

/** A part made smaller is made anew in its place, with all that its entry held. */
function again(p: LaidPart): string[] {
  const { entry, number } = p;
  return [
    ...(entry?.uuid ? [`--partition-guid=${number}:${entry.uuid}`] : []),
    ...attributeBits(entry?.attributes ?? '').map((bit) => `--attributes=${number}:set:${bit}`),
  ];
}

/** Does a name go into an option of sgdisk? It takes what stands behind a second colon for something else. */
const namedBySgdisk = (name: string): boolean => name !== '' && !name.includes(':');

/**
 * The layout as commands of `sgdisk` (its manual): parts that go are deleted and new ones made, so that those that stay
 * are not touched. A name with a colon is given by sfdisk, which takes it whole. Empty where the table is not GPT.
 */
export function sgdiskCommands(layout: Layout, drive: DriveThere, device: string): Shell[] {
  if (layout.table !== 'gpt') return [];
  const { sectorSize } = layout;
  const stays = layout.parts.filter((p) => p.fate !== 'new');
  const anew = stays.length === 0;
  const gone = anew ? [] : drive.parts.filter((p) => !stays.some((s) => s.number === p.number));
  const made = layout.parts.filter((p) => p.fate !== 'kept');
  const nameOf = (p: LaidPart): string => p.entry?.name ?? p.name;
  const options = [
    ...gone.map((p) => `--delete=${p.number}`),
    ...made.flatMap((p) => [
      ...(p.fate === 'made smaller' ? [`--delete=${p.number}`] : []),
      `--new=${p.number}:${p.start / sectorSize}:${(p.start + p.bytes) / sectorSize - 1}`,
      ...(p.type === '' ? [] : [`--typecode=${p.number}:${p.type}`]),
      ...(namedBySgdisk(nameOf(p)) ? [`--change-name=${p.number}:${nameOf(p)}`] : []),
      ...again(p),
    ]),
  ];
  const names = made
    .filter((p) => nameOf(p).includes(':'))
    .map((p) => sh`sfdisk --part-label ${device} ${p.number} ${nameOf(p)}`);
  // Clearing an old table is an act of its own: the drive is read anew after it.
  return anew
    ? [sh`sgdisk --zap-all ${device}`, sh`sgdisk --clear --set-alignment=1 ${options} ${device}`, ...names]
    : [sh`sgdisk --set-alignment=1 ${options} ${device}`, ...names];
}
