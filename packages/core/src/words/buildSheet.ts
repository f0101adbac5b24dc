import { codeSpan, markdownTable, markdownText as safe, md } from '../formats/writer/markdown';
import { isCarriedOut } from '../box/carriedOut';
import { runSheetOf } from '../box/runSheet';
import { boxTally } from '../rehearsal/boxTally';
import { namesIn, precautionCost, precautionWords, tallyWords } from './rehearsal';
import { knownFact } from '../model/known';
import { firmwareTitle } from '../model/inspection';
import { bootLadder } from '../starting/ladder';
import { ladderHeadline, rungTitle, rungWords } from './ladder';
import { startWords } from './start';
import { findImage, findMachine, findProfile, logOf, storesIn, type Bench, type Box } from '../model/bench';
import { stops, stopTitle } from '../model/stops';
import { factDefinition, factKeys } from '../model/facts';
import { factText } from '../machine/text';
import { formatBoth, formatExact } from '../units/bytes';
import { optionOf } from '../system/options';
import { formatMoment } from '../units/date';
import { hazards } from '../box/summary';
import { hazardWords } from './hazard';
import { addressLines, layoutLines, loadLines } from './handOver/built';
import { passwordLines, settingLines, yearLines } from './handOver/years';
import { tuneOf } from '../tune/forBox';
import { armWords, figureWords, questionTitle } from './tune';

/** What was measured at stop 11: every experiment with what was kept of it. */
function tuned(bench: Bench, box: Box): string[] {
  if (box.tune === null) return [];
  const { plan, results } = tuneOf(bench, box);
  const out: string[] = [];
  if (results.length > 0) out.push('', '## Measured', '');
  for (const r of results) {
    const { experiment: e } = r;
    const kept = r.arms.find((a) => a.arm === e.kept);
    out.push(
      `- **${safe(questionTitle(e.question))}?** ${r.made} of ${r.planned} runs, order ${e.order}. ${r.arms
        .map((a) => {
          const v = a.values[r.first];
          return `${safe(armWords(r.changes, a.sets))}: ${v ? figureWords(r.first, v.mean) : 'not measured'}`;
        })
        .join(
          '; ',
        )}.${kept ? ` Kept: ${safe(armWords(r.changes, kept.sets))}.${e.because === '' ? '' : ` ${safe(e.because)}`}` : ''}`,
    );
  }
  for (const which of ['works', 'recommended'] as const) {
    const v = plan[which];
    if (v) out.push(`- **${which === 'works' ? 'Works' : 'Recommended'}: ${v.is}.** ${safe(v.words)}`);
  }
  return out;
}

/** The record of a box as CommonMark: what it is, how it is laid out and reached, what it carries, how it came and is set, what comes round, and its log. */
export function buildSheet(bench: Bench, box: Box): string {
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  const image = findImage(bench, box.imageId);
  const out: string[] = [
    `# ${safe(box.name)}`,
    '',
    `Build sheet from the bench “${safe(bench.name)}”. Purpose: ${box.purpose}.`,
    '',
  ];
  out.push('## Machine', '');
  if (machine) {
    out.push(
      md`${machine.name}, ${machine.form}.`.text,
      '',
      ...markdownTable(
        ['Fact', 'Value', 'From'],
        factKeys.flatMap((key) => {
          const known = knownFact(machine, key);
          return known ? [[factDefinition(key).label, factText(key, known.value), known.source]] : [];
        }),
      ),
      '',
    );
    for (const s of storesIn(bench, machine.id))
      out.push(
        `- ${safe(s.name)}, ${formatBoth(s.bytes)}, serial ${safe(s.serial ?? 'not known')}${s.fate === 'may be lost' ? '' : `, **${s.fate}**`}`,
      );
  } else out.push('No machine yet.');
  out.push('', '## Decisions', '');
  if (box.decisions.length === 0) out.push('None recorded.');
  for (const d of box.decisions)
    out.push(
      `- **${safe(d.what)}: ${safe(d.value)}** (${stopTitle[d.stop]}, ${formatMoment(d.at)}). ${safe(d.because)}`,
    );
  if (profile) {
    const { release, variant } = optionOf(profile, box);
    out.push(
      '',
      `${safe(profile.name)} ${safe(release.version)}, ${release.channel}, variant ${safe(variant.name)}. Installer: ${profile.installer}.`,
    );
  }
  const rehearsed = boxTally(bench, box);
  if (!('code' in rehearsed) && rehearsed.tally) {
    const { tally, plan, taken, cause } = rehearsed;
    const nameOf = namesIn(plan);
    const sheet = runSheetOf(bench, box);
    out.push(
      '',
      '## Rehearsal',
      '',
      safe(tallyWords(tally, cause)),
      '',
      // Each is a step of the work, in the order of the plan: ticked where its step is done.
      ...taken.map(
        (p) =>
          `- [${isCarriedOut(sheet, p) ? 'x' : ' '}] ${safe(precautionWords(p, nameOf))} (${safe(precautionCost(p))})`,
      ),
      ...(taken.length === 0 ? ['No precaution is taken.'] : []),
    );
  }
  out.push(
    ...layoutLines(bench, box),
    ...addressLines(bench, box),
    ...loadLines(bench, box),
    ...settingLines(bench, box),
    ...tuned(bench, box),
    ...passwordLines(box),
    ...yearLines(bench, box),
  );
  out.push('', '## Image', '');
  if (image) {
    out.push(`${safe(image.name)}, ${formatExact(image.bytes)}.`, '');
    for (const [algorithm, hex] of Object.entries(image.digests))
      out.push(md`- ${algorithm}: ${codeSpan(hex)}`.text);
    const words = {
      same: 'agrees with the published sum',
      differs: '**differs from the published sum**',
      'not-listed': 'is not named in the list',
      'other-size': 'HAS ANOTHER SIZE than the list names',
    };
    if (image.comparison) out.push(`- ${words[image.comparison.verdict]} (${safe(image.comparison.from)})`);
    const starts = image.inspection?.outcomes.filter((o) => o.starts === 'yes') ?? [];
    for (const o of starts)
      out.push(
        `- starts under ${firmwareTitle[o.firmware]} as ${o.attached === 'disk' ? 'a stick or drive' : 'optical media'}: ${safe(startWords(o))}`,
      );
  } else out.push('None opened.');
  out.push('', '## Stick', '');
  out.push(
    box.written
      ? `Serial ${safe(box.written.serial)}, ${formatMoment(box.written.at)}: ${box.written.result}. ${safe(box.written.explanation)}`
      : 'Not written.',
  );
  if (machine) {
    const ladder = bootLadder(bench, box, machine);
    out.push('', '## Next start', '', `${safe(ladderHeadline(ladder))}.`, '');
    ladder.rungs.forEach((r, i) =>
      out.push(`${i + 1}. ${safe(rungTitle(r.entry))}: ${r.state}, ${safe(rungWords(r.why))}`),
    );
  }
  const found = hazards(bench, box);
  out.push(
    '',
    '## Hazards',
    '',
    ...(found.length
      ? found.map(
          (h) =>
            `- **${h.grade === 'stop' ? 'Stop' : h.grade === 'check' ? 'Check' : 'Note'}** ${safe(hazardWords(h))}`,
        )
      : ['None.']),
  );
  out.push(
    '',
    '## Stops',
    '',
    ...stops.map((s) => {
      const signed = box.signoffs.find((x) => x.stop === s);
      return `- [${signed ? 'x' : ' '}] ${stopTitle[s]}${signed ? `, ${formatMoment(signed.at)}${signed.despite ? `, despite a Stop: ${safe(signed.despite)}` : ''}` : ''}`;
    }),
  );
  out.push('', '## Log', '');
  const lines = [...logOf(bench, box.id)].sort((a, b) => (a.at < b.at ? -1 : 1));
  for (const e of lines)
    out.push(
      `- ${formatMoment(e.at)} ${safe(e.text)}${e.kind === 'setting' ? `: ${safe(e.from)} → ${safe(e.to)}` : ''}${e.kind === 'photo' ? ' (photo kept in the bench)' : ''}`,
    );
  if (lines.length === 0) out.push('Nothing yet.');
  return out.join('\n') + '\n';
}
