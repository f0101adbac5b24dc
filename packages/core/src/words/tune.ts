import type { QuantityCode, QuestionCode, Setting } from '../model/tune';
import type { Allowed } from '../tune/allows';
import type { Judged, Outcome } from '../tune/compare';
import type { Design, Ground } from '../tune/design';
import type { LogFault, LogKind, LogReadError } from '../tune/logs/log';
import { quantities } from '../tune/quantities';
import { isFactorial, setsOf, type ExperimentResult, type ExperimentState } from '../tune/results';
import type { RoomHeat } from '../tune/room';
import type { Steadiness } from '../tune/steady';
import { formatDuration, formatRate } from '../units/duration';
import { formatNumber, formatPercent } from '../units/number';
import { capital, counted, list, plural, within } from './text';

const QUESTIONS: Readonly<Record<QuestionCode, string>> = {
  cooler: 'Cooler',
  quieter: 'Quieter',
  'more even': 'More even frames',
  faster: 'Faster',
  'longer on battery': 'Longer on its battery',
  'less at the wall': 'Less at the wall',
  'faster disk': 'A faster disk',
  'faster network': 'A faster network',
};
/** What a question is called. */
export const questionTitle = (q: QuestionCode): string => QUESTIONS[q];

/** A figure with its unit. */
export function figureWords(code: QuantityCode, value: number, signed = false): string {
  const { unit, digits } = quantities[code];
  const sign = signed && value > 0 ? '+' : '';
  if (unit === 'bytes/s') return `${value < 0 ? '−' : sign}${formatRate(Math.abs(value))}`;
  return `${sign}${formatNumber(value, digits)}${unit === '' ? '' : ` ${unit}`}`;
}

/** A figure without its unit, for a column whose head has it. */
export const bareFigure = (code: QuantityCode, value: number): string =>
  quantities[code].unit === 'bytes/s' ? formatRate(value) : formatNumber(value, quantities[code].digits);

const COSTS: Partial<Record<QuantityCode, string>> = {
  wall: 'watts at the wall',
  battery: 'watts from the battery',
};
/** What is paid, on an axis. */
export const costWords = (code: QuantityCode): string => COSTS[code] ?? within(quantities[code].label);

/** The values of a state: “24 W, off”. */
export const armWords = (settings: readonly Setting[], sets: Readonly<Record<string, string>>): string =>
  list(
    Object.entries(sets).map(([id, value]) => {
      const name = settings.find((s) => s.id === id)?.name ?? id;
      return /\d/.test(value) ? value : `${within(name)} ${value}`;
    }),
  );

/** What a state of an experiment is called, at the head of a line. */
export const stateTitle = (state: Pick<ExperimentState, 'changes' | 'arms'>, arm: string): string =>
  capital(armWords(state.changes, setsOf(state, arm)));

/** What a change is called: “31 W → 24 W”, “Boost on → off”; a figure names its setting only where there are two. */
export function changeTitle(
  settings: readonly Setting[],
  from: Readonly<Record<string, string>>,
  to: Readonly<Record<string, string>>,
): string {
  const changed = Object.entries(to).filter(([id, value]) => from[id] !== value);
  const parts = changed.map(([id, value]) => {
    const was = from[id] ?? '';
    const step = was === '' ? value : `${was} → ${value}`;
    const name = settings.find((s) => s.id === id)?.name ?? id;
    return changed.length === 1 && /\d/.test(value) ? step : `${within(name)} ${step}`;
  });
  return capital(list(parts));
}

const OUTCOMES: Readonly<Record<Outcome, string>> = {
  better: 'better',
  worse: 'worse',
  'no difference': 'no difference',
  'no difference seen': 'no difference seen',
  'cannot say': 'cannot say',
};

const BETTER: Partial<Record<QuantityCode, readonly [better: string, worse: string]>> = {
  hottest: ['cooler', 'hotter'],
  fan: ['slower fan', 'faster fan'],
  noise: ['quieter', 'louder'],
  rate: ['faster', 'slower'],
  'low percentile': ['more even', 'less even'],
  'low average': ['more even', 'less even'],
  pace: ['more even', 'less even'],
  stutters: ['fewer stutters', 'more stutters'],
  wall: ['less at the wall', 'more at the wall'],
  battery: ['lasts longer', 'lasts less'],
};

/** What became of a quantity, in a word or two. */
export function outcomeWords(code: QuantityCode, outcome: Outcome): string {
  const pair = BETTER[code] ?? ['faster', 'slower'];
  return outcome === 'better' ? pair[0] : outcome === 'worse' ? pair[1] : OUTCOMES[outcome];
}

/** A difference with its interval: “−11.2 °C (−13.0 to −9.4)”. */
export function differenceWords(code: QuantityCode, d: Judged): string {
  if (d.change === null || d.low === null || d.high === null) return '';
  const bare = (v: number): string =>
    quantities[code].unit === 'bytes/s' ? figureWords(code, v) : formatNumber(v, quantities[code].digits);
  return `${figureWords(code, d.change, true)} (${bare(d.low)} to ${bare(d.high)})`;
}

/** Why nothing more can be said of a quantity, or how much less it is than what matters; nothing where it is plain. */
export function judgedWords(code: QuantityCode, d: Judged): string {
  const matter = figureWords(code, d.matters);
  const runs = `${d.before.n} and ${d.after.n} runs`;
  switch (d.outcome) {
    case 'cannot say':
      if (d.inARow)
        return 'All runs of one state came before all of the other: whatever else changed meanwhile is in the difference. Make them in turn, such as ABBA.';
      if (d.exact === null) return `Two runs of each state are the least there can be: there are ${runs}.`;
      return `${capital(runs)} cannot be sure whatever they show${d.more ? `; ${plural(d.more, 'more run')} of each would tell a change of ${matter}` : ''}.`;
    case 'no difference seen':
      return d.more === null
        ? `With runs that vary so much a change of ${matter} cannot be told.`
        : d.more === 0
          ? `A change of ${matter} would most likely have been seen.`
          : `${plural(d.more, 'more run')} of each would tell a change of ${matter}.`;
    case 'no difference':
      return `Whatever there is, is less than ${matter}.`;
    default:
      return '';
  }
}

/** Whether the warmth of the room is in a comparison of heat; nothing where no heat was measured. */
export function roomWords({ noted, of, at }: RoomHeat): string {
  if (of === 0) return '';
  if (at !== null)
    return `The room is taken out: temperatures are compared as in a room of ${formatNumber(at, 1)} °C.`;
  return noted === 0
    ? 'No run has a room temperature: what the room warmed or cooled by is in the difference.'
    : `Only ${noted} of ${plural(of, 'run')} have a room temperature: the room is not taken out.`;
}

/** How comparisons that were looked at together were judged. */
export function methodWords(judged: readonly Judged[]): string {
  const told = judged.filter((d) => d.corrected !== null);
  if (told.length === 0) return '';
  const drift = told.some((d) => d.method === 'drift taken out');
  const least = Math.min(...told.map((d) => d.corrected ?? 1));
  return `Intervals at 95 %${told.length === 1 ? '' : ' for all together'}${drift ? ', the evening’s drift taken out' : ', with no drift taken out'}. Sure at 5 % for ${told.length === 1 ? 'the one comparison' : `all ${told.length} comparisons together`}, over arrangements of whole runs; the surest has p ${pWords(least)}.`;
}

const pWords = (p: number | null): string =>
  p === null ? '–' : p < 0.001 ? 'below 0.001' : formatNumber(p, 3);

const GROUNDS: Readonly<Record<Ground, string>> = {
  'measured here': 'measured on this box',
  'measured on its like': 'measured on boxes of its kind',
  said: 'as you said',
  usual: 'common practice, no source',
};
/** Where a figure of a plan comes from. */
export const groundWords = (g: Ground): string => GROUNDS[g];

/** How good the chance of an experiment is, in a sentence. */
export function chanceWords(d: Design): string {
  const what = figureWords(d.first, d.matters);
  const chance = formatPercent(d.chance);
  if (d.chance === 0)
    return `${plural(d.runs, 'run')} of each state can never be sure of anything at all${d.runsFor80 === null ? '' : `; ${d.runsFor80} would see a change of ${what} four times in five`}.`;
  return `A change of ${what} would be seen with a chance of ${chance}${
    d.runsFor80 === null
      ? '; even 60 runs of each would not make it four in five'
      : d.runsFor80 > d.runs
        ? `; ${d.runsFor80} runs of each make it four in five`
        : ''
  }.`;
}

/** How a rate stands to the links there are. */
export const allowedWords = (a: Allowed): string =>
  `${formatPercent(a.share)} of what ${a.by.name} carries at most (${formatRate(a.by.bytesPerSecond)}: ${a.by.because})${a.not === null ? '' : `; more than ${a.not} could`}.`;

/** Whether a reading counts, in a sentence. */
export function steadinessWords(s: Steadiness): string {
  switch (s.code) {
    case 'too short':
      return 'Too few readings to tell whether it has settled.';
    case 'level':
      return 'It was warm before: it does not change by more than half a degree.';
    case 'steady':
      return `A reading counts from ${formatDuration(s.at)} on; it ends at ${formatNumber(s.fit.final, 1)} °C, with a time constant of ${formatDuration(s.tau)}.`;
    case 'not yet':
      return `Not settled: it still has ${formatNumber(s.left, 1)} K to go, to ${formatNumber(s.fit.final, 1)} °C (${range(s.fit.low, s.fit.high)}); a reading counts from ${formatDuration(s.at)} on.`;
    case 'open':
      return 'Not settled, and too early to tell where it ends.';
  }
}
const range = (low: number, high: number): string =>
  `${Number.isFinite(low) ? formatNumber(low, 1) : '?'} to ${Number.isFinite(high) ? formatNumber(high, 1) : '?'}`;

const KINDS: Readonly<Record<LogKind, string>> = {
  'frame times': 'frame times',
  table: 'a table of readings',
  recorder: 'our recorder',
  sensors: 'sensors -j',
  turbostat: 'turbostat',
  fio: 'fio, JSON',
  'fio rates': 'fio, rates over time',
  iperf3: 'iperf3 -J',
  smartctl: 'smartctl -j',
  memtester: 'memtester',
  'stress-ng': 'stress-ng',
};
/** What kind of log it is. */
export const logKindWords = (k: LogKind): string => KINDS[k];

/** What was mended, passed over or taken for granted in a log. */
export function logFaultWords(f: LogFault): string {
  switch (f.code) {
    case 'cut':
      return `The file breaks off in line ${counted(f.line)}; what stands before it was read.`;
    case 'not numbers':
      return `${plural(f.lines, 'line')} had no figures where they should be and ${f.lines === 1 ? 'was' : 'were'} passed over, the first in line ${counted(f.first)}.`;
    case 'clock back':
      return `The clock goes back ${f.times === 1 ? 'once' : `${counted(f.times)} times`}, first in line ${counted(f.first)}: readings go on by the usual step from there.`;
    case 'mixed clocks':
      return `Times are written in several ways (${list(f.kinds)}); each was read by its own.`;
    case 'mixed units':
      return `“${f.column}” has figures in several units (${list(f.units)}); each was brought into one.`;
    case 'gap':
      return `${f.times === 1 ? 'Once' : `${counted(f.times)} times`} no reading came, the longest time ${formatDuration(f.longest)}.`;
    case 'unit guessed':
      return `${f.column === '' ? 'It' : `“${f.column}”`} says no unit: taken as ${f.unit}, since the middle frame then takes ${formatNumber(f.median, 2)} ms.`;
    case 'no times':
      return `It has no times: one reading every ${formatDuration(f.seconds)} was taken for granted.`;
    case 'not frames':
      return `${plural(f.count, 'value')} of the frame times ${f.count === 1 ? 'is' : 'are'} not above 0 and ${f.count === 1 ? 'was' : 'were'} left out, the first in row ${counted(f.first)}.`;
    case 'columns passed over':
      return `Columns nobody here knows: ${list(f.columns)}.`;
    case 'long line':
      return `${plural(f.lines, 'line')} too long to be readings ${f.lines === 1 ? 'was' : 'were'} passed over, the first in line ${counted(f.first)}.`;
    case 'odd bytes':
      return `${plural(f.count, 'byte')} in it ${f.count === 1 ? 'is' : 'are'} no text.`;
    case 'too many':
      return `Only the first ${counted(f.kept)} readings were read.`;
    case 'told by the tool':
      return `It says itself: ${f.words}`;
    case 'ended early':
      return 'It does not say that it ended: its figures may be of a part alone.';
  }
}

/** Why a file cannot be read as a log: what happened, what is unharmed, what to do. */
export function logErrorWords(name: string, e: Pick<LogReadError, 'code' | 'detail'>): string {
  const unharmed = 'Nothing was kept of it, and the file is as it was.';
  switch (e.code) {
    case 'empty':
      return `“${name}” is empty. ${unharmed} Record again, and look whether the disk was full.`;
    case 'cut':
      return `“${name}” breaks off before one reading is whole. ${unharmed} Copy it again.`;
    case 'too large':
      return `“${name}” is larger than 1 GiB. ${unharmed} Cut it into parts by the hour.`;
    case 'not text':
      return `“${name}” is no text. ${unharmed} Save it as CSV or JSON from the program that made it.`;
    case 'no log':
      return `“${name}” has nothing that is known here${e.detail === '' ? '' : `: ${e.detail}`}. ${unharmed} Frame times, tables with heads and units, our recorder, sensors -j, turbostat, fio, iperf3, smartctl, memtester and stress-ng are read.`;
  }
}

/** What a state costs of what it gives, in a share: “for 14 % of its 1 % low”. */
function paidWords({ comparisons, trade }: ExperimentResult, arm: string): string {
  const paid = comparisons.find((c) => c.arm === arm && c.quantity === trade?.gain)?.judged;
  if (paid?.outcome !== 'worse' || paid.change === null || !trade) return '';
  const share = Math.round((100 * Math.abs(paid.change)) / Math.abs(paid.before.mean));
  const of = trade.gain === 'low percentile' ? '1 % low' : trade.gain === 'rate' ? 'frames' : 'rate';
  return ` for ${share} % of its ${of}`;
}

/** The finding at the head of the sheet: how far the experiment is, or once it is worked out what it says. */
export function tuneHeadline(
  box: string,
  state: ExperimentState | undefined,
  result: ExperimentResult | null,
): string {
  if (!state) return `What should ${box} do better?`;
  const { experiment: e, arms, changes } = state;
  const asks = questionTitle(e.question);
  const title = (arm: string): string => stateTitle(state, arm);
  if (state.next)
    return state.made === 0
      ? `${asks}? ${plural(state.planned, 'run')} will tell`
      : `${state.made} of ${state.planned} runs made; next: ${within(title(state.next.arm))}`;
  if (!result) return `${asks}? ${state.planned} runs are made`;
  const knee = arms.length > 2 ? result.trade?.knee.knee : undefined;
  if (knee !== undefined && result.trade) {
    const chance = result.trade.knee.chances.find((c) => c.key === knee)?.chance ?? 0;
    const heat = result.comparisons.find((c) => c.arm === knee && c.quantity === 'hottest')?.judged;
    const beside =
      heat?.change != null && (heat.outcome === 'better' || heat.outcome === 'worse')
        ? `: ${figureWords('hottest', Math.abs(heat.change))} ${outcomeWords('hottest', heat.outcome)}`
        : '';
    return `${title(knee)} is the knee${beside}${paidWords(result, knee)}${chance < 0.8 ? ', but not surely' : ''}`;
  }
  if (isFactorial(e)) return `${asks}: what each of two settings does, and both together`;
  const first = result.comparisons.filter((c) => c.quantity === state.first);
  const told = first.find((c) => c.judged.outcome === 'better') ?? first[0];
  if (!told) return `${asks}: nothing can be said yet`;
  const { judged } = told;
  const said = outcomeWords(told.quantity, judged.outcome);
  const change = changeTitle(changes, setsOf(state, 'A'), setsOf(state, told.arm));
  return judged.change !== null && (judged.outcome === 'better' || judged.outcome === 'worse')
    ? `${change}: ${figureWords(told.quantity, Math.abs(judged.change))} ${said}`
    : `${change}: ${said}`;
}
