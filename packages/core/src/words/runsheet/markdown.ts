import { codeSpan, longestTicks, markdownText as safe } from '../../formats/writer/markdown';
import type { Plan } from '../../box/plan';
import type { RunStep } from '../../box/runSheet';
import { wholeOf } from '../../runsheet/step';
import { stopTitle } from '../../model/stops';
import { formatSpan } from '../../units/duration';
import { hazardWords } from '../hazard';
import { goalResultWords, planHeadline, unmetLine } from '../planEnd';
import {
  backWords,
  evidenceWords,
  hurtWords,
  leftWords,
  mustWords,
  needWords,
  runSheetHeadline,
} from './around';
import { runStepWords } from './step';

/** A text to the letter, in a code span or block that its own backticks do not end (CommonMark 0.31 §6.1, §4.5). */
function letters({ text, script }: { text: string; script?: boolean }): string[] {
  if (script !== true || !text.includes('\n')) return [codeSpan(text).text];
  const fence = '`'.repeat(Math.max(3, longestTicks(text) + 1));
  return ['', `  ${fence}`, ...text.split('\n').map((l) => `  ${l}`), `  ${fence}`];
}

const MARKED: Record<RunStep['state'], string> = {
  done: '',
  ready: '',
  waits: '',
  'left out': ', left out',
  'not recorded': ', not recorded as done',
};

function stepLines(s: RunStep): string[] {
  const w = runStepWords(s.what);
  const mark = s.state === 'done' ? 'x' : ' ';
  const state = s.done ? `, ${evidenceWords(s.done.by)}` : MARKED[s.state];
  const out = [`- [${mark}] **${s.number}. ${safe(w.title)}** (${formatSpan(wholeOf(s))}${state})`];
  const say = (text: string): void => void (text !== '' && out.push(`  - ${text}`));
  for (const l of w.lines) say(safe(l));
  for (const e of w.exact) {
    const [first = '', ...rest] = letters(e);
    say(`${safe(e.label)}: ${first}`);
    out.push(...rest.map((l) => `  ${l}`));
  }
  if (w.change) say(`From ${safe(w.change.from)} to **${safe(w.change.to)}**`);
  for (const m of s.must) say(`First: ${safe(mustWords(m))}`);
  say(w.see && `See: ${safe(w.see)}`);
  say(w.why && `Why: ${safe(w.why)}`);
  say(w.wrong && `If it goes wrong: ${safe(w.wrong)}`);
  for (const h of s.hurts) say(`**${safe(hurtWords(h))}** ${safe(backWords(s.back))}`);
  for (const h of s.against) say(`**Stop** ${safe(hazardWords(h))}`);
  if (s.needs.length > 0) say(`Needs: ${s.needs.map(needWords).join(', ')}`);
  say(s.done?.noted ? `Noted: ${safe(s.done.noted)}` : '');
  say(s.changed === null ? '' : `Changed since: it was done as “${safe(s.changed)}”`);
  say(s.because === null ? '' : `Left out: ${safe(s.because)}`);
  return out;
}

const GOAL = { true: '', false: '**Stop** ', null: '**Check** ' } as const;

/** The run sheet of a box as CommonMark, a task for each step. */
export function runSheetMarkdown(plan: Plan): string {
  const { sheet, unmet, goals } = plan;
  const out = [
    `# Run sheet: ${safe(sheet.box)}`,
    '',
    `${safe(runSheetHeadline(plan))}. Left: ${leftWords(sheet)}.`,
  ];
  let stop: string | undefined;
  for (const s of sheet.steps) {
    // Steps follow what they need, not the stops: a stop may be headed twice.
    if (s.stop !== stop) out.push('', `## ${stopTitle[(stop = s.stop)]}`, '');
    out.push(...stepLines(s));
  }
  if (sheet.steps.length > 0)
    out.push(
      '',
      '## Where the plan ends',
      '',
      safe(planHeadline(plan)),
      '',
      ...unmet.map((u) => `- **Stop** ${safe(unmetLine(plan, u))}`),
      ...goals.map((g) => `- ${GOAL[String(g.holds) as keyof typeof GOAL]}${safe(goalResultWords(g))}`),
    );
  if (sheet.gone.length > 0)
    out.push('', '## Done, and on the sheet no more', '', ...sheet.gone.map((g) => `- ${safe(g.said)}`));
  return out.join('\n') + '\n';
}
