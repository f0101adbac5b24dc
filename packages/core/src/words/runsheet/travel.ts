import type { RunSheet, RunStep } from '../../box/runSheet';
import type { Box } from '../../model/bench';
import { TRAVEL_ID, type Travel, type TravelFault, type TravelStep } from '../../model/travel';
import { stopTitle } from '../../model/stops';
import { lasting } from '../../runsheet/lasting';
import { wholeOf } from '../../runsheet/step';
import { formatSpan } from '../../units/duration';
import { foretoldWords } from '../learning';
import { contentPolicy, fixedHtml, html, type Html } from '../../formats/writer/html';
import { hazardWords } from '../hazard';
import { asksWords, backWords, hurtWords, mustWords } from './around';
import { TRAVEL_SCRIPT, TRAVEL_SCRIPT_HASH } from './travelScript';
import { TRAVEL_STYLE } from './travelStyle';
import { runStepWords } from './step';

function travelStep(s: RunStep): TravelStep {
  const { title, lines, exact, change, why, see, wrong } = runStepWords(s.what);
  return {
    ...{ title, lines, exact, change, why, see, wrong },
    ...{ key: s.key, number: s.number, stop: s.stop, after: [...s.after], as: lasting(s.what) },
    first: s.must.map(mustWords),
    hurts: [...s.hurts.map(hurtWords), ...s.against.map((h) => `Stop: ${hazardWords(h)}`)],
    back: backWords(s.back),
    usual: s.foretold ? foretoldWords(s.foretold) : formatSpan(wholeOf(s)),
    asks: s.asks && asksWords(s.asks),
  };
}

/** What a sheet of a box carries. `madeAt` is a moment (ISO 8601, UTC). */
export function travelOf(
  sheet: RunSheet,
  box: Pick<Box, 'id' | 'name' | 'run'>,
  bench: string,
  madeAt: string,
): Travel {
  const steps = sheet.steps.filter((s) => s.state !== 'left out');
  const done: Travel['done'] = {};
  for (const s of steps) {
    const ticked = box.run?.steps[s.key];
    if (ticked) done[s.key] = ticked;
    else if (s.state === 'done')
      done[s.key] = {
        at: madeAt,
        seconds: null,
        as: lasting(s.what),
        said: runStepWords(s.what).title,
        noted: '',
        timed: null,
        fact: null,
      };
  }
  return {
    format: 'zealous-box-run',
    version: 1,
    box: { id: box.id, name: box.name },
    bench,
    madeAt,
    steps: steps.map(travelStep),
    done,
  };
}

const item = (label: string, text: string): Html | '' =>
  text === '' ? '' : html`<p><b>${label}</b> ${text}</p>`;
const when = (is: boolean, made: () => Html): Html | '' => (is ? made() : '');

const stepHtml = (s: TravelStep): Html => html`<li class="step" data-key="${s.key}" id="s${s.number}">
<header><span class="no">${s.number}</span> <span>${stopTitle[s.stop]}</span> <span class="usual">${s.usual}</span></header>
<h2>${s.title}</h2>
${s.first.map((f) => html`<p class="first"><b>First</b> ${f}</p>`)}
${when(s.lines.length > 0, () => html`<ol>${s.lines.map((l) => html`<li>${l}</li>`)}</ol>`)}
${when(s.exact.length > 0, () => html`<dl>${s.exact.map((e) => html`<div><dt>${e.label}</dt><dd>${e.text}</dd></div>`)}</dl>`)}
${s.change ? html`<p class="change"><span>${s.change.from}</span> to <strong>${s.change.to}</strong></p>` : ''}
${s.hurts.map((h) => html`<p class="hurts">${h} ${s.back}</p>`)}
${item('See', s.see)}${item('Why', s.why)}${item('If it goes wrong', s.wrong)}
<p class="acts"><label><input type="checkbox" data-tick> Done</label>${s.asks === null ? '' : html` <label>${s.asks} <input type="text" maxlength="500" data-noted></label>`} <output data-when></output></p>
</li>
`;

/**
 * The run sheet of a box as one HTML file that needs nothing else: it can be read and ticked on any device that shows HTML,
 * keeps ticks and times in itself, and prints.
 */
export function travelHtml(travel: Travel): string {
  // “</script>” in a name would end the record: written so, JSON is the same and HTML sees no tag (RFC 8259 §7).
  const record = fixedHtml(JSON.stringify(travel).replaceAll('<', '\\u003c'));
  return html`<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
${contentPolicy([TRAVEL_SCRIPT_HASH])}
<title>${travel.box.name}: run sheet</title>
<style>${fixedHtml(TRAVEL_STYLE)}</style>
</head>
<body>
<header class="top"><h1>${travel.box.name}</h1><p>Run sheet from “${travel.bench}”, ${travel.madeAt.slice(0, 10)}. <span id="count"></span></p>
<p class="acts"><button type="button" id="save">Save this sheet with its ticks</button> <span id="kept" role="status"></span></p>
<noscript><p>Ticks are kept where scripts may run; it can be read and printed without.</p></noscript></header>
<main><ol class="steps">
${travel.steps.map(stepHtml)}</ol></main>
<script type="application/json" id="${TRAVEL_ID}">${record}</script>
<script>${fixedHtml(TRAVEL_SCRIPT)}</script>
</body>
</html>
`.text;
}

/** Why a file was not taken, what is unharmed, what to do. */
export function travelFaultWords(f: TravelFault): string {
  const unharmed = 'Nothing was changed.';
  switch (f.code) {
    case 'no record in it':
      return `This is no run sheet that was saved here: it carries no record. ${unharmed} Open the file that “Save this sheet” made.`;
    case 'not JSON':
      return `The record in this sheet is cut off or was edited, and cannot be read. ${unharmed} Save the sheet again on the other device.`;
    case 'not as it was made':
      return `The record in this sheet is not as it was made: ${f.path}: ${f.why}. ${unharmed} Save the sheet again on the other device.`;
    case 'a tick without its step':
      return `A tick in this sheet belongs to no step of it (${f.key}). ${unharmed} Save the sheet again on the other device.`;
    case 'of another box':
      return `This sheet is of “${f.box}”, not of this box. ${unharmed} Open it at that box.`;
  }
}
