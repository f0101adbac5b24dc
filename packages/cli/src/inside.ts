import { laidBox } from '@zb/core/layout/forBox';
import { findMachine } from '@zb/core/model/bench';
import { isStore } from '@zb/core/model/shelf';
import { claimsOf } from '@zb/core/plan/claims';
import { claimWords } from '@zb/core/words/claim';
import { openingOf } from '@zb/core/opening/forBox';
import { openingPlaces } from '@zb/core/opening/places';
import { bootLadder } from '@zb/core/starting/ladder';
import { moments, stickIsIn } from '@zb/core/starting/rung';
import { assumptionWords, ladderHeadline, rungTitle, rungWords } from '@zb/core/words/ladder';
import { openingHeadline, openingStepWords } from '@zb/core/words/opening';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';

/** What `zb starts` prints: a ladder for each moment, every rung with its state and its reason as data and in words. */
export function startsOutput(text: string, boxId: string, leftIn: boolean): object {
  const bench = readBench(text);
  const box = boxOf(bench, boxId);
  const machine = findMachine(bench, box.machineId);
  if (!machine) throw new InputError('the box has no machine yet');
  const target = laidBox(bench, box).drive;
  return moments.map((moment) => {
    const stickIn = stickIsIn(moment, leftIn);
    const ladder = bootLadder(bench, box, machine, { moment, stickIn, target });
    return {
      moment,
      stickIn,
      result: ladder.result,
      words: ladderHeadline(ladder),
      rungs: ladder.rungs.map((r) => ({ ...r, title: rungTitle(r.entry), words: rungWords(r.why) })),
      assumed: ladder.assumed.map((a) => ({ ...a, words: assumptionWords(a) })),
    };
  });
}

/** What `zb claims` prints: each item that a box holds, who else wants it, and what acts have made of a medium. */
export function claimsOutput(text: string): object {
  const bench = readBench(text);
  return bench.items.flatMap((item) => {
    const claims = claimsOf(bench).get(item.id) ?? [];
    const medium = isStore(item)
      ? {
          retention: { keep: 'keep', 'may be lost': 'erasable', 'not decided': 'undecided' }[item.fate],
          retentionOrigin: item.retentionOrigin,
          attachment: item.attachment,
          revision: item.revision,
          wholeImage: item.wholeImage,
          installed: item.installed,
        }
      : null;
    if (claims.length === 0 && !medium) return [];
    const [holder, ...others] = claims;
    return [
      {
        id: item.id,
        name: item.name,
        ...(medium ?? {}),
        holder: holder ? { ...holder, words: claimWords(holder) } : null,
        others,
      },
    ];
  });
}

/** What `zb opening` prints: steps with their minutes, what goes in and out, places before and afterwards. */
export function openingOutput(text: string, boxId: string): object {
  const bench = readBench(text);
  const box = boxOf(bench, boxId);
  const opening = openingOf(bench, box);
  if ('code' in opening) return { opened: false, why: opening.code, words: openingHeadline(opening) };
  const { steps, goesIn, goesOut, ...rest } = opening;
  return {
    opened: true,
    words: openingHeadline(opening),
    ...rest,
    ...openingPlaces(bench, box, opening),
    goesOut: goesOut.map((s) => s.name),
    goesIn: goesIn.map((s) => s.name),
    steps: steps.map((s) => ({ ...s, words: openingStepWords(s.what) })),
  };
}
