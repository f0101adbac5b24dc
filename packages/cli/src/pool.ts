import { moveSteps } from '@zb/core/model/moving';
import { poolAskSchema, poolManners, poolShapes, type PoolAsk, type PoolWay } from '@zb/core/model/storage';
import { checkCopies } from '@zb/core/storage/backup';
import { checkOffer, checkRoom, type PoolFinding } from '@zb/core/storage/check';
import { poolScript, poolSteps } from '@zb/core/storage/commands';
import { makingOf } from '@zb/core/storage/making';
import { moveCommand } from '@zb/core/storage/moveCommand';
import { moveState } from '@zb/core/storage/moving';
import { storageOf } from '@zb/core/storage/forBox';
import { offers, sameWay, type PoolOffer } from '@zb/core/storage/ways';
import {
  faultBecause,
  growthWords,
  lettersOf,
  noCommandsWords,
  rowsWords,
  survivesWords,
  wayTitle,
} from '@zb/core/words/storage';
import { copyFaultWords, poolFaultWords } from '@zb/core/words/poolFault';
import { backWords, moveFaultWords, moveStepWords } from '@zb/core/words/moving';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';
import { readPlan } from './planFile';

/** How ways are asked for on the command line. */
export interface PoolAsked {
  manner?: string;
  way?: string;
  spares?: boolean;
  as: string;
  box?: string;
  name: string;
}

/** What a way is called on the command line: “groups copies 2”, with “spare” where one drive waits. */
const wayName = ({ manner, shape, level, spare }: PoolWay): string =>
  [manner, shape, level, ...(spare ? ['spare'] : [])].join(' ');

function wayFrom(text: string): PoolWay {
  const [manner, shape, level, spare] = text.split(/[\s,]+/);
  const found = {
    manner: poolManners.find((m) => m === manner),
    shape: poolShapes.find((s) => s === shape),
    level: Number(level),
  };
  if (
    !found.manner ||
    !found.shape ||
    !Number.isInteger(found.level) ||
    (spare !== undefined && spare !== 'spare')
  )
    throw new InputError(`--way is like “groups copies 2” or “plain parity 1 spare”: ${text} is none`);
  return { manner: found.manner, shape: found.shape, level: found.level, spare: spare === 'spare' };
}

const says = (f: PoolFinding): object => ({ ...f, says: poolFaultWords(f.fault) });

function told(o: PoolOffer, findings: readonly PoolFinding[]): object {
  const letters = lettersOf([...o.pool.rows.flat(), ...(o.pool.spare ? [o.pool.spare] : []), ...o.pool.left]);
  return {
    way: wayName(o.pool.way),
    title: wayTitle(o.pool.way),
    rows: o.pool.rows.map((r) => r.map((d) => d.id)),
    spare: o.pool.spare?.id ?? null,
    left: o.pool.left.map((d) => d.id),
    says: rowsWords(o.pool, letters),
    raw: o.room.raw,
    usable: o.room.usable,
    takes: o.room.takes,
    shares: o.room.shares,
    survives: { ...o.survival, says: survivesWords(o.survival) },
    rates: o.rates,
    rebuild: o.rebuild ? { ...o.rebuild, because: faultBecause(o.rebuild.fault) } : null,
    making: makingOf(o.pool, o.room),
    memory: o.memory,
    costs: o.costs,
    growth: { ...o.growth, says: growthWords(o.growth) },
    findings: findings.map(says),
  };
}

function commandsOf(o: PoolOffer, named: { name: string; recordBytes: number }): string {
  const made = poolSteps(o.pool, named);
  if ('code' in made) throw new InputError(noCommandsWords(made));
  return poolScript(o.pool, named.name, made.steps);
}

/** Of ways that were asked for, the one that is written: the only one, or the one that is named. */
function oneOf(found: readonly PoolOffer[]): PoolOffer {
  const [only] = found;
  if (!only || found.length > 1)
    throw new InputError(`say which way with --way: ${found.map((o) => wayName(o.pool.way)).join('; ')}`);
  return only;
}

/** What `zb pool` prints of drives: every way they make, or one as commands. Bytes, seconds, watts. Throws InputError. */
export function poolOutput(text: string, asked: PoolAsked): object | string {
  const manner = asked.manner === undefined ? undefined : poolManners.find((m) => m === asked.manner);
  if (asked.manner !== undefined && manner === undefined)
    throw new InputError(`--manner is one of ${poolManners.join(', ')}`);
  if (asked.box !== undefined) return ofBox(text, asked.box, asked);
  const ask: PoolAsk = readPlan(text, poolAskSchema);
  const want = asked.way === undefined ? undefined : wayFrom(asked.way);
  const all = offers(ask, {
    ...(manner === undefined ? {} : { manner }),
    spares: asked.spares === true || want?.spare === true,
  });
  const found = want ? all.filter((o) => sameWay(o.pool.way, want)) : all;
  if (want && found.length === 0) throw new InputError(`these drives do not make “${wayName(want)}”`);
  if (asked.as === 'commands')
    return commandsOf(oneOf(found), { name: asked.name, recordBytes: ask.recordBytes });
  return { drives: ask.drives.length, ways: found.map((o) => told(o, checkOffer(o))) };
}

function ofBox(text: string, id: string, asked: PoolAsked): object | string {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  const { chosen, drives, pool, findings, room } = storageOf(bench, box);
  if (asked.as === 'commands') {
    if (!chosen) throw new InputError(`no way was taken for ${box.name}, or its drives do not make it`);
    return commandsOf(chosen, pool);
  }
  const ways = offers({ drives, filled: pool.filled }, { spares: asked.spares === true });
  const today = new Date().toISOString().slice(0, 10);
  return {
    box: box.id,
    drives: drives.map((d) => d.id),
    taken: chosen ? told(chosen, findings) : null,
    ways: ways.map((o) => told(o, [...checkRoom(o, room), ...checkOffer(o)])),
    copies: checkCopies(box.things, today).map((f) => ({ ...f, says: copyFaultWords(f.fault) })),
  };
}

/** What `zb moving` prints: of everything that moves to a box, its steps with what is typed, and whether one can go back. Throws InputError. */
export function movingOutput(text: string, id: string, today: string): object {
  const box = boxOf(readBench(text), id);
  return {
    box: box.id,
    moving: box.moving.map((m) => {
      const state = moveState(m, today);
      return {
        what: m.what,
        kind: m.kind,
        ...state,
        says: backWords(state),
        findings: state.findings.map((f) => ({ ...f, says: moveFaultWords(f.fault) })),
        steps: moveSteps.map((step) => ({
          step,
          done: m.done[step] ?? null,
          title: moveStepWords(step).title,
          command: moveCommand(m, step),
        })),
      };
    }),
  };
}
