/** A part that heat harms. */
export type HotPart =
  'processor' | 'graphics' | 'battery' | 'hard drive' | 'solid-state drive' | 'memory' | 'board' | 'skin';

/** How warm a part may be. °C. */
export interface HeatLimit {
  part: HotPart;
  /** From here on it ages faster, or is to be looked at. */
  check: number;
  /** Not above. */
  stop: number;
  source: string;
}

const PRACTICE = 'common practice, no source';

/** Limits of parts. */
export const heatLimits: Readonly<Record<HotPart, HeatLimit>> = {
  processor: { part: 'processor', check: 85, stop: 100, source: PRACTICE },
  graphics: { part: 'graphics', check: 85, stop: 105, source: PRACTICE },
  battery: { part: 'battery', check: 45, stop: 60, source: PRACTICE },
  'hard drive': { part: 'hard drive', check: 50, stop: 60, source: PRACTICE },
  'solid-state drive': { part: 'solid-state drive', check: 65, stop: 70, source: PRACTICE },
  memory: {
    part: 'memory',
    check: 85,
    stop: 95,
    source: 'JEDEC JESD79-4 §4.9.1 (refreshed twice as often above 85 °C, 95 °C at most), from memory',
  },
  board: { part: 'board', check: 80, stop: 100, source: PRACTICE },
  skin: {
    part: 'skin',
    check: 43,
    stop: 48,
    source: 'IEC 62368-1 table 38 (48 °C for what is held for long), from memory',
  },
};

const PARTS: readonly (readonly [RegExp, HotPart])[] = [
  [/batt|\bbat\d/i, 'battery'],
  [/nvme|ssd|solid/i, 'solid-state drive'],
  [/drivetemp|hdd|hard|sd[a-z]\b/i, 'hard drive'],
  [/gpu|graphics|edge|junction/i, 'graphics'],
  [/dimm|jc42|spd|memory|\bmem\b/i, 'memory'],
  [/skin|case|surface/i, 'skin'],
  [/cpu|tctl|tdie|package|core|pkg|soc|processor/i, 'processor'],
];

/** Which part a sensor sits on, by its name; what nobody knows counts as the board. Common practice, no source. */
export const partOf = (sensor: string): HotPart => PARTS.find(([name]) => name.test(sensor))?.[1] ?? 'board';

/** How grave a temperature of a part is. */
export function heatGrade(part: HotPart, celsius: number): 'stop' | 'check' | 'fine' {
  const { check, stop } = heatLimits[part];
  return celsius > stop ? 'stop' : celsius > check ? 'check' : 'fine';
}
