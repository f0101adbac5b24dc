import { KERNEL } from '../formats/linuxKernel';
import { slice, type ByteSource } from '../formats/source';
import { field } from '../image/evidence';
import { no, unknown, yes, type StartVerdict } from '../image/verdict';
import type { Evidence } from '../model/inspection';
import type { BootCodePlace } from '../model/startReason';
import { followBootCode, type BootCode, type Followed, type Stage } from './realMode/follow';

/** Numbers that firmware gives the drive it starts from: the first disk, an optical medium, the first floppy disk. */
const DISK = 0x80;
export const OPTICAL = 0xe0;
const FLOPPY = 0x00;
const SECTOR = 512;
/** Boot code in the first sector of a disk, or of a part of it. */
export const onDisk = (at: number) => ({ at, bytes: SECTOR, drive: DISK, sectorBytes: SECTOR });
/** Boot code of a floppy disk that firmware makes of a stretch of an optical medium. */
export const onFloppy = (from: number, floppySectors: number) => ({
  from,
  at: 0,
  bytes: SECTOR,
  drive: FLOPPY,
  sectorBytes: SECTOR,
  floppySectors,
});

const FOLLOWED = 'IA-32 SDM volume 2, followed instruction by instruction';
/** What was put on the screen, as one line. */
const lineOf = (printed: string): string => printed.replace(/[^\x20-\x7e]+/g, ' ').trim();

/** Is every stage one sector at 7C00h: a boot record that another one has started, and no program that was loaded? */
const onlySectors = (stages: readonly Stage[]): boolean =>
  stages.every((s) => s.bytes <= SECTOR && s.address === stages[0]?.address);

function verdictOf(
  followed: Followed,
  who: BootCodePlace,
  inFiles: boolean,
  evidence: Evidence[],
): StartVerdict {
  const { stages, end, certain, beyond } = followed;
  const bare = onlySectors(stages);
  const printed = lineOf(followed.printed);
  switch (end) {
    case 'kernel':
      return yes({ code: 'enters a kernel', who }, ...evidence);
    case 'protected mode':
    case 'asks for keys': {
      const loaded = end === 'asks for keys' ? !bare : followed.loadedBytes > SECTOR;
      // A loader of files does so too, and may yet find that its files are missing.
      if (!loaded || inFiles || beyond) return unknown({ code: 'goes on, untold', who }, ...evidence);
      return yes({ code: 'starts its own program', who, bytes: followed.loadedBytes }, ...evidence);
    }
    case 'empty':
      return no({ code: 'goes on to nothing', who, offset: stages.at(-1)?.offset ?? 0 }, ...evidence);
    case 'circle':
      return no({ code: 'reads in a circle', who }, ...evidence);
    case 'lost':
      return unknown({ code: 'cannot be followed', who }, ...evidence);
    default:
      if (certain && beyond) return no({ code: 'looks beyond the image', who }, ...evidence);
      if (!bare || !certain) return unknown({ code: 'goes on, untold', who }, ...evidence);
      return no(printed ? { code: 'only prints', who, printed } : { code: 'stops', who }, ...evidence);
  }
}

/** What byFollowing is told beside the place of the code. */
export interface FollowOptions extends BootCode {
  who: BootCodePlace;
  /** The code lies on a volume of files: what it loads may go on to look for some. */
  inFiles?: boolean;
  /** Where `source` begins in the image, bytes; evidence is read there. */
  from?: number;
}

/** What boot code that nobody's messages identify comes to, by running it in a machine of its own; see followBootCode. */
export async function byFollowing(
  image: ByteSource,
  { who, inFiles = false, from = 0, ...code }: FollowOptions,
  ...before: Evidence[]
): Promise<StartVerdict> {
  const source = from === 0 ? image : slice(image, from, image.size - from);
  const followed = await followBootCode(source, code);
  const evidence = [...before];
  for (const [i, stage] of followed.stages.slice(1, 4).entries()) {
    const at = from + stage.offset;
    evidence.push(await field(image, at, 16, `stage ${i + 2} at byte ${at}`, FOLLOWED));
  }
  const last = followed.stages.at(-1);
  if (followed.end === 'kernel' && last)
    evidence.push(
      await field(
        image,
        from + last.offset + KERNEL.markAt,
        4,
        'mark of a kernel’s header',
        'The Linux/x86 Boot Protocol, real-mode kernel header',
      ),
    );
  const verdict = verdictOf(followed, who, inFiles, evidence);
  return followed.end === 'kernel' && last
    ? { ...verdict, begins: { by: 'kernel', source: image, at: from + last.offset } }
    : verdict;
}
