import { KERNEL } from '../formats/linuxKernel';
import type { ByteSource } from '../formats/source';
import { field } from '../image/evidence';
import { no, unknown, yes, type StartVerdict } from '../image/verdict';
import type { Evidence } from '../model/inspection';
import type { BootCodePlace } from '../model/startReason';
import { followBootCode, type Followed } from './realMode/follow';

/** Numbers that firmware gives the drive it starts from: the first disk, and one that is emulated from optical media. */
export const DISK = 0x80;
export const OPTICAL = 0xe0;

const FOLLOWED = 'IA-32 SDM volume 2, followed instruction by instruction';
/** What was put on the screen, as one line. */
const lineOf = (printed: string): string => printed.replace(/[^\x20-\x7e]+/g, ' ').trim();

function verdictOf(followed: Followed, who: BootCodePlace, evidence: Evidence[]): StartVerdict {
  const last = followed.stages.at(-1);
  const alone = followed.stages.length === 1;
  const printed = lineOf(followed.printed);
  switch (followed.end) {
    case 'kernel':
      return yes({ code: 'enters a kernel', who }, ...evidence);
    case 'empty':
      return no({ code: 'goes on to nothing', who, offset: last?.offset ?? 0 }, ...evidence);
    case 'circle':
      return no({ code: 'reads in a circle', who }, ...evidence);
    case 'lost':
      return unknown({ code: 'cannot be followed', who }, ...evidence);
    default:
      if (followed.certain && followed.beyond)
        return no({ code: 'looks beyond the image', who }, ...evidence);
      if (!alone || !followed.certain) return unknown({ code: 'goes on, untold', who }, ...evidence);
      return no(printed ? { code: 'only prints', who, printed } : { code: 'stops', who }, ...evidence);
  }
}

/** What boot code that nobody's messages identify comes to, by running it in a machine of its own; see followBootCode. */
export async function byFollowing(
  source: ByteSource,
  code: { at: number; bytes: number; drive: number; sectorBytes: number },
  who: BootCodePlace,
  ...before: Evidence[]
): Promise<StartVerdict> {
  const followed = await followBootCode(source, code);
  const evidence = [...before];
  for (const [i, stage] of followed.stages.slice(1, 4).entries())
    evidence.push(await field(source, stage.offset, 16, `stage ${i + 2} at byte ${stage.offset}`, FOLLOWED));
  const last = followed.stages.at(-1);
  if (followed.end === 'kernel' && last)
    evidence.push(
      await field(
        source,
        last.offset + KERNEL.markAt,
        4,
        'mark of a kernel’s header',
        'The Linux/x86 Boot Protocol, real-mode kernel header',
      ),
    );
  const verdict = verdictOf(followed, who, evidence);
  return verdict.starts === 'yes' && last
    ? { ...verdict, begins: { by: 'kernel', source, at: last.offset } }
    : verdict;
}
