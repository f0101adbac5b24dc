import type { PracticeAct } from '../../model/practice';
import { pick, shuffled, type Random } from '../draw';
import type { Exercise } from '../play';
import { said, type Said } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

/** What there is to pack, and when it is needed: by what the machine, the image and the place are. Common practice, no source. */
const THINGS = [
  'stick 4 GB',
  'stick 16 GB',
  'drive 2230',
  'drive 2280',
  'dock with power',
  'plain adapter',
  'keyboard on a wire',
  'keyboard by radio',
  'cable for the picture',
  'old cable for the picture',
  'network wire',
  'drivers on a second stick',
  'small screwdriver',
  'second monitor',
] as const;
type Thing = (typeof THINGS)[number];

interface Job {
  length: '2230' | '2280';
  oneSocket: boolean;
  picture: 'new' | 'old';
  /** The image carries the driver for the radio of this machine. */
  carries: boolean;
  wireThere: boolean;
}

/** A tray packed at home for a hall where nothing can be fetched. */
class TheTray implements Scene {
  private readonly job: Job;
  private readonly order: Thing[];
  private readonly packed = new Set<Thing>();
  private asked = false;

  constructor(random: Random) {
    this.job = {
      length: pick(random, ['2230', '2280'] as const),
      oneSocket: pick(random, [true, false]),
      picture: pick(random, ['new', 'old'] as const),
      carries: pick(random, [true, false]),
      wireThere: pick(random, [true, false]),
    };
    this.order = shuffled(random, THINGS);
  }

  /** What the evening cannot do without. */
  private needed(): Thing[] {
    const { length, oneSocket, picture, carries, wireThere } = this.job;
    return [
      'stick 16 GB',
      length === '2230' ? 'drive 2230' : 'drive 2280',
      'small screwdriver',
      'keyboard on a wire',
      picture === 'new' ? 'cable for the picture' : 'old cable for the picture',
      ...(oneSocket ? (['dock with power'] as const) : []),
      ...(wireThere ? (['network wire'] as const) : []),
      ...(!carries ? (['drivers on a second stick'] as const) : []),
    ];
  }

  panels(): Panel[] {
    const { length, oneSocket, picture, carries, wireThere } = this.job;
    const lines: Said[] = this.asked
      ? [
          said(`slot ${length}`),
          said(oneSocket ? 'one socket' : 'four sockets'),
          said(picture === 'new' ? 'picture new' : 'picture old'),
          said(carries ? 'radio carried' : 'radio not carried'),
          said(wireThere ? 'wire there' : 'no wire there'),
          said('image large'),
          said('keys at power-on'),
        ]
      : [said('ask first')];
    return [
      {
        kind: 'table',
        title: said('tray'),
        heads: ['thing', 'where'].map((h) => said(`head ${h}`)),
        rows: this.order.map((t): Row => {
          const there = this.packed.has(t);
          return {
            id: t,
            cells: [said(t), said(there ? 'in the tray' : 'on the shelf')],
            here: there,
            offers: [offer(there ? 'unpack' : 'pack', t, { thing: t })],
          };
        }),
        offers: [...(this.asked ? [] : [offer('read the job')]), offer('set out')],
      },
      { kind: 'paper', title: said('paper'), lines },
    ];
  }

  take(act: PracticeAct, tale: Tale): void {
    const thing = THINGS.find((t) => t === act.on);
    switch (act.do) {
      case 'read the job':
        this.asked = true;
        tale.takes(3);
        return;
      case 'pack':
        if (thing) this.packed.add(thing);
        return;
      case 'unpack':
        if (thing) this.packed.delete(thing);
        return;
    }
    const needed = this.needed();
    const missing = needed.filter((t) => !this.packed.has(t));
    const idle = [...this.packed].filter((t) => !needed.includes(t));
    for (const t of idle) tale.slip('carried for nothing', { thing: t });
    tale.takes(40);
    const [first] = missing;
    if (first === undefined) return tale.reach('all there', { count: needed.length });
    for (const t of missing.slice(1)) tale.fault('missing as well', { thing: t });
    tale.lose('missing', { thing: first }, said('an evening'));
  }

  hint() {
    if (!this.asked) return said('hint job');
    const next = this.needed().find((t) => !this.packed.has(t));
    return next === undefined ? said('hint set out') : said('hint pack', { thing: next });
  }
}

export const theTray: Exercise = { id: 'the-tray', stop: 'gather', begin: (random) => new TheTray(random) };
