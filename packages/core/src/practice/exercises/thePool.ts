import type { PracticeAct } from '../../model/practice';
import { poolDriveSchema, type PoolWay } from '../../model/storage';
import { rowsOf } from '../../storage/placed';
import { survivalOf } from '../../storage/survives';
import { pick, serials, shuffled, whole, type Random } from '../draw';
import type { Exercise } from '../play';
import { said } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

type Health = 'well' | 'failed' | 'weak' | 'gone';
interface Bay {
  bay: string;
  serial: string;
  health: Health;
}

const BAYS = ['1', '2', '3', '4'];
/** Beats that making good takes, and minutes of each. */
const BEATS = 3;
const BEAT_MINUTES = 90;

/** A pool of four that has lost one: the right one is changed, and nothing else is touched meanwhile. */
class ThePool implements Scene {
  private readonly bays: Bay[];
  private readonly bytes: number;
  /** Drives that may be missing at once, by the same count as the Load stop has. */
  private readonly bears: number;
  private readonly spare: string;
  private readonly weak: boolean;
  private readonly looked = new Set<string>();
  private read = false;
  private copied = false;
  private beat: number | null = null;
  private made = false;
  private checked = false;

  constructor(random: Random) {
    const codes = serials(random, 5);
    this.bytes = pick(random, [2000e9, 4000e9, 8000e9]);
    const failed = whole(random, 0, 3);
    this.weak = pick(random, [true, false]);
    const second = pick(
      random,
      [0, 1, 2, 3].filter((i) => i !== failed),
    );
    const state = (i: number): Health =>
      i === failed ? 'failed' : this.weak && i === second ? 'weak' : 'well';
    this.bays = BAYS.map((bay, i) => ({ bay, serial: codes[i] ?? '', health: state(i) }));
    this.spare = codes[4] ?? '';
    const way: PoolWay = { manner: 'padded', shape: 'parity', level: 1, spare: false };
    const drives = BAYS.map((b) => poolDriveSchema.parse({ id: b, name: b, bytes: this.bytes }));
    this.bears = survivalOf({ way, rows: rowsOf(way, drives), spare: null, left: [] }).any;
    // The list of the pool has its own order, which is not that of the bays.
    this.listed = shuffled(
      random,
      this.bays.map((b) => b.serial),
    );
  }
  private readonly listed: string[];

  private missing(): number {
    return this.bays.filter((b) => b.health === 'failed' || b.health === 'gone').length;
  }

  panels(): Panel[] {
    const bySerial = (serial: string): Row => {
      const b = this.bays.find((x) => x.serial === serial);
      const health = b?.health ?? 'gone';
      return {
        id: serial,
        cells: [serial, said(`health ${health}`)],
        mark: health === 'well' ? 'yes' : health === 'weak' ? 'ask' : 'stop',
        offers: [],
      };
    };
    const under = this.beat !== null;
    return [
      {
        kind: 'table',
        title: said('pool'),
        heads: ['serial', 'health'].map((h) => said(`head ${h}`)),
        rows: this.read ? this.listed.map(bySerial) : [],
        offers: [
          ...(this.read ? [] : [offer('read the pool')]),
          ...(this.copied || this.made ? [] : [offer('copy away')]),
          ...(under ? [offer('wait'), offer('copy films')] : []),
          ...(this.made && !this.checked ? [offer('read it all')] : []),
          ...(this.made ? [offer('call it well')] : []),
        ],
      },
      {
        kind: 'table',
        title: said('bays'),
        heads: ['bay', 'sticker', 'state'].map((h) => said(`head ${h}`)),
        rows: this.bays.map((b): Row => {
          const values = { bay: b.bay };
          return {
            id: b.bay,
            cells: [
              said('bay', values),
              this.looked.has(b.bay) ? b.serial : said('not looked at'),
              said(
                b.health === 'gone'
                  ? 'empty'
                  : under && b.serial === this.spare
                    ? 'being filled'
                    : 'in its bay',
              ),
            ],
            offers: [
              ...(this.looked.has(b.bay) || b.health === 'gone' ? [] : [offer('look', b.bay, values)]),
              ...(b.health === 'gone'
                ? [offer('put the new one', b.bay, values)]
                : [offer('pull', b.bay, values)]),
            ],
          };
        }),
        offers: [],
      },
      {
        kind: 'paper',
        title: said('paper'),
        lines: [
          said('paper pool', { bytes: this.bytes, bears: this.bears }),
          said('paper new', { serial: this.spare }),
        ],
      },
      {
        kind: 'drives',
        title: said('bays'),
        drives: this.bays.map((b) => ({
          id: b.bay,
          name: b.bay,
          bytes: this.bytes,
          // Which bay it is, the serials tell: a drawing that told it would do the exercise.
          pattern:
            b.health === 'gone' || (b.health === 'failed' && this.read && this.looked.has(b.bay))
              ? 'erased'
              : b.serial === this.spare
                ? 'new'
                : 'kept',
          holds: said(b.health === 'gone' ? 'empty' : 'a share of the pool'),
        })),
      },
    ];
  }

  private lost(code: string, bay: string, tale: Tale): void {
    tale.lose(code, { bay }, said('the whole pool'), this.bytes * (BAYS.length - 1));
  }

  private pull(bay: Bay, tale: Tale): void {
    const was = bay.health;
    const serial = bay.serial;
    bay.health = 'gone';
    tale.takes(2);
    if (this.missing() > this.bears) return this.lost('one too many', bay.bay, tale);
    if (was === 'well' || was === 'weak') tale.fault('a good one out', { bay: bay.bay });
    else if (!this.looked.has(bay.bay) || !this.read) tale.fault('pulled unseen', { bay: bay.bay });
    tale.tell('pulled', { bay: bay.bay, serial });
    if (this.beat !== null) this.beat = null;
  }

  take(act: PracticeAct, tale: Tale): void {
    const bay = this.bays.find((b) => b.bay === act.on);
    switch (act.do) {
      case 'read the pool':
        this.read = true;
        tale.takes(1);
        tale.tell(this.weak ? 'a second one is weak' : 'one has failed');
        return;
      case 'copy away':
        this.copied = true;
        tale.takes(60);
        tale.tell('copied away', {}, 'good');
        return;
      case 'look':
        if (bay) this.looked.add(bay.bay);
        tale.takes(1);
        return;
      case 'pull':
        if (bay) this.pull(bay, tale);
        return;
      case 'put the new one':
        if (!bay) return;
        bay.serial = this.spare;
        bay.health = 'well';
        this.beat = 0;
        this.listed.splice(0, this.listed.length, ...this.bays.map((b) => b.serial));
        tale.tell('making good', { bay: bay.bay });
        return;
      case 'copy films':
        tale.fault('worked it meanwhile');
        return this.goOn(tale, true);
      case 'wait':
        return this.goOn(tale, false);
      case 'read it all':
        this.checked = true;
        tale.takes(120);
        tale.tell('all read', {}, 'good');
        return;
    }
    if (!this.checked) tale.fault('not read through');
    tale.reach('pool is whole');
  }

  /** A stretch of making good; what is weak does not always last through it when it is worked. */
  private goOn(tale: Tale, worked: boolean): void {
    tale.takes(BEAT_MINUTES * (worked ? 2 : 1));
    const weak = this.bays.find((b) => b.health === 'weak');
    if (worked && weak) {
      weak.health = 'failed';
      if (this.copied)
        tale.fault('weak one failed', { bay: weak.bay }, { what: said('the whole pool'), bytes: null });
      this.lost('second one failed', weak.bay, tale);
      return;
    }
    this.beat = (this.beat ?? 0) + 1;
    if (this.beat < BEATS) return;
    this.beat = null;
    this.made = true;
    tale.tell('made good', {}, 'good');
    if (this.weak && !this.copied) tale.fault('nothing copied away');
  }

  hint() {
    if (!this.read) return said('hint read pool');
    if (this.made) return said(this.checked ? 'hint well' : 'hint read all');
    if (this.beat !== null) return said('hint leave it');
    if (this.weak && !this.copied) return said('hint copy');
    const gone = this.bays.find((b) => b.health === 'gone');
    if (gone) return said('hint put', { bay: gone.bay });
    const failed = this.bays.find((b) => b.health === 'failed');
    return said(failed && this.looked.has(failed.bay) ? 'hint pull' : 'hint look', {
      serial: failed?.serial ?? '',
    });
  }
}

export const thePool: Exercise = { id: 'one-of-four', stop: 'load', begin: (random) => new ThePool(random) };
