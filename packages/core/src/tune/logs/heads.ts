import type { Series, SeriesKind } from './log';

/** What a column holds, told by its head. */
export type Column =
  | { is: 'time'; scale: number | null }
  | { is: 'frame time'; scale: number | null; rank: number }
  | { is: 'series'; kind: SeriesKind; part: string; where: Series['where']; scale: number; offset: number }
  | { is: 'energy'; part: string; where: Series['where']; scale: number }
  | { is: 'unknown' };

interface Unit {
  kind: SeriesKind | 'time' | 'energy';
  scale: number;
  offset?: number;
}

/** Units as they stand in heads and behind figures (SI brochure, 9th edition; IEC 80000-13), and what they come to in ours. */
const UNITS: Readonly<Record<string, Unit>> = {
  s: { kind: 'time', scale: 1 },
  sec: { kind: 'time', scale: 1 },
  seconds: { kind: 'time', scale: 1 },
  ms: { kind: 'time', scale: 1e-3 },
  us: { kind: 'time', scale: 1e-6 },
  ns: { kind: 'time', scale: 1e-9 },
  '°c': { kind: 'temperature', scale: 1 },
  c: { kind: 'temperature', scale: 1 },
  degc: { kind: 'temperature', scale: 1 },
  'm°c': { kind: 'temperature', scale: 1e-3 },
  '°f': { kind: 'temperature', scale: 5 / 9, offset: -160 / 9 },
  f: { kind: 'temperature', scale: 5 / 9, offset: -160 / 9 },
  k: { kind: 'temperature', scale: 1, offset: -273.15 },
  rpm: { kind: 'fan', scale: 1 },
  '1/min': { kind: 'fan', scale: 1 },
  w: { kind: 'power', scale: 1 },
  watt: { kind: 'power', scale: 1 },
  watts: { kind: 'power', scale: 1 },
  mw: { kind: 'power', scale: 1e-3 },
  uw: { kind: 'power', scale: 1e-6 },
  kw: { kind: 'power', scale: 1e3 },
  va: { kind: 'power', scale: NaN },
  hz: { kind: 'clock', scale: 1e-6 },
  khz: { kind: 'clock', scale: 1e-3 },
  mhz: { kind: 'clock', scale: 1 },
  ghz: { kind: 'clock', scale: 1e3 },
  'db(a)': { kind: 'noise', scale: 1 },
  dba: { kind: 'noise', scale: 1 },
  v: { kind: 'voltage', scale: 1 },
  mv: { kind: 'voltage', scale: 1e-3 },
  a: { kind: 'current', scale: 1 },
  ma: { kind: 'current', scale: 1e-3 },
  uj: { kind: 'energy', scale: 1e-6 },
  j: { kind: 'energy', scale: 1 },
  wh: { kind: 'energy', scale: 3600 },
  kwh: { kind: 'energy', scale: 3.6e6 },
};

/** Micro by either of its signs, case and blanks aside. */
const plainUnit = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/[µμ]/g, 'u')
    .replace(/^º/, '°')
    .replace(/celsius/, 'c');

/** The unit a text names; undefined where it names none of ours. A capital M stays mega: MW is no milliwatt. */
export function unitOf(text: string): Unit | undefined {
  const bare = text.trim();
  if (/^MW$/.test(bare)) return { kind: 'power', scale: 1e6 };
  if (/^MHz$/i.test(bare)) return UNITS.mhz;
  return UNITS[plainUnit(text)];
}

/** The unit in a head: in brackets, behind a comma, or as its last word. */
function unitIn(head: string): Unit | undefined {
  const bracket = /[([]\s*([^)\]]{1,12})\s*[)\]]\s*$/.exec(head)?.[1];
  if (bracket !== undefined) return unitOf(bracket) ?? unitOf(`${bracket})`);
  const last = /(?:[\s,_/.:-]+|(?<=[a-z])(?=[A-Z]))(m?[°º]?[CFK]|[A-Za-zµμ°º/()1]{1,7})\s*$/.exec(head)?.[1];
  return last === undefined ? undefined : unitOf(last);
}

/** Heads of frame-time columns, the best first; letters alone, lower case. From memory of common layouts. */
const FRAME_HEADS: readonly RegExp[] = [
  /^(ms)?between(presents?|frames?)(ms)?$/,
  /^(cpu|app|application)?frametimes?(in)?(ms|us|ns|s|milliseconds|microseconds|nanoseconds|seconds)?$/,
  /^frame(duration|ms|interval)(ms|us|ns)?$/,
  /^(ms)?betweendisplaychanges?(ms)?$/,
  /^(gpu|render)frametimes?(ms)?$/,
];

/** Words of heads with what they stand for where no unit says it. */
const WORDS: readonly (readonly [RegExp, SeriesKind])[] = [
  [/temp|°c|therm|\btctl\b|\btdie\b/i, 'temperature'],
  [/\brpm\b|fan/i, 'fan'],
  [/\bfps\b|frames? ?per ?s|frame ?rate/i, 'frames'],
  [/watt|power|leistung|puissance|potencia/i, 'power'],
  [/clock|freq|mhz/i, 'clock'],
  [/capacity|charge|soc\b|battery ?level/i, 'charge'],
  [/\bload\b|usage|busy|util/i, 'load'],
  [/noise|sound|db ?\(?a/i, 'noise'],
];

const TIME_HEAD =
  /^(time|timestamp|date|datetime|date ?[/_ ]?time|elapsed|elapsed ?time|seconds?|secs?|uptime|zeit|t|epoch|time ?in ?seconds|.*time ?of ?day.*|start ?time|clock ?time)$/i;

const whereOf = (head: string): Series['where'] =>
  /wall|mains|plug|socket|outlet|meter|active ?power|wirkleistung/i.test(head)
    ? 'wall'
    : /\bbat|battery|BAT\d/i.test(head)
      ? 'battery'
      : 'part';

/** Letters of a head; a longer one names nothing that is known. */
const MOST_HEAD = 200;

/** What a column holds, by its head alone. */
export function columnOf(head: string): Column {
  if (head.length > MOST_HEAD) return { is: 'unknown' };
  const text = head.trim().replace(/^"|"$/g, '').trim();
  const unit = unitIn(text);
  const letters = text
    .toLowerCase()
    .replace(/[µμ]/g, 'u')
    .replace(/[^a-z]/g, '');
  const named = text.replace(/\s*[([][^)\]]*[)\]]\s*$/, '').trim();
  const rank = FRAME_HEADS.findIndex((r) => r.test(letters));
  if (rank >= 0)
    return { is: 'frame time', rank, scale: unit?.kind === 'time' ? unit.scale * 1e3 : msIn(letters) };
  if (TIME_HEAD.test(named.replace(/[_-]+/g, ' ')))
    return { is: 'time', scale: unit?.kind === 'time' ? unit.scale : null };
  if (unit?.kind === 'energy') return { is: 'energy', part: named, where: whereOf(named), scale: unit.scale };
  if (/_?energy_?uj$/i.test(text)) return { is: 'energy', part: named, where: whereOf(named), scale: 1e-6 };
  const word = WORDS.find(([w]) => w.test(text.replaceAll('_', ' ')))?.[1];
  const kind = unit && unit.kind !== 'time' && !Number.isNaN(unit.scale) ? unit.kind : word;
  if (kind === undefined) return { is: 'unknown' };
  // “Power limit” and the like are settings, not readings.
  if (/limit|max\b|min\b|crit|target|cap\b/i.test(named)) return { is: 'unknown' };
  const fits = unit?.kind === kind && !Number.isNaN(unit.scale) ? unit : undefined;
  return {
    is: 'series',
    kind,
    part: named === '' ? text : named,
    where: kind === 'power' ? whereOf(named) : 'part',
    scale: fits?.scale ?? 1,
    offset: fits?.offset ?? 0,
  };
}

/** The scale to ms that a head’s own letters say; null where they say none. */
const msIn = (letters: string): number | null =>
  /milliseconds$|ms$|^ms/.test(letters)
    ? 1
    : /microseconds$|us$/.test(letters)
      ? 1e-3
      : /nanoseconds$|ns$/.test(letters)
        ? 1e-6
        : /[^m]seconds$/.test(letters)
          ? 1e3
          : null;
