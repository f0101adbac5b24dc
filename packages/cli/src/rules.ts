import { gateFileSchema, packetSchema, type GateFile, type GatePlan } from '@zb/core/model/gate';
import { askPacket, numbered } from '@zb/core/rules/ask';
import { compareRules, type Changed } from '@zb/core/rules/compare';
import { compileGate } from '@zb/core/rules/compile';
import { TooManyClasses } from '@zb/core/rules/forest';
import { NftReadError, readNftJson, type NftReading } from '@zb/core/rules/read/nftJson';
import { repairsOf, seatRepair } from '@zb/core/rules/repair';
import { gateReport } from '@zb/core/rules/report';
import type { Ruleset } from '@zb/core/rules/ruleset';
import { groundOf } from '@zb/core/rules/sides';
import { topologyOf } from '@zb/core/rules/topology';
import type { NumberedPacket, Walk } from '@zb/core/rules/walk';
import { gateForms, writeGate } from '@zb/core/rules/write/forms';
import { formatPlace, formatRange } from '@zb/core/units/addressLine';
import {
  askFaultWords,
  changedWords,
  endWords,
  fateWords,
  packetWords,
  ruleWords,
} from '@zb/core/words/packet';
import { gateFaultWords } from '@zb/core/words/gateFault';
import { caveatWords, mendWords, nftReadWords } from '@zb/core/words/rules';
import { promiseWords } from '@zb/core/words/gatePlan';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';
import { readPlan } from './planFile';

/** A gate with its networks: a file of its own, or a box of a bench. Throws InputError. */
export function gateFile(text: string, box: string | undefined): GateFile {
  if (box === undefined) return readPlan(text, gateFileSchema);
  const bench = readBench(text);
  const found = boxOf(bench, box);
  if (!found.gate) throw new InputError(`no rule of ${found.name} is laid out yet`);
  return { format: 'zealous-box-gate', gate: found.gate, networks: bench.networks, hosts: bench.hosts };
}

const packetOut = (plan: GatePlan, p: NumberedPacket | null): object | null =>
  p && {
    iif: p.iif,
    source: formatPlace(p.saddr),
    destination: formatPlace(p.daddr),
    protocol: p.proto,
    sourcePort: p.sport,
    destinationPort: p.dport,
    state: p.state,
    day: p.day,
    second: p.second,
    says: packetWords(plan, p),
  };

const walkOut = (plan: GatePlan, ruleset: Ruleset, walk: Walk | null): object | null =>
  walk && {
    end: walk.end,
    by: walk.by,
    out: walk.out ?? null,
    atGate: walk.out === null,
    translated: walk.translated && {
      to: formatPlace(walk.translated.daddr),
      port: walk.translated.dport,
      rule: walk.translated.rule,
    },
    leavesAs: walk.leavesAs,
    unsure: walk.unsure,
    steps: walk.steps.map((s) => ({ ...s, says: ruleWords(plan, s.rule, ruleset) })),
    says: endWords(plan, walk),
  };

/** What `zb rules PLAN` prints: promises with what became of them, findings, mends; or one form as text. Throws InputError. */
export function rulesOutput(text: string, asked: { box?: string | undefined; as: string }): object | string {
  const { gate, networks, hosts } = gateFile(text, asked.box);
  const report = gateReport(gate, networks, hosts);
  const stops = report.findings.filter((f) => f.grade === 'stop');
  if (asked.as !== 'json') {
    const form = gateForms.find((f) => f === asked.as);
    if (!form) throw new InputError(`--as is json, ${gateForms.join(', ')}`);
    if (stops.length > 0)
      throw new InputError(
        `the rules are not given away: ${stops.map((s) => gateFaultWords(s.fault)).join(' ')}`,
      );
    return writeGate(form, gate, networks, hosts);
  }
  const ruleset = compileGate(gate, networks);
  return {
    rules: report.rules,
    kinds: report.kinds === null ? null : String(report.kinds),
    promises: report.kept.map((k) => ({
      id: k.promise.id,
      says: promiseWords(gate, k.promise),
      verdict: k.verdict,
      packet: packetOut(gate, k.packet),
      way: walkOut(gate, ruleset, k.walk),
      because: k.because,
      caveats: k.caveats.map((code) => ({ code, says: caveatWords(code) })),
      mends:
        k.verdict === 'fails'
          ? repairsOf(gate, networks, hosts, report.kept, k).map((r) => ({
              ...r.mend,
              says: mendWords(gate, r.mend),
            }))
          : [],
    })),
    seat: report.seat.map((s) => ({ port: s.port, verdict: s.verdict, packet: packetOut(gate, s.packet) })),
    seatMends: seatRepair(gate, networks, hosts, report.seat).map((r) => ({
      ...r.mend,
      says: mendWords(gate, r.mend),
    })),
    unused: report.unused.map((u) => ({ ...u, says: ruleWords(gate, u.rule, ruleset) })),
    findings: report.findings.map((f) => ({ ...f, says: gateFaultWords(f.fault) })),
    stops: stops.length,
  };
}

function reading(text: string): NftReading {
  try {
    return readNftJson(text);
  } catch (error) {
    if (error instanceof NftReadError) throw new InputError(nftReadWords(error.why));
    throw error;
  }
}

/** What `zb rules ask PACKET` prints: its way, rule by rule, and that of its answer. `rules`: others than the plan's own. Throws InputError. */
export function askOutput(
  packetText: string,
  planText: string,
  asked: { box?: string | undefined; rules?: string | undefined },
): object {
  const { gate, networks, hosts } = gateFile(planText, asked.box);
  const packet = numbered(readPlan(packetText, packetSchema), gate, networks);
  if (typeof packet === 'string') throw new InputError(askFaultWords(packet));
  const ruleset = asked.rules === undefined ? compileGate(gate, networks) : reading(asked.rules).ruleset;
  const told = askPacket(ruleset, groundOf(gate, networks, hosts).routes, packet);
  return {
    packet: packetOut(gate, told.packet),
    way: walkOut(gate, ruleset, told.walk),
    answer: told.answer && {
      packet: packetOut(gate, told.answer.packet),
      way: walkOut(gate, ruleset, told.answer.walk),
    },
  };
}

/** Whether a text is what `nft -j` printed, and not a plan. */
const isPrinted = (text: string): boolean => /"nftables"\s*:/.test(text.slice(0, 200));

/** Rules of a file: what `nft -j list ruleset` printed, or a plan's own. */
const rulesOf = (text: string, plan: GateFile): Ruleset =>
  isPrinted(text) ? reading(text).ruleset : compileGate(readPlan(text, gateFileSchema).gate, plan.networks);

const changedOut = (plan: GatePlan, c: Changed): object => ({
  state: c.state,
  above: c.above,
  iif: c.iif,
  fields: Object.fromEntries(
    Object.entries(c.spans).map(([f, ranges]) => [
      f,
      f === 'saddr' || f === 'daddr'
        ? ranges.map(formatRange)
        : ranges.map(([a, b]) => [Number(a), Number(b)]),
    ]),
  ),
  was: { ...c.was, says: fateWords(c.was) },
  is: { ...c.is, says: fateWords(c.is) },
  unsure: c.unsure,
  sample: packetOut(plan, c.sample),
  says: changedWords(plan, c),
});

/** What `zb rules compare A B` prints: packets whose end differs, as classes. The plan says what lies behind which port. Throws InputError. */
export function compareRulesOutput(
  a: string,
  b: string,
  planText: string | undefined,
): { same: boolean; cut: boolean; changed: object[] } {
  const plan = gateFile(planText ?? (isPrinted(a) ? b : a), undefined);
  const topology = topologyOf(plan.gate, plan.networks);
  const { known } = groundOf(plan.gate, plan.networks, plan.hosts);
  try {
    const found = compareRules(
      { ruleset: rulesOf(a, plan), topology },
      { ruleset: rulesOf(b, plan), topology },
      known,
    );
    return { same: found.same, cut: found.cut, changed: found.changed.map((c) => changedOut(plan.gate, c)) };
  } catch (error) {
    if (error instanceof TooManyClasses)
      throw new InputError('these rules cross each other too often to be compared whole');
    throw error;
  }
}

/** What `zb rules read NFT` prints: what was understood, what was not, and with a plan what it promises. Throws InputError. */
export function readRulesOutput(text: string, planText: string | undefined, box: string | undefined): object {
  const { ruleset, unknown } = reading(text);
  const plan = planText === undefined ? undefined : gateFile(planText, box);
  const report = plan && gateReport(plan.gate, plan.networks, plan.hosts, ruleset);
  return {
    chains: ruleset.chains.map((c) => ({ id: c.id, hook: c.hook, rules: c.rules.length })),
    unknown,
    strange: ruleset.strange,
    ...(plan && report
      ? {
          promises: report.kept.map((k) => ({
            id: k.promise.id,
            says: promiseWords(plan.gate, k.promise),
            verdict: k.verdict,
            packet: packetOut(plan.gate, k.packet),
            because: k.because,
            caveats: k.caveats.map((code) => ({ code, says: caveatWords(code) })),
          })),
          unused: report.unused,
        }
      : {}),
  };
}
