import type { GatePlan, Permit } from '../../model/gate';
import { networkSchema } from '../../model/network';
import type { PracticeAct } from '../../model/practice';
import { blankPermit } from '../../rules/permits';
import { judgePlan, type Kept } from '../../rules/promises';
import { usualPlan } from '../../rules/usual';
import { pick, whole, type Random } from '../draw';
import type { Exercise } from '../play';
import { said, type Said } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

const ARCHIVE = 'archive';
const READING = 'reading';
type Wide = 'every port' | 'every host' | 'both';

/** A gate whose guests were let in too wide: one page of one host is what they are meant to reach. */
class TheGate implements Scene {
  private plan: GatePlan;
  private tried: { kept: Kept[]; shut: boolean } | null = null;
  private readonly networks;

  constructor(random: Random) {
    const third = whole(random, 10, 90);
    this.networks = [
      networkSchema.parse({
        id: 'hall',
        name: 'hall',
        prefix: `10.30.${third}.0/24`,
        gateway: `10.30.${third}.1`,
      }),
      networkSchema.parse({
        id: 'guests',
        name: 'guests',
        prefix: `10.30.${third + 100}.0/24`,
        gateway: `10.30.${third + 100}.1`,
      }),
    ];
    const usual = usualPlan(this.networks, ['eth0', 'eth1', 'eth2'], [8443, 22]);
    const wide: Wide = pick(random, ['every port', 'every host', 'both'] as const);
    const page = { protocol: 'tcp' as const, ports: [8080, 8080] as [number, number], types: [] };
    this.plan = {
      ...usual,
      addresses: [{ id: ARCHIVE, name: ARCHIVE, entries: [`10.30.${third}.${whole(random, 20, 60)}`] }],
      services: [...usual.services, { id: READING, name: READING, entries: [page] }],
      permits: [
        ...usual.permits,
        {
          ...blankPermit(READING, 'guests', 'hall'),
          name: 'reading room',
          to: { zone: 'hall', addresses: wide === 'every port' ? [ARCHIVE] : [] },
          services: wide === 'every host' ? [READING] : [],
        },
      ],
      promises: [
        ...usual.promises.map((p) =>
          p.id === 'apart-guests' && p.kind === 'closed'
            ? { ...p, but: [{ addresses: [ARCHIVE], services: [READING] }] }
            : p,
        ),
        {
          id: 'guests-read',
          on: true,
          kind: 'reaches',
          from: { zone: 'guests', addresses: [] },
          to: { zone: 'hall', addresses: [ARCHIVE] },
          services: [READING],
          family: 4,
        },
      ],
    };
  }

  private permit(): Permit {
    const found = this.plan.permits.find((p) => p.id === READING);
    if (!found) throw new RangeError('the permit is there from the beginning');
    return found;
  }

  panels(): Panel[] {
    const { plan } = this;
    const name = (id: string): string => plan.zones.find((z) => z.id === id)?.name ?? id;
    const open = this.permit();
    const of = (p: Permit): Row => {
      const own = p.id === READING;
      const seat = p.to.zone === 'gate' && p.from.zone === 'hall';
      return {
        id: p.id,
        cells: [
          name(p.from.zone),
          p.to.zone === 'gate' ? said('the gate') : name(p.to.zone),
          p.to.addresses.length === 0 ? said('any host') : p.to.addresses.join(', '),
          p.services.length === 0 ? said('any port') : p.services.join(', '),
          said(p.on ? 'let in' : 'switched off'),
        ],
        here: own,
        offers: [
          ...(own && open.services.length === 0 ? [offer('only port', READING)] : []),
          ...(own && open.to.addresses.length === 0 ? [offer('only host', READING)] : []),
          ...(own || seat ? [offer(p.on ? 'switch off' : 'switch on', p.id, { name: p.name })] : []),
        ],
      };
    };
    const verdict = (k: Kept): Row => ({
      id: k.promise.id,
      cells: [said(`promise ${k.promise.id}`), said(k.verdict === 'holds' ? 'holds' : 'fails')],
      mark: k.verdict === 'holds' ? 'yes' : 'stop',
      offers: [],
    });
    return [
      {
        kind: 'table',
        title: said('rules'),
        heads: ['from', 'to', 'host', 'port', 'does'].map((h) => said(`head ${h}`)),
        rows: plan.permits.map(of),
        offers: [offer('try out'), offer('put in force')],
      },
      {
        kind: 'table',
        title: said('promises'),
        heads: ['promise', 'holds'].map((h) => said(`head ${h}`)),
        rows: this.tried ? this.tried.kept.map(verdict) : [],
        offers: [],
      },
      { kind: 'paper', title: said('paper'), lines: [said('paper guests'), said('paper seat')] },
    ];
  }

  private judge(): { kept: Kept[]; shut: boolean } {
    const { kept, seat } = judgePlan(this.plan, this.networks);
    return { kept, shut: seat.some((s) => s.verdict !== 'holds') };
  }

  private change(id: string, to: Partial<Permit>): void {
    this.plan = { ...this.plan, permits: this.plan.permits.map((p) => (p.id === id ? { ...p, ...to } : p)) };
    this.tried = null;
  }

  take(act: PracticeAct, tale: Tale): void {
    tale.takes(2);
    const on = act.on ?? '';
    switch (act.do) {
      case 'only port':
        return this.change(on, { services: [READING] });
      case 'only host':
        return this.change(on, { to: { zone: 'hall', addresses: [ARCHIVE] } });
      case 'switch off':
      case 'switch on':
        return this.change(on, { on: act.do === 'switch on' });
      case 'try out': {
        this.tried = this.judge();
        const bad = this.tried.kept.filter((k) => k.verdict !== 'holds').length;
        tale.tell(bad === 0 && !this.tried.shut ? 'all hold' : 'some fail', { count: bad });
        return;
      }
    }
    const { kept, shut } = this.tried ?? this.judge();
    if (shut) return tale.lose('locked out', {}, said('the way to its page'));
    const broken = kept.find((k) => k.verdict !== 'holds');
    if (broken?.promise.id === 'guests-read') return tale.fault('guests cannot read', {});
    if (broken) return tale.lose('guests reach too much', {}, said('what stands in the hall'));
    if (!this.tried) tale.slip('in force untried');
    tale.reach('promises hold');
  }

  hint(): Said {
    const p = this.permit();
    if (!p.on) return said('hint on again');
    if (p.services.length === 0) return said('hint port');
    if (p.to.addresses.length === 0) return said('hint host');
    return said(this.tried ? 'hint in force' : 'hint try');
  }
}

export const theGate: Exercise = { id: 'the-gate', stop: 'load', begin: (random) => new TheGate(random) };
