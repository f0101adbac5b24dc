import type { FactKey, FactValue } from '../../model/facts';
import type { PracticeAct } from '../../model/practice';
import { profileSchema, type Profile } from '../../model/profile';
import { judge, type Judgement } from '../../system/judge';
import type { MachineView } from '../../system/view';
import { GIB } from '../../units/bytes';
import { pick, shuffled, whole, type Random } from '../draw';
import type { Exercise } from '../play';
import { said, type Part } from '../said';
import { offer, type Panel, type Row, type Scene } from '../scene';
import type { Tale } from '../tale';

/** The evening is on this day of the made-up world. */
const TODAY = '2030-03-01';
const NAMES = ['Cobble', 'Driftwood', 'Heather', 'Skerry', 'Thimble'];
const GROUPS = ['processor', 'memory', 'firmware'] as const;
type Group = (typeof GROUPS)[number];

interface Made {
  level: 'v1' | 'v2';
  year: number;
  memory: number;
  mode: 'uefi' | 'bios';
}

const viewOf = (m: Made): MachineView => {
  const facts: Partial<Record<FactKey, FactValue>> = {
    'cpu.arch': 'x86_64',
    'cpu.bits': 64,
    'cpu.level': m.level,
    'cpu.year': m.year,
    'cpu.cores': 2,
    'memory.bytes': m.memory,
    'firmware.mode': m.mode,
    'firmware.offers': [m.mode],
    'firmware.secureBoot': 'off',
    'graphics.driver': 'in-kernel',
    'network.wired': 1,
  };
  return {
    name: 'the machine',
    facts,
    drives: [{ name: 'its drive', bytes: 120e9, transport: 'sata', removable: false, fate: 'may be lost' }],
    parts: [],
  };
};

function system(
  name: string,
  m: Made,
  rest: {
    memory?: number;
    level?: 'v2' | 'v3';
    oldest?: number;
    firmware?: ('uefi' | 'bios')[];
    end: string;
  },
): Profile {
  return profileSchema.parse({
    id: name.toLowerCase(),
    name,
    purpose: 'music',
    about: '',
    releases: [
      {
        id: '1',
        version: '1',
        channel: 'long support',
        supportEnd: rest.end,
        archs: ['x86_64'],
        cpuLevel: rest.level ?? m.level,
        oldestYear: rest.oldest ?? m.year - 3,
      },
    ],
    variants: [{ id: 'any', name: 'any', drivers: ['in-kernel', 'out-of-tree'] }],
    needs: {
      cores: 1,
      memoryBytes: rest.memory ?? m.memory / 2,
      bootBytes: 16e9,
      dataDrives: 0,
      graphics: false,
      firmware: rest.firmware ?? [m.mode],
      wiredPorts: 0,
      virtualisation: false,
    },
    prefers: {},
    secureBoot: 'signed',
    installer: 'asks for the drive',
    growsAtFirstStart: false,
    installMinutes: [5, 10],
    stickBytes: 4e9,
    networkAtInstall: false,
    admin: null,
    login: 'set at install',
    swap: 'none',
    layout: 'one partition',
    writeMode: 'whole image',
    drivers: [],
  });
}

/** One machine and five systems: one fits and is looked after for years. */
class WhichSystem implements Scene {
  private readonly made: Made;
  private readonly systems: { profile: Profile; judged: Judgement; end: string }[];
  private readonly best: string;
  private readonly looked = new Set<Group>();
  private readonly read = new Set<string>();

  constructor(random: Random) {
    const m: Made = {
      level: pick(random, ['v1', 'v2'] as const),
      year: whole(random, 2008, 2014),
      memory: pick(random, [2, 4]) * GIB,
      mode: pick(random, ['uefi', 'bios'] as const),
    };
    this.made = m;
    const [good = '', soon = '', large = '', modern = '', other = ''] = shuffled(random, NAMES);
    const late = `${whole(random, 2033, 2035)}-06-01`;
    this.best = good.toLowerCase();
    const view = viewOf(m);
    this.systems = shuffled(random, [
      system(good, m, { end: late }),
      system(soon, m, { end: '2030-04-30' }),
      system(large, m, { memory: m.memory * 2, end: late }),
      system(
        modern,
        m,
        pick(random, [true, false])
          ? { level: m.level === 'v1' ? 'v2' : 'v3', end: late }
          : { oldest: m.year + 2, end: late },
      ),
      system(other, m, { firmware: [m.mode === 'uefi' ? 'bios' : 'uefi'], end: late }),
    ]).map((profile) => ({
      profile,
      judged: judge(view, profile),
      end: profile.releases[0]?.supportEnd ?? '',
    }));
  }

  private facts(group: Group): Part {
    const { level, year, memory, mode } = this.made;
    const values = { level, year, bytes: memory, mode };
    return said(`fact ${group}`, values);
  }

  panels(): Panel[] {
    return [
      {
        kind: 'table',
        title: said('the machine'),
        heads: ['part', 'reading'].map((h) => said(`head ${h}`)),
        rows: GROUPS.map((g): Row => ({
          id: g,
          cells: [said(`part ${g}`), this.looked.has(g) ? this.facts(g) : said('not looked at')],
          offers: this.looked.has(g) ? [] : [offer('look up', g)],
        })),
        offers: [],
      },
      {
        kind: 'table',
        title: said('systems'),
        heads: ['system', 'memory', 'processor', 'starts by', 'until'].map((h) => said(`head ${h}`)),
        rows: this.systems.map(({ profile: p, end }): Row => {
          const release = p.releases[0];
          const open = this.read.has(p.id);
          const values = { name: p.name };
          return {
            id: p.id,
            cells: [
              p.name,
              ...(open
                ? [
                    said('bytes', { bytes: p.needs.memoryBytes }),
                    said('asks processor', {
                      level: release?.cpuLevel ?? '',
                      year: release?.oldestYear ?? 0,
                    }),
                    said(`mode ${p.needs.firmware[0] ?? 'uefi'}`),
                    said('day', { day: end }),
                  ]
                : ['–', '–', '–', '–']),
            ],
            offers: [...(open ? [] : [offer('read needs', p.id, values)]), offer('choose it', p.id, values)],
          };
        }),
        offers: [],
      },
      {
        kind: 'paper',
        title: said('paper'),
        lines: [said('paper today', { day: TODAY }), said('paper music')],
      },
    ];
  }

  take(act: PracticeAct, tale: Tale): void {
    const on = act.on ?? '';
    tale.takes(act.do === 'choose it' ? 0 : 2);
    if (act.do === 'look up') this.looked.add(on as Group);
    else if (act.do === 'read needs') this.read.add(on);
    else this.choose(on, tale);
  }

  private choose(id: string, tale: Tale): void {
    const chosen = this.systems.find((s) => s.profile.id === id);
    if (!chosen) return;
    const { name } = chosen.profile;
    const because = chosen.judged.binding[0]?.rule ?? '';
    if (chosen.judged.verdict !== 'fits')
      return tale.lose('does not fit', { name, rule: because }, said('an evening'));
    if (this.looked.size < GROUPS.length || !this.read.has(id)) tale.fault('chosen unread', { name });
    if (id !== this.best) tale.fault('ends too soon', { name, day: chosen.end });
    tale.reach('chosen', { name });
  }

  hint() {
    const part = GROUPS.find((g) => !this.looked.has(g));
    if (part) return said('hint look up', { part });
    const unread = this.systems.find((s) => !this.read.has(s.profile.id));
    return unread ? said('hint read', { name: unread.profile.name }) : said('hint strike out');
  }
}

export const whichSystem: Exercise = {
  id: 'which-system',
  stop: 'choose',
  begin: (random) => new WhichSystem(random),
};
