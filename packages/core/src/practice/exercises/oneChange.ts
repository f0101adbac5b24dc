import type { PracticeAct } from '../../model/practice';
import { judgeTogether, type JudgedRun, type Outcome } from '../../tune/compare';
import { mean } from '../../tune/numbers/describe';
import { normalFrom } from '../../tune/numbers/dice';
import { pick, type Random } from '../draw';
import type { Exercise } from '../play';
import { said, type Said } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

const SETTINGS = ['power limit', 'fan', 'paste'] as const;
type Setting = (typeof SETTINGS)[number];
/** A degree that matters, and how runs of the made-up machine vary, both in °C. */
const MATTERS = 2;
const VARIES = 0.7;
/** Degrees an evening adds with every run, as the room grows warmer. */
const DRIFT = 0.15;
const RUN_MINUTES = 6;
/** Runs that a case takes; then the evening is over. */
const MOST = 40;

/** A box that runs hot, and one change that helps or does not: found out by runs that are mixed. */
class OneChange implements Scene {
  private readonly wanted: Setting;
  private readonly effects: Record<Setting, number>;
  private readonly normal: () => number;
  private readonly on = new Set<Setting>();
  private said: { after: number; outcome: Outcome } | null = null;
  private readonly runs: { changed: Setting[]; degrees: number }[] = [];

  constructor(random: Random) {
    this.wanted = pick(random, SETTINGS);
    const helps = pick(random, [true, false]);
    this.effects = { 'power limit': -6, fan: -3, paste: -2 };
    this.effects[this.wanted] = helps ? pick(random, [-5, -6, -7]) : 0;
    this.normal = normalFrom(random);
  }

  /** What can be said of the change by the runs so far; worked out once for each of them. */
  private outcome(): Outcome {
    if (this.said?.after !== this.runs.length) this.said = { after: this.runs.length, outcome: this.judge() };
    return this.said.outcome;
  }

  private judge(): Outcome {
    if (this.runs.length < 2) return 'cannot say';
    const rows = this.runs.flatMap(({ changed, degrees }, at): JudgedRun[] =>
      changed.length === 0 || (changed.length === 1 && changed[0] === this.wanted)
        ? [{ arm: changed.length === 0 ? 'as it was' : 'changed', at, values: [degrees] }]
        : [],
    );
    const judged = judgeTogether(rows, 'as it was', [{ better: 'less', matters: MATTERS, usual: VARIES }]);
    return judged[0]?.judged.outcome ?? 'cannot say';
  }

  panels(): Panel[] {
    const outcome = this.outcome();
    const of = (changed: boolean): number[] =>
      this.runs
        .filter((r) => (changed ? r.changed.join() === this.wanted : r.changed.length === 0))
        .map((r) => r.degrees);
    const [before, after] = [of(false), of(true)];
    const middle = (v: number[]): Said =>
      v.length === 0 ? said('no run') : said('degrees', { value: mean(v).toFixed(1) });
    return [
      {
        kind: 'table',
        title: said('settings'),
        heads: ['setting', 'state'].map((h) => said(`head ${h}`)),
        rows: SETTINGS.map((s): Row => ({
          id: s,
          cells: [said(s), said(this.on.has(s) ? 'changed' : 'as it was')],
          here: s === this.wanted,
          offers: [offer(this.on.has(s) ? 'set back' : 'change', s, { setting: s })],
        })),
        offers: this.runs.length < MOST ? [offer('measure')] : [],
      },
      {
        kind: 'table',
        title: said('compared'),
        heads: ['state', 'runs', 'mean'].map((h) => said(`head ${h}`)),
        rows: [
          { id: 'before', cells: [said('as it was'), String(before.length), middle(before)], offers: [] },
          { id: 'after', cells: [said('changed'), String(after.length), middle(after)], offers: [] },
          { id: 'says', cells: [said('can be said'), '', said(outcome)], offers: [] },
        ],
        offers: [offer('say it helps'), offer('say it does nothing')],
      },
      {
        kind: 'table',
        title: said('runs'),
        heads: ['run', 'state', 'reading'].map((h) => said(`head ${h}`)),
        rows: this.runs
          .map((r, i): Row => ({
            id: String(i),
            cells: [
              String(i + 1),
              r.changed.length === 0
                ? said('as it was')
                : said('changed are', { settings: r.changed.join(', ') }),
              said('degrees', { value: r.degrees.toFixed(1) }),
            ],
            offers: [],
          }))
          .reverse(),
        offers: [],
      },
      {
        kind: 'paper',
        title: said('paper'),
        lines: [said('paper question', { setting: this.wanted }), said('paper matters', { value: MATTERS })],
      },
    ];
  }

  take(act: PracticeAct, tale: Tale): void {
    const setting = SETTINGS.find((s) => s === act.on);
    switch (act.do) {
      case 'change':
        if (setting) this.on.add(setting);
        tale.takes(2);
        return;
      case 'set back':
        if (setting) this.on.delete(setting);
        tale.takes(2);
        return;
      case 'measure':
        return this.measure(tale);
    }
    this.claim(act.do === 'say it helps', tale);
  }

  private measure(tale: Tale): void {
    tale.takes(RUN_MINUTES);
    const changed = SETTINGS.filter((s) => this.on.has(s));
    const degrees =
      84 +
      changed.reduce((s, c) => s + this.effects[c], 0) +
      DRIFT * this.runs.length +
      VARIES * this.normal();
    this.runs.push({ changed, degrees });
    const foreign = changed.filter((c) => c !== this.wanted);
    if (foreign.length > 0) tale.fault('two at once', { settings: changed.join(', ') });
  }

  private claim(helps: boolean, tale: Tale): void {
    const does = this.effects[this.wanted] < 0;
    const outcome = this.outcome();
    const shown = helps
      ? outcome === 'better'
      : outcome === 'no difference' || outcome === 'no difference seen';
    if (helps !== does) {
      // Nobody is to blame for what chance shows once in twenty times.
      if (shown) return tale.reach('fooled by chance', { setting: this.wanted });
      return tale.lose(
        helps ? 'kept for nothing' : 'thrown away',
        { setting: this.wanted },
        said('years with a wrong setting'),
      );
    }
    if (!shown) tale.fault('said too early', { count: this.runs.length });
    tale.reach('said and sure', { setting: this.wanted });
  }

  hint() {
    const count = (changed: boolean): number =>
      this.runs.filter((r) => r.changed.length > 0 === changed).length;
    if (this.outcomeKnown()) return said('hint say');
    const [plain, changed] = [count(false), count(true)];
    return said(changed > plain ? 'hint set back' : 'hint change', { setting: this.wanted });
  }

  private outcomeKnown(): boolean {
    return this.runs.length >= 10 && this.outcome() !== 'cannot say';
  }
}

export const oneChange: Exercise = {
  id: 'one-change',
  stop: 'tune',
  begin: (random) => new OneChange(random),
};
