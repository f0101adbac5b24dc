import type { PracticeAct } from '../../model/practice';
import { pick, whole, type Random } from '../draw';
import type { Exercise } from '../play';
import { said } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

/** Kinds of drives by how they are cleared for good (NIST SP 800-88 Rev. 1, Appendix A: tables ). */
const WAYS = { turning: 'write over all of it', flash: 'its own erase command' } as const;
type Kind = keyof typeof WAYS;
const METHODS = ['delete the files', 'write over all of it', 'its own erase command'] as const;

/** An old server that is to be given away: only after what it held was seen on the new one. */
class OldServer implements Scene {
  private readonly kind: Kind;
  private readonly records: number;
  /** The first backup stopped early. */
  private readonly short: boolean;
  private readonly swollen: boolean;
  private backups = 0;
  private restored: number | null = null;
  private counted = false;
  private switched = false;
  private erased: string | null = null;
  private readBack = false;
  private opened = false;
  private cellOut = false;

  constructor(random: Random) {
    this.kind = pick(random, ['turning', 'flash'] as const);
    this.records = whole(random, 2000, 9000);
    this.short = pick(random, [true, false]);
    this.swollen = pick(random, [true, false]);
  }

  private backedUp(): number {
    if (this.backups === 0) return 0;
    return this.short && this.backups === 1 ? Math.floor(this.records * 0.8) : this.records;
  }

  panels(): Panel[] {
    const row = (id: string, state: Row['cells'][number], offers: Row['offers']): Row => ({
      id,
      cells: [said(`thing ${id}`), state],
      offers,
    });
    const erase = METHODS.map((m) => offer('erase by', m, { method: m }));
    return [
      {
        kind: 'table',
        title: said('moving house'),
        heads: ['thing', 'state'].map((h) => said(`head ${h}`)),
        rows: [
          row(
            'old server',
            this.switched ? said('off duty') : said('on duty', { count: this.records }),
            this.switched || this.restored === null ? [] : [offer('switch over')],
          ),
          row('backup', this.backups === 0 ? '–' : said('backup made', { count: this.backups }), [
            ...(this.erased === null ? [offer('back up')] : []),
            ...(this.backups > 0 ? [offer('restore')] : []),
          ]),
          row(
            'new server',
            this.restored === null
              ? said('empty')
              : this.counted
                ? said('records', { count: this.restored })
                : said('restored'),
            this.restored === null ? [] : [offer('count')],
          ),
          row(
            'old drive',
            this.erased === null ? said(`drive ${this.kind}`) : said('erased so', { method: this.erased }),
            [...erase, ...(this.erased === null ? [] : [offer('read places')])],
          ),
          row(
            'old case',
            !this.opened
              ? said('closed')
              : this.swollen && !this.cellOut
                ? said('cell swollen')
                : said('nothing in it'),
            [
              ...(this.opened ? [] : [offer('open it')]),
              ...(this.opened && this.swollen && !this.cellOut
                ? [offer('cell to collection'), offer('press it flat')]
                : []),
            ],
          ),
        ],
        offers: [offer('give away')],
      },
      { kind: 'paper', title: said('paper'), lines: [said('paper moving'), said('paper whose')] },
    ];
  }

  private loseRecords(code: string, tale: Tale): void {
    tale.lose(code, { count: this.records }, said('records of the club', { count: this.records }));
  }

  take(act: PracticeAct, tale: Tale): void {
    tale.takes(5);
    switch (act.do) {
      case 'back up':
        this.backups += 1;
        tale.tell('backup says done');
        return;
      case 'restore':
        this.restored = this.backedUp();
        this.counted = false;
        tale.takes(10);
        tale.tell('restore says done');
        return;
      case 'count':
        this.counted = true;
        tale.tell(this.restored === this.records ? 'counts agree' : 'counts differ', {
          old: this.records,
          new: this.restored ?? 0,
        });
        return;
      case 'switch over':
        this.switched = true;
        if (!this.counted) tale.fault('switched uncounted');
        return;
      case 'open it':
        this.opened = true;
        return;
      case 'cell to collection':
        this.cellOut = true;
        tale.tell('cell is out', {}, 'good');
        return;
      case 'press it flat':
        return tale.lose('pressed a cell', {}, said('a room on fire'));
      case 'read places':
        this.readBack = true;
        if (this.erased !== null && this.erased !== WAYS[this.kind]) tale.tell('still there');
        else tale.tell('nothing there', {}, 'good');
        return;
      case 'erase by':
        return this.erase(act.on ?? '', tale);
    }
    this.giveAway(tale);
  }

  private erase(method: string, tale: Tale): void {
    this.erased = method;
    this.readBack = false;
    tale.takes(30);
    tale.tell('erased', { method });
    if (this.restored !== this.records) return this.loseRecords('erased too early', tale);
    if (!this.switched) tale.fault('erased on duty');
  }

  private giveAway(tale: Tale): void {
    if (this.erased === null) {
      // With it goes whatever is not yet on the new one.
      if (this.restored !== this.records) return this.loseRecords('gave it away too early', tale);
      return tale.lose('gave it away full', { count: this.records }, said('names and dues of others'));
    }
    if (this.erased !== WAYS[this.kind])
      return tale.lose('gave it away readable', { method: this.erased }, said('names and dues of others'));
    if (!this.readBack) tale.slip('places not read');
    if (!this.opened) tale.slip('case not opened');
    if (this.opened && this.swollen && !this.cellOut) tale.fault('gave a swollen cell');
    tale.reach('given away');
  }

  hint() {
    if (this.backups === 0) return said('hint back up');
    if (this.restored === null) return said('hint restore');
    if (!this.counted) return said('hint count');
    if (this.restored !== this.records) return said('hint again');
    if (!this.switched) return said('hint switch');
    if (this.erased !== WAYS[this.kind]) return said('hint erase by', { method: WAYS[this.kind] });
    if (!this.readBack) return said('hint read places');
    if (!this.opened) return said('hint open');
    return said(this.swollen && !this.cellOut ? 'hint cell' : 'hint give');
  }
}

export const oldServer: Exercise = {
  id: 'the-old-server',
  stop: 'keep',
  begin: (random) => new OldServer(random),
};
