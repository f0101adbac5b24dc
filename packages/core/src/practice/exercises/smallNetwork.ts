import type { PracticeAct } from '../../model/practice';
import { hostSchema, networkSchema, type Host, type Network } from '../../model/network';
import { checkAmong, checkHost } from '../../network/checkHost';
import { pick, shuffled, whole, type Random } from '../draw';
import type { Exercise } from '../play';
import { said } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

type Kind = 'free' | 'in the pool' | 'asleep' | 'outside' | 'the gateway';
interface Candidate {
  address: string;
  kind: Kind;
}

const BOX = 'box';

/** A handful of devices, one asleep, and sometimes a second server that hands out addresses: a place for a box that is still there after a power cut. */
class SmallNetwork implements Scene {
  private readonly network: Network;
  private readonly hosts: Host[];
  private readonly candidates: Candidate[];
  private readonly stray: boolean;
  private strayOut = false;
  private leasesRead = false;
  private listRead = false;
  private readonly asked = new Set<string>();
  private given: string | null = null;

  constructor(random: Random) {
    const third = whole(random, 10, 90);
    const at = (n: number): string => `10.20.${third}.${n}`;
    const pool = { from: at(100), to: at(199) };
    this.network = networkSchema.parse({
      id: 'hall',
      name: 'hall',
      prefix: `10.20.${third}.0/24`,
      gateway: at(1),
      pool,
    });
    const asleep = whole(random, 20, 40);
    const host = (id: string, manner: Host['manner'], n: number): Host =>
      hostSchema.parse({ id, name: id, networkId: 'hall', manner, address: at(n) });
    this.hosts = [
      host('gateway', 'fixed', 1),
      host('printer', 'fixed', asleep),
      host('archive', 'reservation', whole(random, 50, 60)),
      host('tablet', 'pool', whole(random, 101, 199)),
    ];
    this.stray = pick(random, [true, false]);
    this.candidates = shuffled(random, [
      { address: at(whole(random, 61, 90)), kind: 'free' },
      { address: at(whole(random, 110, 190)), kind: 'in the pool' },
      { address: at(asleep), kind: 'asleep' },
      { address: `10.20.${third + 1}.${whole(random, 10, 90)}`, kind: 'outside' },
      { address: at(1), kind: 'the gateway' },
    ]);
  }

  panels(): Panel[] {
    const device = (h: Host): Row => ({
      id: h.id,
      cells: [
        h.name,
        this.listRead ? (h.address ?? '') : '–',
        this.listRead ? said(`manner ${h.manner}`) : '–',
        said(h.name === 'printer' ? 'asleep now' : 'plugged in'),
      ],
      offers: [],
    });
    const stray: Row[] =
      this.stray && this.leasesRead
        ? [
            {
              id: 'stray',
              cells: [
                said('stray router'),
                '–',
                said('hands out'),
                said(this.strayOut ? 'unplugged' : 'plugged in'),
              ],
              ...(this.strayOut ? {} : { mark: 'stop' as const }),
              offers: this.strayOut ? [] : [offer('unplug', 'stray')],
            },
          ]
        : [];
    return [
      {
        kind: 'table',
        title: said('devices'),
        heads: ['device', 'address', 'has it', 'state'].map((h) => said(`head ${h}`)),
        rows: [...this.hosts.map(device), ...stray],
        offers: [
          ...(this.listRead ? [] : [offer('read the list')]),
          ...(this.leasesRead ? [] : [offer('listen')]),
          ...(this.given === null ? [] : [offer('cut power')]),
        ],
      },
      {
        kind: 'table',
        title: said('addresses'),
        heads: ['address', 'answers'].map((h) => said(`head ${h}`)),
        rows: this.candidates.map((c): Row => {
          const known = this.asked.has(c.address);
          const values = { address: c.address };
          return {
            id: c.address,
            cells: [
              c.address,
              // Who sleeps does not answer either.
              known ? said(c.kind === 'the gateway' ? 'answers' : 'no answer') : '–',
            ],
            here: this.given === c.address,
            offers: [
              ...(known ? [] : [offer('ask', c.address, values)]),
              ...(this.given === c.address ? [] : [offer('give', c.address, values)]),
            ],
          };
        }),
        offers: [],
      },
      {
        kind: 'paper',
        title: said('paper'),
        lines: [
          said('paper network', {
            prefix: this.network.prefix ?? '',
            from: this.network.pool?.from ?? '',
            to: this.network.pool?.to ?? '',
          }),
          said('paper box'),
        ],
      },
    ];
  }

  take(act: PracticeAct, tale: Tale): void {
    const on = act.on ?? '';
    tale.takes(1);
    switch (act.do) {
      case 'read the list':
        this.listRead = true;
        return;
      case 'listen':
        this.leasesRead = true;
        tale.tell(this.stray ? 'two hand out' : 'one hands out');
        return;
      case 'unplug':
        this.strayOut = true;
        tale.tell('stray is out', {}, 'good');
        return;
      case 'ask':
        this.asked.add(on);
        return;
      case 'give':
        this.given = on;
        tale.tell('given', { address: on });
        return;
    }
    this.cut(tale);
  }

  /** The power goes and comes again: who is where, by the same rules as the Network area has. */
  private cut(tale: Tale): void {
    const address = this.given ?? '';
    const box = hostSchema.parse({ id: BOX, name: BOX, networkId: 'hall', manner: 'fixed', address });
    const faults = [...checkHost(box, this.network), ...checkAmong(this.network, [...this.hosts, box])]
      .filter((f) => f.hosts.includes(BOX))
      .map((f) => f.fault.code);
    tale.takes(5);
    if (faults.includes('same address') || faults.includes('gateway address')) {
      const other = this.hosts.find((h) => h.address === address)?.name ?? 'gateway';
      return tale.lose('two of one address', { address, other }, said('an evening of everybody'));
    }
    if (faults.includes('outside its network')) return tale.fault('nobody reaches it', { address });
    if (faults.includes('fixed in the pool'))
      return tale.lose('given to another', { address }, said('a box that is gone'));
    if (this.stray && !this.strayOut) return tale.fault('wrong way out', {});
    if (!this.asked.has(address) || !this.listRead) tale.fault('given unasked', { address });
    if (!this.leasesRead) tale.slip('not listened');
    tale.reach('still there', { address });
  }

  hint() {
    if (!this.listRead) return said('hint list');
    if (!this.leasesRead) return said('hint listen');
    if (this.stray && !this.strayOut) return said('hint unplug');
    const free = this.candidates.find((c) => c.kind === 'free')?.address ?? '';
    if (!this.asked.has(free)) return said('hint ask');
    return said(this.given === free ? 'hint cut' : 'hint give');
  }
}

export const smallNetwork: Exercise = {
  id: 'still-there',
  stop: 'network',
  begin: (random) => new SmallNetwork(random),
};
