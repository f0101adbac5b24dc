import type { PracticeAct } from '../../model/practice';
import { pick, serials, shuffled, type Random } from '../draw';
import type { Exercise } from '../play';
import { said } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

const TRAYS = ['A', 'B', 'C', 'D'];
const KEPT = ['SLIDES', 'CHOIR', 'TIDEBOOK', 'MEMBERS'];

interface Drive {
  tray: string;
  serial: string;
  bytes: number;
  label: string;
}

/** Drives that look alike: the one with the scans is found by its serial, for a report names them as they answered. */
class WhichDrive implements Scene {
  private readonly drives: Drive[];
  private readonly wanted: Drive;
  private on = true;
  private report: Drive[] | null = null;
  private readonly looked = new Set<string>();
  private readonly flagged = new Set<string>();

  constructor(private readonly random: Random) {
    const bytes = pick(random, [1000e9, 2000e9, 4000e9]);
    const codes = serials(random, TRAYS.length);
    const labels = shuffled(random, [pick(random, KEPT), 'DATA', 'DATA', 'OLD']);
    this.drives = TRAYS.map((tray, i) => ({
      tray,
      serial: codes[i] ?? '',
      bytes: i === 3 ? 500e9 : bytes,
      label: labels[i] ?? 'DATA',
    }));
    const wanted = this.drives.find((d) => KEPT.includes(d.label));
    this.wanted = wanted ?? pick(random, this.drives);
  }

  panels(): Panel[] {
    const named = this.report?.map((d, i): Row => ({
      id: d.serial,
      cells: [said('name', { n: i + 1 }), said('bytes', { bytes: d.bytes }), d.label, d.serial],
      offers: [],
    }));
    return [
      {
        kind: 'table',
        title: said(this.on ? 'report of now' : 'report of before'),
        heads: ['name', 'size', 'label', 'serial'].map((h) => said(`head ${h}`)),
        rows: named ?? [],
        offers: this.on ? [offer('report'), offer('start anew'), offer('shut down')] : [offer('power')],
      },
      {
        kind: 'table',
        title: said('trays'),
        heads: ['tray', 'sticker', 'flag'].map((h) => said(`head ${h}`)),
        rows: this.drives.map((d): Row => ({
          id: d.tray,
          cells: [
            said('tray', { tray: d.tray }),
            this.looked.has(d.tray) ? d.serial : said('not looked at'),
            this.flagged.has(d.tray) ? said('red flag') : '–',
          ],
          offers: [
            ...(this.looked.has(d.tray) ? [] : [offer('look', d.tray, { name: d.tray })]),
            offer('flag', d.tray, { name: d.tray }),
          ],
        })),
        offers: [],
      },
      { kind: 'paper', title: said('paper'), lines: [said('paper wanted', { label: this.wanted.label })] },
    ];
  }

  take(act: PracticeAct, tale: Tale): void {
    switch (act.do) {
      case 'report':
        this.report ??= shuffled(this.random, this.drives);
        tale.takes(2);
        tale.tell('read out');
        return;
      case 'start anew':
        this.report = shuffled(this.random, this.drives);
        tale.takes(3);
        tale.tell('names moved');
        return;
      case 'shut down':
        this.on = false;
        return;
      case 'power':
        this.on = true;
        tale.takes(2);
        return;
      case 'look':
        if (this.on) tale.fault('hands in a live machine', { name: act.on ?? '' });
        this.looked.add(act.on ?? '');
        tale.takes(2);
        return;
    }
    this.flag(act.on ?? '', tale);
  }

  private flag(tray: string, tale: Tale): void {
    const right = tray === this.wanted.tray;
    this.flagged.clear();
    this.flagged.add(tray);
    if (!right) {
      const { label, bytes } = this.wanted;
      tale.lose(
        'flagged another',
        { tray, label },
        said('what it held', { name: this.wanted.tray, holds: label }),
        bytes,
      );
      return;
    }
    if (!this.looked.has(tray) || this.report === null) tale.fault('flagged unseen', { tray });
    tale.reach('flagged', { tray });
  }

  hint() {
    if (this.report === null) return said(this.on ? 'hint report' : 'hint power on');
    if (this.on) return said('hint shut down first');
    const next = this.drives.find((d) => !this.looked.has(d.tray));
    return this.looked.has(this.wanted.tray)
      ? said('hint flag', { serial: this.wanted.serial })
      : said('hint look', { tray: next?.tray ?? '' });
  }
}

export const whichDrive: Exercise = {
  id: 'which-drive',
  stop: 'survey',
  begin: (random) => new WhichDrive(random),
};
