import type { RehearsalPlan } from '@zb/core/model/rehearsal';
import { gradeOf } from '@zb/core/rehearsal/ending';
import type { DriveLook } from '@zb/core/rehearsal/frames';
import type { Told } from '@zb/core/rehearsal/tally';
import { frameWords, lookWords, namesIn, shortNames } from '@zb/core/words/rehearsal';
import type { Pattern } from '../../drawing/patterns';
import type { ReelDrive, ReelFrame } from '../../drawing/Reel';

const PATTERN: Record<DriveLook, Pattern> = {
  away: 'part',
  there: 'part',
  starts: 'part',
  taken: 'part',
  written: 'new',
  'half written': 'gap',
  erased: 'erased',
  altered: 'code',
};

const outline = (look: DriveLook, lost: boolean): ReelDrive['outline'] =>
  look === 'away' || look === 'taken' || look === 'starts' ? look : lost ? 'lost' : 'plain';

/** A world as frames to be drawn. Sizes are told by their square roots, or a stick would be a line beside a disk. */
export function reelOf(plan: RehearsalPlan, told: Told): ReelFrame[] {
  const nameOf = namesIn(plan);
  const most = Math.max(...plan.drives.map((d) => d.bytes), 1);
  const last = told.frames.length - 1;
  const grade = gradeOf(told.ending);
  return told.frames.map((frame, i) => ({
    ...frameWords(frame, shortNames(nameOf)),
    ...(i === last ? { grade } : {}),
    drives: frame.looks.map(({ drive, look }): ReelDrive => {
      const d = plan.drives.find((x) => x.id === drive);
      const hurt = look === 'erased' || look === 'altered' || look === 'half written';
      return {
        name: nameOf(drive),
        tall: Math.sqrt((d?.bytes ?? 0) / most),
        pattern: PATTERN[look],
        outline: outline(look, i === last && grade === 'lost' && hurt && d?.matters === true),
        word: lookWords[look],
      };
    }),
  }));
}
