import type { PracticeAct } from '../../model/practice';
import { plainStore } from '../../model/blank';
import type { Store } from '../../model/shelf';
import { guardTargets } from '../../write/guard';
import { pick, serials, shuffled, type Random } from '../draw';
import type { Exercise } from '../play';
import { said } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

const IMAGE = 5.2e9;
const KEPT = ['Slides 1962–1989', 'Recordings of the choir', 'Members and dues'];

interface Plugged {
  id: string;
  port: string;
  bytes: number;
  real: number;
  serial: string;
  model: string;
  tape: 'blue' | 'none';
  holds: string;
}

/** A writer with four things plugged in: one is full of what matters and looks like one that is meant, one lies about its size. */
class WhichStick implements Scene {
  private readonly plugged: Plugged[];
  private readonly kept: Plugged;
  private readonly looked = new Set<string>();
  private written: Plugged | null = null;
  private readBack = false;
  private readonly lying = new Set<string>();

  constructor(random: Random) {
    const codes = serials(random, 4);
    const bytes = pick(random, [16e9, 32e9, 64e9]);
    const model = pick(random, ['Small Stick', 'Pocket Flash']);
    const stick = (i: number, rest: Partial<Plugged>): Plugged => ({
      id: `port-${i + 1}`,
      port: '',
      bytes,
      real: bytes,
      serial: codes[i] ?? '',
      model,
      tape: 'none',
      holds: '',
      ...rest,
    });
    this.kept = stick(0, { holds: pick(random, KEPT) });
    this.plugged = shuffled(random, [
      this.kept,
      stick(1, { tape: 'blue' }),
      stick(2, { tape: 'blue', real: 4e9, bytes: bytes * 2, model: 'Large And Cheap' }),
      stick(3, { bytes: 2000e9, real: 2000e9, model: 'Round Platter', holds: 'Copies of the archive' }),
    ]).map((p, i) => ({ ...p, port: `port ${i + 1}` }));
  }

  private shelf(): Store[] {
    return this.plugged.map((p) => ({
      ...plainStore,
      kind: p.bytes > 1e12 ? 'drive' : 'stick',
      id: p.id,
      name: p.model,
      bytes: p.bytes,
      realBytes: this.lying.has(p.id) ? p.real : null,
      serial: p.serial,
      model: p.model,
      label: '',
      holds: p.holds,
      transport: 'usb',
      removable: true,
      rotational: null,
      in: null,
      // What a label was not read of has no record yet: nobody knows what it holds.
      fate: this.looked.has(p.id) ? (p.holds === '' ? 'may be lost' : 'keep') : 'may be lost',
      notes: '',
    }));
  }

  panels(): Panel[] {
    const judged = guardTargets(this.plugged, this.shelf(), IMAGE);
    return [
      {
        kind: 'table',
        title: said('plugged in'),
        heads: ['port', 'size', 'model', 'serial', 'label'].map((h) => said(`head ${h}`)),
        rows: this.plugged.map((p): Row => {
          const guarded = judged.find((g) => g.target.id === p.id);
          const seen = this.looked.has(p.id);
          const values = { name: p.port };
          return {
            id: p.id,
            cells: [
              p.port,
              said('bytes', { bytes: p.bytes }),
              p.model,
              p.serial,
              seen ? said(p.tape === 'blue' ? 'blue tape' : 'label says', { holds: p.holds }) : '–',
            ],
            ...(seen ? { mark: guarded?.allowed ? ('yes' as const) : ('stop' as const) } : {}),
            offers: [...(seen ? [] : [offer('read label', p.id, values)]), offer('write to', p.id, values)],
          };
        }),
        offers: this.written ? [...(this.readBack ? [] : [offer('read back')]), offer('hand it on')] : [],
      },
      {
        kind: 'paper',
        title: said('paper'),
        lines: [said('paper blue'), said('paper image', { bytes: IMAGE })],
      },
      {
        kind: 'drives',
        title: said('plugged in'),
        drives: this.plugged.map((p) => ({
          id: p.id,
          name: p.port,
          bytes: p.bytes,
          pattern: this.written === p ? 'new' : !this.looked.has(p.id) || p.holds !== '' ? 'kept' : 'free',
          holds:
            this.written === p ? said('the image') : this.looked.has(p.id) ? p.holds : said('not looked at'),
        })),
      },
    ];
  }

  take(act: PracticeAct, tale: Tale): void {
    const p = this.plugged.find((x) => x.id === act.on);
    switch (act.do) {
      case 'read label':
        if (p) this.looked.add(p.id);
        tale.takes(1);
        return;
      case 'read back':
        return this.compare(tale);
      case 'hand it on':
        return this.handOn(tale);
    }
    if (!p) return;
    tale.takes(5);
    if (p.holds !== '')
      return tale.lose(
        'erased',
        { name: p.port, holds: p.holds },
        said('what it held', { name: p.port, holds: p.holds }),
        p.bytes,
      );
    if (!this.looked.has(p.id)) tale.fault('written unread', { name: p.port });
    this.written = p;
    this.readBack = false;
    tale.tell('written', { name: p.port });
  }

  private compare(tale: Tale): void {
    if (!this.written) return;
    tale.takes(4);
    const whole = this.written.real >= IMAGE;
    this.readBack = true;
    if (whole) tale.tell('same bytes', { name: this.written.port }, 'good');
    else {
      this.lying.add(this.written.id);
      tale.tell('other bytes', { name: this.written.port, bytes: this.written.real });
      this.written = null;
    }
  }

  private handOn(tale: Tale): void {
    if (!this.written) return;
    if (this.written.real < IMAGE)
      return tale.lose('handed on a liar', { name: this.written.port }, said('an evening'));
    if (!this.readBack) tale.fault('not read back', { name: this.written.port });
    tale.reach('stick stands', { name: this.written.port });
  }

  hint() {
    const unread = this.plugged.find((p) => !this.looked.has(p.id));
    if (this.written) return said(this.readBack ? 'hint hand on' : 'hint read back');
    return unread ? said('hint label', { name: unread.port }) : said('hint blue');
  }
}

export const whichStick: Exercise = {
  id: 'which-stick',
  stop: 'write',
  begin: (random) => new WhichStick(random),
};
