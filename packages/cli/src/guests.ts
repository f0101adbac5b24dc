import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import loadHighs from 'highs';
import { solverFrom } from '@zb/core/assign/highs';
import { checkGuests } from '@zb/core/guests/check';
import { guestsOf } from '@zb/core/guests/forBox';
import { potOf, type Pot } from '@zb/core/guests/pot';
import { DomainReadError } from '@zb/core/guests/read/domain';
import { leftOf, readHost } from '@zb/core/guests/read/tables';
import { waysToFit } from '@zb/core/guests/trim';
import type { Mended } from '@zb/core/guests/repair';
import { placeOnSockets } from '@zb/core/guests/sockets';
import { coreSum, memorySum, poolSums } from '@zb/core/guests/sums';
import { turnsOf } from '@zb/core/guests/turns';
import { forecastOf } from '@zb/core/guests/volume';
import { domainXml } from '@zb/core/guests/write/domain';
import { guestFiles } from '@zb/core/guests/write/forms';
import { guestsMarkdown } from '@zb/core/guests/write/markdown';
import { networkXml } from '@zb/core/guests/write/network';
import { seedFiles } from '@zb/core/guests/write/seed';
import { guestFileSchema, type Guest, type GuestPlan } from '@zb/core/model/guests';
import { guestFaultWords } from '@zb/core/words/guestFault';
import { changeWords, mendResultWords, trimWords } from '@zb/core/words/guests';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';
import { readPlan } from './planFile';

/** What is asked of guests. */
export interface GuestsAsked {
  box?: string | undefined;
  as: string;
  guest?: string | undefined;
  out?: string | undefined;
  fit?: boolean | undefined;
}

/** Guests with their pot: a file of their own, or a box of a bench. Throws InputError. */
function guestPlan(
  text: string,
  box: string | undefined,
): { plan: GuestPlan; pot: Pot; findings: ReturnType<typeof checkGuests> } {
  if (box === undefined) {
    const { plan } = readPlan(text, guestFileSchema);
    const pot = potOf(plan, { cores: null, threads: null, memory: null });
    return { plan, pot, findings: checkGuests(plan, pot) };
  }
  const bench = readBench(text);
  const found = boxOf(bench, box);
  if (!found.guests) throw new InputError(`no guest of ${found.name} is laid out yet`);
  return guestsOf(bench, found);
}

const one = (plan: GuestPlan, name: string | undefined): Guest[] => {
  if (name === undefined) return plan.guests;
  const found = plan.guests.filter((g) => g.name === name || g.id === name);
  if (found.length === 0) throw new InputError(`no guest is called ${name}`);
  return found;
};

/** What `zb guests PLAN` prints: sums, turns, findings and with `--fit` the smallest change; or one form as text. Throws InputError. */
export async function guestsOutput(text: string, asked: GuestsAsked): Promise<object | string> {
  const { plan, pot, findings } = guestPlan(text, asked.box);
  const guests = one(plan, asked.guest);
  if (asked.out !== undefined) return await written(plan, pot, asked.out);
  switch (asked.as) {
    case 'xml':
      return [
        ...guests.map((g) => domainXml(plan, pot, g)),
        ...(asked.guest === undefined ? plan.nets.map(networkXml) : []),
      ].join('');
    case 'seed':
      return guests.flatMap((g) => seedFiles(g).map((f) => `--- ${g.name}/${f.name}\n${f.text}`)).join('');
    case 'md':
      return guestsMarkdown(plan, pot);
    case 'json':
      break;
    default:
      throw new InputError('--as is json, xml, seed or md');
  }
  const mend = asked.fit === true ? waysToFit(plan, pot, solverFrom(await loadHighs())) : undefined;
  const placed = pot.sockets > 1 ? placeOnSockets(plan, pot) : undefined;
  return {
    pot,
    memory: memorySum(plan, pot) ?? null,
    cores: coreSum(plan, pot) ?? null,
    pools: poolSums(plan).map(({ pool, ...sum }) => ({ pool: pool.name, ...sum })),
    turns: turnsOf(plan, pot).map(({ guest, ...t }) => ({ guest: guest.name, ...t })),
    sockets: placed
      ? { at: Object.fromEntries(placed.at), spans: placed.spans, left: placed.left, proven: placed.proven }
      : null,
    volume: forecastOf(plan) ?? null,
    findings: findings.map((f) => ({ ...f, says: guestFaultWords(f.fault) })),
    stops: findings.filter((f) => f.grade === 'stop').length,
    ...(mend
      ? {
          mend: {
            code: mend.smallest.code,
            says: mendResultWords(mend.smallest),
            ...(mend.smallest.code === 'mended' ? mendedOutput(plan, mend.smallest.mended) : {}),
            everywhere: mend.everywhere && {
              says: trimWords(mend.everywhere),
              ...mendedOutput(plan, mend.everywhere),
            },
          },
        }
      : {}),
  };
}

const mendedOutput = (plan: GuestPlan, { touched, weight, mebibytes, changes }: Mended) => ({
  touched,
  weight,
  mebibytes,
  changes: changes.map((c) => ({ ...c, says: changeWords(plan, c) })),
});

async function written(plan: GuestPlan, pot: Pot, folder: string): Promise<object> {
  const files = guestFiles(plan, pot);
  for (const f of files) {
    const path = join(folder, f.path);
    await mkdir(dirname(path), { recursive: true });
    await writeFile(path, f.content);
  }
  return { written: files.map((f) => f.path) };
}

/** What `zb guests read FILE` prints: a running host as it told of itself, and what it has left. Throws InputError. */
export function hostOutput(text: string): object {
  try {
    const host = readHost(text);
    const plan = guestFileSchema.parse({ plan: {} }).plan;
    const { reserve } = potOf(plan, { cores: host.cores, threads: host.threads, memory: host.memoryBytes });
    return { ...host, left: leftOf(host, reserve.base + reserve.cache, reserve.perGuest), reserve };
  } catch (error) {
    if (error instanceof DomainReadError)
      throw new InputError(
        'nothing of a running host is in it: give what virsh nodeinfo, list --all, dominfo, dumpxml or pool-list --details print',
      );
    throw error;
  }
}
