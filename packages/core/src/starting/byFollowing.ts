import { KERNEL } from '../formats/linuxKernel';
import type { ByteSource } from '../formats/source';
import { field, no, unknown, yes, type StartVerdict } from '../image/evidence';
import type { Evidence } from '../model/inspection';
import { followBootCode, type Followed } from './realMode/follow';

/** Numbers that firmware gives the drive it starts from: the first disk, and one that is emulated from optical media. */
export const DISK = 0x80;
export const OPTICAL = 0xe0;

const FOLLOWED = 'IA-32 SDM volume 2, followed instruction by instruction';
/** So much of what the code says is repeated. */
const MOST_SAID = 60;

const quoted = (printed: string): string => {
  const line = printed.replace(/[^\x20-\x7e]+/g, ' ').trim();
  return line.length > MOST_SAID ? `${line.slice(0, MOST_SAID)}…` : line;
};

function verdictOf(followed: Followed, who: string, evidence: Evidence[]): StartVerdict {
  const last = followed.stages.at(-1);
  const alone = followed.stages.length === 1;
  const printed = quoted(followed.printed);
  switch (followed.end) {
    case 'kernel':
      return yes(`${who} loads a kernel and enters it`, ...evidence);
    case 'empty':
      return no(`${who} goes on to code at byte ${last?.offset ?? 0}, which is empty`, ...evidence);
    case 'circle':
      return no(`${who} reads the same sectors again and again`, ...evidence);
    case 'lost':
      return unknown(`${who} holds code that cannot be followed to its end`, ...evidence);
    default:
      if (followed.certain && followed.beyond)
        return no(`${who} looks for its next stage beyond the end of the image`, ...evidence);
      if (!alone || !followed.certain)
        return unknown(`${who} goes on, and what that loads cannot be told`, ...evidence);
      return no(
        printed ? `${who} only says “${printed}” and stops` : `${who} stops without loading anything`,
        ...evidence,
      );
  }
}

/** What boot code that nobody's messages identify comes to, by running it in a machine of its own; see followBootCode. */
export async function byFollowing(
  source: ByteSource,
  code: { at: number; bytes: number; drive: number; sectorBytes: number },
  who: string,
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
  return verdictOf(followed, who, evidence);
}
