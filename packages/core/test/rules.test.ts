/**
 * Rules of a gate: every packet of a small header space walked one by one against the diagrams, promises against trying every packet,
 * and what is told of single plans. The kernel's own filter does the same in tests/oracle/rules.oracle.ts.
 */
import fc from 'fast-check';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { hallGate } from '@zb/core/demo/gate';
import {
  readServices,
  typedServices,
  promiseDraftOf,
  promiseOfDraft,
  permitDraftOf,
  permitOfDraft,
} from '@zb/core/model/gateDraft';
import { gatePlanSchema, packetSchema, type GatePlan } from '@zb/core/model/gate';
import { askPacket, numbered } from '@zb/core/rules/ask';
import { besidePlan } from '@zb/core/rules/beside';
import { checkGate } from '@zb/core/rules/check';
import { compareRules } from '@zb/core/rules/compare';
import { compileGate } from '@zb/core/rules/compile';
import { judgeRules, type Judged, type Judgement } from '@zb/core/rules/fates';
import { draftGate, reportOfBox } from '@zb/core/rules/forBox';
import { matrixOf } from '@zb/core/rules/matrix';
import { expectedPace, readIperf, wirePackets } from '@zb/core/rules/pace';
import { movedPermit } from '@zb/core/rules/permits';
import { judgePlan } from '@zb/core/rules/promises';
import { NftReadError, readNftJson } from '@zb/core/rules/read/nftJson';
import { repairsOf, seatRepair } from '@zb/core/rules/repair';
import { gateReport } from '@zb/core/rules/report';
import { routesOf } from '@zb/core/rules/routes';
import { fields, type PacketState, type Ruleset } from '@zb/core/rules/ruleset';
import { groundOf } from '@zb/core/rules/sides';
import { topologyOf } from '@zb/core/rules/topology';
import { unusedRules } from '@zb/core/rules/unused';
import { walkPacket, type NumberedPacket } from '@zb/core/rules/walk';
import { writeGate } from '@zb/core/rules/write/forms';
import { addressSpans, formatPlace, formatRange, lineAddress } from '@zb/core/units/addressLine';
import { inSpans, joinSpans, lessSpans, sharedSpans, spansOf, type Spans } from '@zb/core/units/spans';
import { runs } from './runs';
import { allPackets, SMALL, SMALL_NETWORKS, smallPlan, smallPromise, smallRuleset } from './smallRules';

/** Where a packet comes to in the diagrams. */
function told({ universe, fates }: Judgement, judged: Judged, p: NumberedPacket) {
  const point = [
    universe.interfaces.indexOf(p.iif),
    ...fields.map((f) => universe.classOf(f, BigInt(p[f]))),
    ...universe.flags.map((f) =>
      f.startsWith('rate ')
        ? Number(!p.over.has(f.slice(5)))
        : Number(p.matches.has(f.slice('unknown '.length))),
    ),
  ];
  return fates[universe.forest.at(judged.roots.get(p.state) ?? -1, point)];
}

const STATES: readonly PacketState[] = ['new', 'established', 'invalid'];
const SPORTS = [0, 3, 4, 9];

describe('every packet of a small header space', () => {
  it('ends in the diagrams as it does when the rules are walked one by one', () => {
    fc.assert(
      fc.property(
        smallRuleset,
        fc.array(fc.boolean(), { minLength: 3, maxLength: 3 }),
        fc.boolean(),
        (ruleset: Ruleset, mix, reversePath) => {
          const topology = { ...SMALL, reversePath };
          const judgement = judgeRules([{ ruleset, topology }]);
          const [judged] = judgement.judged;
          if (!judged) throw new Error('nothing was judged');
          const routes = routesOf(topology);
          const unknowns = judgement.universe.flags.map((f) => f.slice('unknown '.length));
          const matches = new Set(unknowns.filter((_, i) => mix[i % 3] === true));
          for (const state of STATES)
            for (const plain of allPackets(state, SPORTS)) {
              const p = { ...plain, matches };
              const walk = walkPacket(ruleset, routes, p);
              const fate = told(judgement, judged, p);
              const led = walk.end === 'passes' ? (walk.translated?.rule ?? null) : null;
              if (fate?.code !== walk.end || (fate.dnat?.rule ?? null) !== led)
                throw new Error(
                  `${p.iif} ${formatPlace(p.saddr)} ${formatPlace(p.daddr)} ${p.proto} ${p.dport}: ${JSON.stringify(fate)} against ${walk.end} by ${walk.by}`,
                );
            }
        },
      ),
      { numRuns: runs(24) },
    );
  });

  it('breaks a promise exactly where one of them does', () => {
    fc.assert(
      fc.property(smallRuleset, smallPromise, (ruleset, promise) => {
        const plan = smallPlan([promise]);
        const { kept, ground } = judgePlan(plan, SMALL_NETWORKS, { ruleset });
        const [held] = kept;
        const p = held?.promise;
        if (!held || (p?.kind !== 'reaches' && p?.kind !== 'closed')) throw new Error('no promise');
        const services = plan.services.filter((s) => p.services.includes(s.id)).flatMap((s) => s.entries);
        const asked = (proto: number, port: number): boolean =>
          services.some(
            (e) =>
              proto === (e.protocol === 'tcp' ? 6 : 17) &&
              e.ports !== null &&
              port >= e.ports[0] &&
              port <= e.ports[1],
          );
        const zone = p.kind === 'reaches' ? p.to.zone : (p.to[0]?.zone ?? '');
        const iif = p.from.zone.slice(1);
        const behind: Spans = ground.routes.behind.get(zone.slice(1)) ?? [];
        const hosts: Record<string, Spans> = {
          za: addressSpans(['10.0.0.2']),
          zb: addressSpans(['10.0.0.4']),
        };
        // Parts that are not understood: broken for sure where it is broken whether they match or not.
        const unknowns = ruleset.chains.flatMap((c) =>
          c.rules.flatMap((r) =>
            r.when.flatMap((w) => (w.unknown === undefined ? [] : [`${r.id}: ${w.unknown}`])),
          ),
        );
        fc.pre(new Set(unknowns).size <= 3);
        const choices = [...Array(2 ** unknowns.length).keys()].map(
          (bits) => new Set(unknowns.filter((_, i) => ((bits >> i) & 1) === 1)),
        );
        let sure = false;
        let perhaps = false;
        const states: PacketState[] = p.kind === 'reaches' ? ['new'] : ['new', 'invalid'];
        for (const state of states)
          for (const packet of allPackets(state)) {
            if (packet.iif !== iif) continue;
            const meant =
              p.kind === 'reaches'
                ? inSpans(hosts[p.from.zone] ?? [], packet.saddr) &&
                  inSpans(hosts[zone] ?? [], packet.daddr) &&
                  asked(packet.proto, packet.dport)
                : true;
            if (!meant) continue;
            const bad = choices.map((matches) => {
              const walk = walkPacket(ruleset, ground.routes, { ...packet, matches });
              if (p.kind === 'reaches') return walk.end !== 'passes';
              if (walk.end !== 'passes') return false;
              if (!walk.translated) return inSpans(behind, packet.daddr) && asked(packet.proto, packet.dport);
              return !p.forwards && inSpans(behind, walk.translated.daddr);
            });
            sure ||= bad.every(Boolean);
            perhaps ||= bad.some(Boolean);
          }
        expect(held.verdict).toBe(sure ? 'fails' : perhaps ? 'cannot say' : 'holds');
        // What is shown as breaking it does.
        if (held.verdict === 'fails' && held.walk)
          expect(held.walk.end === 'passes').toBe(p.kind === 'closed');
      }),
      { numRuns: runs(32) },
    );
  });

  it('meets a rule exactly where one of them does', () => {
    fc.assert(
      fc.property(
        smallRuleset.filter((r) =>
          r.chains.every((c) => c.rules.every((x) => x.when.every((w) => w.unknown === undefined))),
        ),
        (ruleset) => {
          const [judged] = judgeRules([{ ruleset, topology: SMALL }]).judged;
          const routes = routesOf(SMALL);
          const met = new Set<string>();
          for (const state of STATES)
            for (const p of allPackets(state))
              for (const s of walkPacket(ruleset, routes, p).steps) if (s.met) met.add(s.rule);
          const rules = ruleset.chains.flatMap((c) => c.rules.map((r) => r.id));
          const hit = rules.filter((r) => judged?.hit.has(r));
          // Established and new differ; related and untracked meet what established meets here, and ICMP lies beyond the small space.
          expect(hit.filter((r) => !met.has(r) && !beyond(ruleset, r))).toEqual([]);
          expect([...met].filter((r) => !judged?.hit.has(r))).toEqual([]);
        },
      ),
      { numRuns: runs(12) },
    );
  });
});

/** A rule that packets beyond TCP and UDP, or of other states, may meet. */
const beyond = (ruleset: Ruleset, id: string): boolean =>
  ruleset.chains.some((c) =>
    c.rules.some((r) => r.id === id && r.when.some((w) => w.spans.proto === undefined || !w.states)),
  );

describe('spans', () => {
  const some = fc
    .array(fc.tuple(fc.bigInt(0n, 60n), fc.bigInt(0n, 60n)), { maxLength: 8 })
    .map((l) => spansOf(l.map(([a, b]): [bigint, bigint] => (a <= b ? [a, b] : [b, a]))));
  const all = Array.from({ length: 62 }, (_, i) => BigInt(i));
  it('join, share and leave out as sets do', () => {
    fc.assert(
      fc.property(some, some, (a, b) => {
        for (const n of all) {
          const [x, y] = [inSpans(a, n), inSpans(b, n)];
          expect(inSpans(joinSpans(a, b), n)).toBe(x || y);
          expect(inSpans(sharedSpans(a, b), n)).toBe(x && y);
          expect(inSpans(lessSpans(a, b), n)).toBe(x && !y);
        }
      }),
      { numRuns: runs(100) },
    );
  });
  it('of addresses are written as prefixes, ranges and single ones', () => {
    const written = (t: string): string | undefined => addressSpans([t]).map(formatRange)[0];
    for (const t of [
      '192.0.2.0/24',
      '192.0.2.7',
      '192.0.2.3-192.0.2.9',
      '2001:db8::/32',
      '::1',
      '2001:db8::5-2001:db8::9',
    ])
      expect(written(t)).toBe(t);
    expect(formatPlace(lineAddress(6))).toBe('from the line');
    expect(addressSpans(['192.0.2.1-2001:db8::1', 'nonsense'])).toEqual([]);
  });
});

const bench = saltmarshHall();
const { networks, hosts } = bench;
const hall = hallGate();
const verdicts = (plan: GatePlan): Record<string, string> =>
  Object.fromEntries(judgePlan(plan, networks, { hosts }).kept.map((k) => [k.promise.id, k.verdict]));

describe('the hall’s gate', () => {
  it('breaks one promise, and every way to mend it that is offered does so and breaks no other', () => {
    const { kept } = judgePlan(hall, networks, { hosts });
    const broken = kept.filter((k) => k.verdict === 'fails');
    expect(broken.map((k) => k.promise.id)).toEqual(['apart-guests']);
    const [one] = broken;
    expect(one?.walk?.by).toMatch(/^permit reading-room/);
    const repairs = one ? repairsOf(hall, networks, hosts, kept, one) : [];
    expect(repairs.map((r) => r.mend.kind)).toEqual(['permit narrowed', 'permit off']);
    for (const r of repairs) expect(new Set(Object.values(verdicts(r.plan)))).toEqual(new Set(['holds']));
    // The page that was meant to be read is read after the first of them.
    const mended = repairs[0]?.plan ?? hall;
    const ask = (plan: GatePlan, port: number) => {
      const p = numbered(
        packetSchema.parse({
          from: 'guests',
          source: '10.44.30.40',
          destination: '10.44.8.20',
          protocol: 'tcp',
          destinationPort: port,
        }),
        plan,
        networks,
      );
      if (typeof p === 'string') throw new Error(p);
      return askPacket(compileGate(plan, networks), groundOf(plan, networks).routes, p);
    };
    expect(ask(mended, 8080).walk.end).toBe('passes');
    expect(ask(mended, 8080).answer?.walk.end).toBe('passes');
    expect(ask(mended, 445).walk.end).toBe('dropped');
    expect(
      matrixOf(hall, networks, kept)
        .flatMap((r) => r.cells)
        .filter((c) => c?.broken)
        .map((c) => [c?.from, c?.to]),
    ).toEqual([['guests', 'hall']]);
  });

  it('is told of in the ledger, and not given away', () => {
    const box = bench.boxes.find((b) => b.id === 'guest-gate');
    const report = box && reportOfBox(bench, box);
    expect(report?.findings.map((f) => [f.grade, f.fault.code])).toContainEqual(['stop', 'promises broken']);
  });

  it('locks nobody out: without the way to the page the seat fails, and its mend brings it back', () => {
    const locked = { ...hall, permits: hall.permits.filter((p) => p.id !== 'hall-served') };
    const { seat } = judgePlan(locked, networks);
    expect(seat.map((s) => s.verdict)).toEqual(['fails', 'fails']);
    const report = gateReport(locked, networks, hosts);
    expect(report.findings.filter((f) => f.fault.code === 'locked out').map((f) => f.grade)).toEqual([
      'stop',
      'stop',
    ]);
    const [repair] = seatRepair(locked, networks, hosts, seat);
    expect(judgePlan(repair?.plan ?? locked, networks).seat.map((s) => s.verdict)).toEqual([
      'holds',
      'holds',
    ]);
    // A seat whose address cannot be where it sits is locked out by the sources alone.
    const strange = { ...hall, seat: { zone: 'hall', address: '10.44.30.9', ports: [22] } };
    expect(judgePlan(strange, networks).seat.map((s) => s.verdict)).toEqual(['fails']);
  });

  it('keeps a promise below a rate, and not by the hour', () => {
    const change = (more: object): GatePlan =>
      gatePlanSchema.parse({
        ...hall,
        permits: hall.permits.map((p) => (p.id === 'guests-served' ? { ...p, ...more } : p)),
      });
    expect(verdicts(change({ rate: { count: 20, per: 'second' } }))['names-guests']).toBe('limited');
    const byHour = change({ hours: { from: 480, to: 1320, days: [] } });
    const kept = judgePlan(byHour, networks).kept.find((k) => k.promise.id === 'names-guests');
    expect(kept?.verdict).toBe('fails');
    const at = (kept?.packet?.second ?? 0) / 60;
    expect(at < 480 || at >= 1320).toBe(true);
  });

  it('lets a port in where it was led in, and only then', () => {
    const led = gatePlanSchema.parse({
      ...hall,
      forwards: [
        { id: 'f', name: 'scans', protocol: 'tcp', ports: [8080, 8081], to: '10.44.8.20', toPort: 80 },
      ],
    });
    expect(verdicts(led)['nothing-in']).toBe('holds');
    const strict = gatePlanSchema.parse({
      ...led,
      promises: led.promises.map((p) => (p.id === 'nothing-in' ? { ...p, forwards: false } : p)),
    });
    const { kept } = judgePlan(strict, networks, { hosts });
    const broken = kept.find((k) => k.promise.id === 'nothing-in');
    expect(broken?.verdict).toBe('fails');
    expect(broken?.walk?.translated?.dport).toBe(80);
    const mends = broken ? repairsOf(strict, networks, hosts, kept, broken) : [];
    expect(mends.map((m) => m.mend.kind)).toContain('forward off');
  });

  // RFC 3704 §2.2, strict reverse path forwarding, by hand: an answer must leave where the packet came in.
  it('takes an IPv4 packet only where its answer would leave, as the kernel does by our settings', () => {
    const open: Ruleset = { chains: [], strange: [] };
    const walked = (reversePath: boolean, iif: string, saddr: string, daddr: string): string =>
      walkPacket(open, routesOf({ ...SMALL, reversePath }), {
        iif,
        saddr: addressSpans([saddr])[0]?.[0] ?? -1n,
        daddr: addressSpans([daddr])[0]?.[0] ?? -1n,
        proto: 6,
        sport: 1,
        dport: 1,
        state: 'new',
        day: 0,
        second: 0,
        over: new Set(),
        matches: new Set(),
      }).end;
    const CASES: [iif: string, saddr: string, daddr: string, strict: string][] = [
      ['a', '10.0.0.2', '8.8.8.8', 'passes'],
      ['a', '10.0.0.4', '8.8.8.8', 'refused by the kernel'],
      ['a', '8.8.8.8', '10.0.0.4', 'refused by the kernel'],
      ['c', '8.8.8.8', '10.0.0.4', 'passes'],
      ['c', '10.0.0.2', '10.0.0.4', 'refused by the kernel'],
      // Whoever asks for an address has none yet (RFC 2131 §4.1).
      ['a', '0.0.0.0', '255.255.255.255', 'passes'],
      ['c', '2600:1::1', '2600:2::2', 'passes'],
    ];
    for (const [iif, saddr, daddr, strict] of CASES) {
      expect([iif, saddr, daddr, walked(true, iif, saddr, daddr)]).toEqual([iif, saddr, daddr, strict]);
      expect(walked(false, iif, saddr, daddr)).toBe('passes');
    }
    expect(writeGate('sysctl', hall, networks, hosts)).toContain('net.ipv4.conf.all.rp_filter = 1');
  });

  it('says beside a verdict what it does not cover', () => {
    const caveats = (services: string[], to: string, translates = true) => {
      const plan = gatePlanSchema.parse({
        ...hall,
        translates,
        promises: [
          {
            id: 'p',
            kind: 'reaches',
            from: { zone: hall.zones.find((z) => z.kind === 'inside')?.id },
            to: { zone: to },
            services,
          },
        ],
      });
      return judgePlan(plan, networks, { hosts }).kept[0]?.caveats;
    };
    const outside = hall.zones.find((z) => z.kind === 'outside')?.id ?? '';
    const inside = hall.zones.filter((z) => z.kind !== 'outside')[1]?.id ?? '';
    const tcp = hall.services.find((s) => s.entries.every((e) => e.protocol === 'tcp'))?.id ?? '';
    // RFC 3022 §2.2: a translation of ports tells apart what has ports.
    expect(caveats([], outside)).toEqual(['no ports under masquerading', 'full connection table']);
    expect(caveats([tcp], outside)).toEqual(['full connection table']);
    expect(caveats([], outside, false)).toEqual(['full connection table']);
    expect(caveats([], inside)).toEqual(['full connection table']);
    const closed = judgePlan(hall, networks, { hosts }).kept.filter((k) => k.promise.kind === 'closed');
    expect(closed.length).toBeGreaterThan(0);
    for (const k of closed) expect(k.caveats).toEqual(['one wire', 'kernel settings']);
  });

  it('tells a rule that has nothing to do, and what takes its packets', () => {
    const plan = gatePlanSchema.parse({
      ...hall,
      permits: [
        ...hall.permits,
        { id: 'again', from: { zone: 'hall' }, to: { zone: 'outside' }, services: ['mail'] },
        { id: 'never', from: { zone: 'hall' }, to: { zone: 'outside' }, services: ['web'], does: 'refuse' },
      ],
    });
    const { judged } = judgePlan(plan, networks);
    const unused = unusedRules(judged).filter((u) => /^permit (again|never)/.test(u.rule));
    expect(unused.every((u) => u.why === 'never acts' && u.before.join() === 'permit hall-out')).toBe(true);
    expect(unused.find((u) => u.rule.startsWith('permit again'))?.alike).toBe(true);
    expect(unused.find((u) => u.rule.startsWith('permit never'))?.alike).toBe(false);
  });

  it('of two plans tells exactly the packets that change fate', () => {
    const topology = topologyOf(hall, networks);
    const gate = (plan: GatePlan) => ({ ruleset: compileGate(plan, networks), topology });
    expect(compareRules(gate(hall), gate(hall)).same).toBe(true);
    const narrowed = {
      ...hall,
      permits: hall.permits.map((p) => (p.id === 'reading-room' ? { ...p, services: ['reading'] } : p)),
    };
    const { changed } = compareRules(gate(hall), gate(narrowed));
    expect(changed.length).toBeGreaterThan(0);
    for (const c of changed) {
      expect(c.iif).toEqual(['eth1.30']);
      expect([c.was.code, c.is.code]).toEqual(['passes', 'dropped']);
      // TCP 8080 to the archive stays as it was.
      const tcp = c.spans.proto?.some(([a, b]) => a <= 6n && b >= 6n) ?? true;
      if (tcp) expect(c.spans.dport?.some(([a, b]) => a <= 8080n && b >= 8080n) ?? true).toBe(false);
    }
  });

  it('is written without a word of anything that was not decided', () => {
    const names = writeGate('dnsmasq', hall, networks, hosts);
    expect(names).toContain('interface=eth1.30');
    expect(names).toContain('except-interface=eth0');
    expect(names).toMatch(/host-record=archive\.hall\.home\.arpa/);
    expect(writeGate('rollback', hall, networks, hosts)).toContain('WAIT=${WAIT:-60}');
    expect(writeGate('md', hall, networks, hosts)).toContain('| Guests | Hall (archive) | everything |');
  });
});

describe('what is wrong before any packet is looked at', () => {
  const codes = (more: object): string[] =>
    checkGate(gatePlanSchema.parse({ ...hall, ...more }), networks).map((f) => f.fault.code);
  it('is told', () => {
    expect(codes({ seat: null })).toContain('no seat');
    expect(codes({ ports: hall.ports.slice(0, 2) })).toContain('zone without port');
    expect(codes({ ports: [...hall.ports, { ...hall.ports[0], id: 'x' }] })).toContain('port twice');
    expect(codes({ ports: hall.ports.map((p) => ({ ...p, networkId: null })) })).toContain(
      'port without network',
    );
    expect(codes({ promises: [] })).toContain('nothing promised');
    expect(codes({ addresses: [] })).toContain('not there');
    expect(
      codes({ forwards: [{ id: 'f', name: 'f', protocol: 'tcp', ports: [1, 2], to: '192.168.9.9' }] }),
    ).toContain('forward to nowhere');
    expect(
      codes({ forwards: [{ id: 'f', name: 'f', protocol: 'tcp', ports: [22, 22], to: '10.44.8.1' }] }),
    ).toContain('forward of the page');
    expect(codes({})).not.toContain('not there');
  });
  it('is nothing in the plan a box begins with', () => {
    const box = bench.boxes.find((b) => b.id === 'guest-gate');
    const plan = box && draftGate(bench, box);
    const report = plan && gateReport(plan, networks, hosts);
    expect(report?.findings).toEqual([]);
    expect(new Set(report?.kept.map((k) => k.verdict))).toEqual(new Set(['holds']));
  });
});

describe('rules somebody else wrote', () => {
  const listed = (...rules: object[][]): string =>
    JSON.stringify({
      nftables: [
        { table: { family: 'inet', name: 't' } },
        {
          chain: {
            family: 'inet',
            table: 't',
            name: 'f',
            type: 'filter',
            hook: 'forward',
            prio: 0,
            policy: 'drop',
          },
        },
        ...rules.map((expr, i) => ({
          rule: { family: 'inet', table: 't', chain: 'f', handle: i + 1, expr },
        })),
      ],
    });
  const known = { match: { op: 'in', left: { ct: { key: 'state' } }, right: ['established', 'related'] } };
  it('never keep a promise by a part that is not understood', () => {
    const marked = { match: { op: '==', left: { meta: { key: 'mark' } }, right: 7 } };
    const reading = readNftJson(listed([known, { accept: null }], [marked, { accept: null }]));
    expect(reading.unknown.map((u) => u.what)).toEqual([expect.stringContaining('mark')]);
    const { theirs, changes } = besidePlan(hall, networks, hosts, reading);
    const kept = theirs.kept.find((k) => k.promise.id === 'apart-guests');
    expect(kept?.verdict).toBe('cannot say');
    expect(kept?.because.join()).toContain('mark');
    expect(changes?.same).toBe(false);
  });
  it('are refused whole where they are none', () => {
    for (const text of ['', '{', '[]', '{"nftables": 3}', '{"nftables": [3]}'])
      expect(() => readNftJson(text)).toThrow(NftReadError);
  });
  it('with anything in them are read to the end, and what is odd is named', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.jsonValue({ maxDepth: 4 }), { maxLength: 4 }), { maxLength: 4 }),
        (rules) => {
          const text = listed(
            ...rules.map((r) =>
              r.map((v) => (typeof v === 'object' && v !== null && !Array.isArray(v) ? v : { strange: v })),
            ),
          );
          const { ruleset } = readNftJson(text);
          expect(() => gateReport(hall, networks, hosts, ruleset)).not.toThrow();
        },
      ),
      { numRuns: runs(24) },
    );
  });
});

describe('what may go through', () => {
  it('on a wire is as the standard tables have it', () => {
    // RFC 2544, appendix B and RFC 1242: frames a second at 1 Gb/s; an IP packet is 18 bytes less than its frame.
    expect(wirePackets(1e9, 46)).toBe(1_488_095);
    expect(wirePackets(1e9, 110)).toBe(844_594);
    expect(wirePackets(1e9, 1500)).toBe(81_274);
    expect(wirePackets(1e8, 494)).toBe(23_496);
  });
  it('is never more than the wire takes, and less where bytes are enciphered without hardware', () => {
    const carrier = { cores: 4, hertz: 1.8e9, year: 2021, small: true, aes: true, linkBits: 1e9 };
    const lines = expectedPace(carrier);
    for (const l of lines)
      expect(l.bits?.high ?? 0).toBeLessThanOrEqual((l.wirePackets ?? 0) * l.packetBytes * 8);
    const slow = expectedPace({ ...carrier, aes: false }).find((l) => l.encrypted);
    expect(slow?.bits?.low ?? 0).toBeLessThan(lines.find((l) => l.encrypted)?.bits?.low ?? 0);
    expect(expectedPace({ ...carrier, hertz: null })[0]?.bound).toBe('not known');
  });
  it('is read from a measurement, and from nothing else', () => {
    expect(
      readIperf(
        '{"start":{"test_start":{"protocol":"TCP"}},"end":{"sum_received":{"bits_per_second":9.4e8}}}',
      )?.bitsPerSecond,
    ).toBe(9.4e8);
    for (const t of ['', '{}', '[1]', '{"start":{},"end":{"sum_received":{"bits_per_second":0}}}'])
      expect(readIperf(t)).toBeUndefined();
  });
});

describe('forms', () => {
  it('of services read what they write', () => {
    const sorted = (list: readonly object[] | undefined): string[] =>
      (list ?? []).map((e) => JSON.stringify(e)).sort();
    for (const s of hall.services)
      for (const e of s.entries)
        if (e.types.length < 2)
          expect(sorted(readServices(typedServices(s.entries)))).toContain(JSON.stringify(e));
    expect(readServices('tcp 80, 443, 8000-8010\nicmp 8')).toHaveLength(4);
    for (const bad of ['', 'http 80', 'tcp x', 'tcp 9-3', 'tcp 70000'])
      expect(readServices(bad)).toBeUndefined();
  });
  it('of promises and permits bring back what they were given', () => {
    for (const p of hall.promises) expect(promiseOfDraft(p).parse(promiseDraftOf(p))).toEqual(p);
    for (const p of hall.permits) expect(permitOfDraft(p).parse(permitDraftOf(p))).toEqual(p);
    const [one] = hall.permits;
    if (!one) throw new Error('no permit');
    expect(permitOfDraft(one).safeParse({ ...permitDraftOf(one), hoursFrom: '08:00' }).success).toBe(false);
  });
  it('move a permit within its crossing alone', () => {
    const ids = (list: GatePlan['permits']): string => list.map((p) => p.id).join();
    const mine = hall.permits.filter((p) => p.from.zone === 'hall' && p.to.zone === 'gate');
    expect(ids(movedPermit(hall.permits, mine[0]?.id ?? '', -1))).toBe(ids(hall.permits));
  });
});
