/** Scripted players of every exercise: one who knows the trade, one who is careless. Both see only what is shown. */
import { randomFrom } from '@zb/core/units/random';
import { play, Playing, withAct, type Exercise, type Played } from '@zb/core/practice/play';
import type { Part } from '@zb/core/practice/said';
import { offersIn, type Panel, type RigScreen, type Row } from '@zb/core/practice/scene';
import type { PracticeAct } from '@zb/core/model/practice';

/** Somebody at an exercise. */
export class Player {
  acts: PracticeAct[] = [];
  /** Every act by itself, as it was done. */
  readonly done: PracticeAct[] = [];
  played: Played;
  private readonly playing: Playing;
  constructor(
    readonly exercise: Exercise,
    readonly seed: number,
  ) {
    this.playing = new Playing(exercise, seed);
    this.played = this.playing.stands();
  }

  /** Does it; throws where it is not on offer. */
  act(name: string, on?: string): this {
    const act: PracticeAct = { do: name, ...(on === undefined ? {} : { on }) };
    this.acts = withAct(this.acts, act);
    this.done.push(act);
    this.played = this.playing.take(act).stands();
    return this;
  }

  /** How it would end if this were done next; what was done so far stays. */
  would(name: string, on?: string): Played['end'] {
    const act: PracticeAct = { do: name, ...(on === undefined ? {} : { on }) };
    return play(this.exercise, this.seed, withAct(this.acts, act)).end;
  }

  /** Can it be done? Nothing can once it is over. */
  can(name: string, on?: string): boolean {
    return this.played.offers.some((o) => o.act.do === name && (on === undefined || o.act.on === on));
  }

  /** To what all it can be done. */
  all(name: string): string[] {
    return this.played.offers.flatMap((o) => (o.act.do === name ? [o.act.on ?? ''] : []));
  }

  get over(): boolean {
    return this.played.end !== null;
  }

  rows(title: string): Row[] {
    const found = this.played.panels.find(
      (p): p is Extract<Panel, { kind: 'table' }> => p.kind === 'table' && p.title.code === title,
    );
    return found?.rows ?? [];
  }

  get paper(): Part[] {
    return this.played.panels.flatMap((p) => (p.kind === 'paper' ? p.lines : []));
  }

  /** A value of a line of the note. */
  told(code: string, value: string): string {
    for (const l of this.paper) if (typeof l !== 'string' && l.code === code) return String(l.values[value]);
    return '';
  }

  get screen(): RigScreen {
    const found = this.played.panels.find((p) => p.kind === 'machine');
    if (found?.kind !== 'machine') throw new Error('no machine in this exercise');
    return found.screen;
  }
}

const codeOf = (p: Part | undefined): string => (p === undefined ? '' : typeof p === 'string' ? p : p.code);
const has = (row: Row, text: string): boolean => row.cells.some((c) => codeOf(c) === text);

/** Taps a key from power-on until it is caught. */
function tap(p: Player, key: string): void {
  for (let n = 0; n < 30 && p.screen.manner === 'waking'; n += 1) {
    p.act('press', key);
    if (p.screen.manner === 'waking') p.act('wait');
  }
}

const waitOut = (p: Player): void => {
  for (let n = 0; n < 60 && !p.over && p.can('wait'); n += 1) p.act('wait');
};

function atMachine(p: Player): void {
  const [setup, menu] = [p.told('paper keys', 'setup'), p.told('paper keys', 'menu')];
  const [name, code] = [p.told('paper target', 'name'), p.told('paper target', 'serial')];
  const target = p.rows('things').find((r) => r.cells[0] === name)?.id ?? 'target';
  const unasked = p.paper.some((l) => codeOf(l).endsWith('unasked'));
  if (p.exercise.id === 'again-and-again') {
    p.act('stick out').act('power');
    tap(p, setup);
    while (p.can('raise', target)) p.act('raise', target);
    p.act('save');
    waitOut(p);
    return;
  }
  const pulled = unasked ? p.all('pull').filter((id) => id !== target) : [];
  for (const id of pulled) p.act('pull', id);
  p.act('stick in').act('power');
  if (p.exercise.id === 'unsigned') {
    tap(p, setup);
    p.act('secure', 'off').act('save');
  }
  tap(p, menu);
  p.act('take', stickOf(p));
  if (p.exercise.id === 'start-once' || p.exercise.id === 'unsigned') {
    p.act('shut down').act('stick out').act('power');
    if (p.exercise.id === 'unsigned') {
      tap(p, setup);
      p.act('secure', 'on').act('save');
    }
    waitOut(p);
    return;
  }
  for (const id of p.all('details')) {
    if (p.screen.rows.some((r) => has(r, code))) break;
    p.act('details', id);
  }
  const row = p.screen.rows.find((r) => has(r, code));
  if (row) p.act('choose', row.id);
  if (p.can('go on')) p.act('go on');
  if (p.can('erase')) p.act('erase');
  while (p.can('wait') && p.screen.manner !== 'waking') p.act('wait');
  p.act('stick out');
  if (p.can('power')) p.act('power');
  else if (p.screen.manner !== 'waking') p.act('restart');
  waitOut(p);
  if (p.over) return;
  p.act('shut down');
  for (const id of pulled) p.act('put', id);
  p.act('power');
  waitOut(p);
}

/** What in the menu is the stick, whole. */
const stickOf = (p: Player): string =>
  p.screen.rows.find((r) => codeOf(r.cells[0]) === 'entry first part')?.id ?? '';

function carelessAtMachine(p: Player): void {
  const menu = p.told('paper keys', 'menu');
  if (p.exercise.id === 'again-and-again') {
    p.act('power');
    waitOut(p);
    return;
  }
  p.act('stick in').act('power');
  if (p.exercise.id === 'unsigned' || p.exercise.id === 'start-once') {
    const setup = p.told('paper keys', 'setup');
    tap(p, setup);
    if (p.can('secure', 'off')) p.act('secure', 'off');
    while (p.can('raise', 'stick')) p.act('raise', 'stick');
    p.act('save');
    waitOut(p);
    p.act('shut down').act('stick out').act('power');
    waitOut(p);
    return;
  }
  tap(p, menu);
  p.act('take', stickOf(p));
  if (p.can('go on')) p.act('go on').act('erase');
  else if (p.can('choose')) {
    // The first line that is not the right one: what looks alike is taken for it.
    const wrong = p.all('choose').find((id) => id === 'other-1') ?? p.all('choose')[0];
    p.act('choose', wrong).act('erase');
  }
  while (!p.over && p.can('wait') && p.screen.manner !== 'waking') p.act('wait');
}

type Script = (p: Player) => void;

const perfectScripts: Record<string, Script> = {
  'which-drive': (p) => {
    p.act('report').act('shut down');
    const label = p.told('paper wanted', 'label');
    const code = p.rows('report of before').find((r) => r.cells[2] === label)?.cells[3];
    for (const tray of p.all('look')) {
      p.act('look', tray);
      if (p.rows('trays').find((r) => r.id === tray)?.cells[1] === code) return void p.act('flag', tray);
    }
  },
  'which-system': (p) => {
    for (const g of p.all('look up')) p.act('look up', g);
    for (const s of p.all('read needs')) p.act('read needs', s);
    const fact = (part: string, value: string): string => {
      const cell = p.rows('the machine').find((r) => r.id === part)?.cells[1];
      return typeof cell === 'object' ? String(cell.values[value]) : '';
    };
    const value = (cell: Part | undefined, key: string): string =>
      typeof cell === 'object' ? String(cell.values[key]) : '';
    const fits = p.rows('systems').filter((r) => {
      const [, memory, processor, mode] = r.cells;
      return (
        Number(value(memory, 'bytes')) <= Number(fact('memory', 'bytes')) &&
        value(processor, 'level') <= fact('processor', 'level') &&
        Number(value(processor, 'year')) <= Number(fact('processor', 'year')) &&
        codeOf(mode) === `mode ${fact('firmware', 'mode')}`
      );
    });
    fits.sort((a, b) => (value(a.cells[4], 'day') < value(b.cells[4], 'day') ? 1 : -1));
    p.act('choose it', fits[0]?.id);
  },
  'the-tray': (p) => {
    p.act('read the job');
    const card = p.paper.map(codeOf);
    const when = (code: string, thing: string): string[] => (card.includes(code) ? [thing] : []);
    for (const t of [
      ...when('image large', 'stick 16 GB'),
      ...when('slot 2230', 'drive 2230'),
      ...when('slot 2280', 'drive 2280'),
      ...when('one socket', 'dock with power'),
      ...when('picture new', 'cable for the picture'),
      ...when('picture old', 'old cable for the picture'),
      ...when('radio not carried', 'drivers on a second stick'),
      ...when('wire there', 'network wire'),
      ...when('keys at power-on', 'keyboard on a wire'),
      'small screwdriver',
    ])
      p.act('pack', t);
    p.act('set out');
  },
  'three-downloads': (p) => {
    p.act('check signature', 'signed').act('read list', 'signed');
    const line = p.paper.find((l): l is string => typeof l === 'string' && l.includes('x86_64')) ?? '';
    for (const f of p.all('compute')) p.act('compute', f);
    const row = p.rows('downloads').find((r) => r.cells[2] === line.slice(0, 64));
    p.act('write this', row?.id);
  },
  'which-stick': (p) => {
    for (const port of p.all('read label')) p.act('read label', port);
    for (const row of p.rows('plugged in').filter((r) => has(r, 'blue tape'))) {
      p.act('write to', row.id).act('read back');
      if (p.can('hand it on')) return void p.act('hand it on');
    }
  },
  'it-looks-different': (p) => {
    // The look that tells most is what the application itself says; asked of it as a hint, and then done anew without asking.
    const aside = new Player(p.exercise, p.seed);
    for (let n = 0; n < 12; n += 1) {
      aside.act('hint');
      const hint = aside.played.hints.at(-1);
      const look = hint?.code === 'hint look at';
      const on = String(hint?.values[look ? 'look' : 'cause']);
      aside.act(look ? 'take a look' : 'cure', on);
      p.act(look ? 'take a look' : 'cure', on);
      if (p.over) return;
    }
  },
  'still-there': (p) => {
    p.act('read the list').act('listen');
    if (p.can('unplug')) p.act('unplug', 'stray');
    const prefix = p.told('paper network', 'prefix').split('.').slice(0, 3).join('.');
    const [from, to] = ['from', 'to'].map((k) => Number(p.told('paper network', k).split('.')[3]));
    const taken = new Set(p.rows('devices').map((r) => codeOf(r.cells[1])));
    const free = p.rows('addresses').find((r) => {
      const last = Number(r.id.split('.')[3]);
      return r.id.startsWith(`${prefix}.`) && !taken.has(r.id) && (last < (from ?? 0) || last > (to ?? 0));
    });
    p.act('ask', free?.id).act('give', free?.id).act('cut power');
  },
  'the-gate': (p) => {
    if (p.can('only port')) p.act('only port', 'reading');
    if (p.can('only host')) p.act('only host', 'reading');
    p.act('try out').act('put in force');
  },
  'one-of-four': (p) => {
    p.act('read the pool');
    if (p.rows('pool').some((r) => has(r, 'health weak'))) p.act('copy away');
    const failed = p.rows('pool').find((r) => has(r, 'health failed'))?.id;
    for (const bay of p.all('look')) {
      p.act('look', bay);
      if (p.rows('bays').find((r) => r.id === bay)?.cells[1] !== failed) continue;
      p.act('pull', bay).act('put the new one', bay);
      break;
    }
    waitOut(p);
    p.act('read it all').act('call it well');
  },
  'one-change': (p) => {
    const setting = p.told('paper question', 'setting');
    let changed = false;
    // Twelve runs of each, in turns that a drift falls out of: A B B A.
    for (let n = 0; n < 24; n += 1) {
      const now = n % 4 === 1 || n % 4 === 2;
      if (now !== changed) p.act(now ? 'change' : 'set back', setting);
      changed = now;
      p.act('measure');
    }
    const outcome = codeOf(p.rows('compared').find((r) => r.id === 'says')?.cells[2]);
    p.act(outcome === 'better' ? 'say it helps' : 'say it does nothing');
  },
  'the-old-server': (p) => {
    const counts = (): boolean => p.played.happened.some((h) => h.code === 'counts agree');
    while (!counts()) p.act('back up').act('restore').act('count');
    p.act('switch over');
    const flash = p.rows('moving house').some((r) => has(r, 'drive flash'));
    p.act('erase by', flash ? 'its own erase command' : 'write over all of it')
      .act('read places')
      .act('open it');
    if (p.can('cell to collection')) p.act('cell to collection');
    p.act('give away');
  },
};

const carelessScripts: Record<string, Script> = {
  'which-drive': (p) => {
    // The first that is read out is taken for the first tray; where that is right by luck, the next one.
    for (const tray of p.all('flag')) {
      if (p.would('flag', tray) === 'lost') return void p.act('flag', tray);
    }
  },
  'which-system': (p) => wrong(p, 'choose it'),
  'the-tray': (p) => void p.act('pack', 'stick 4 GB').act('set out'),
  'three-downloads': (p) => wrong(p, 'write this'),
  'which-stick': (p) => wrong(p, 'write to'),
  'it-looks-different': (p) => {
    for (const cause of p.all('cure')) {
      if (p.over) return;
      // Whoever hits it by luck is not careless enough.
      if (p.would('cure', cause) !== 'done') p.act('cure', cause);
    }
  },
  'still-there': (p) => {
    const asleep = p
      .act('read the list')
      .rows('devices')
      .find((r) => r.id === 'printer')?.cells[1];
    p.act('give', codeOf(asleep)).act('cut power');
  },
  'the-gate': (p) => void p.act('put in force'),
  'one-of-four': (p) => wrong(p, 'pull'),
  'one-change': (p) => {
    p.act('measure').act('change', p.told('paper question', 'setting')).act('measure');
    p.act(p.would('say it helps') === 'lost' ? 'say it helps' : 'say it does nothing');
  },
  'the-old-server': (p) => void p.act('erase by', 'delete the files'),
};

/** Does the first of some things that goes wrong. */
function wrong(p: Player, act: string): void {
  for (const on of p.all(act)) {
    if (p.would(act, on) === 'lost') return void p.act(act, on);
  }
}

/** Plays an exercise as somebody would who knows the trade. */
export function perfect(exercise: Exercise, seed: number): Player {
  const p = new Player(exercise, seed);
  (perfectScripts[exercise.id] ?? atMachine)(p);
  return p;
}

/** Plays it as somebody would who does what comes first. */
export function careless(exercise: Exercise, seed: number): Player {
  const p = new Player(exercise, seed);
  (carelessScripts[exercise.id] ?? carelessAtMachine)(p);
  return p;
}

/** Somebody who does anything that is on offer. */
export function anyhow(exercise: Exercise, seed: number, most: number): Player {
  const p = new Player(exercise, seed);
  const random = randomFrom(seed ^ 0x5bd1e995);
  for (let n = 0; n < most && !p.over; n += 1) {
    const offers = offersIn(p.played.panels);
    const one = offers[Math.floor(random() * offers.length)];
    if (!one) break;
    p.act(one.act.do, one.act.on);
  }
  return p;
}
