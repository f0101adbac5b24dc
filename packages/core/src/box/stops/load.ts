import { checkGate } from '../../rules/check';
import { guestsOf, isHost } from '../../guests/forBox';
import { isGate, reportOfBox } from '../../rules/forBox';
import { checkCopies } from '../../storage/backup';
import { checkScrub } from '../../storage/check';
import { makingOf } from '../../storage/making';
import { keepsThings, storageOf } from '../../storage/forBox';
import { moveState } from '../../storage/moving';
import { sharingOf } from '../../storage/share/forBox';
import { formatBoth } from '../../units/bytes';
import { hazard, type Hazard } from '../hazard';
import type { Scene } from '../scene';
import { plainStop, type StopModule } from '../stopModule';
import { judgedOn } from '../today';

function carriedHazards(bench: Scene['bench'], box: Scene['box']): Hazard[] {
  const { carried } = box;
  if (!carried) return [];
  const room = storageOf(bench, box).chosen?.room.usable;
  const { folder, open, bytes } = carried;
  return [
    ...(open > 0 ? [hazard('copy would stop', 'check', 'load', { folder, open })] : []),
    ...(room !== undefined && bytes > room
      ? [hazard('too much to carry', 'stop', 'load', { folder, bytes, room })]
      : []),
  ];
}

function movingHazards(box: Scene['box']): Hazard[] {
  const today = judgedOn();
  if (today === undefined) return [];
  return box.moving.flatMap((m) =>
    moveState(m, today).findings.map((f) =>
      hazard('moving', f.grade, 'load', {}, { from: { moving: f.fault } }),
    ),
  );
}

/** What is wrong with the rules of a gate; larger ones are judged when their sheet is open. */
function ruleHazards({ bench, box }: Pick<Scene, 'bench' | 'box'>): Hazard[] {
  const { gate } = box;
  if (!gate || gate.zones.length === 0) return [];
  const found = reportOfBox(bench, box)?.findings ?? [
    { grade: 'check' as const, fault: { code: 'not judged' as const, permits: gate.permits.length } },
    ...checkGate(gate, bench.networks),
  ];
  return found.map((f) => hazard('rules', f.grade, 'load', {}, { from: { rules: f.fault } }));
}

function guestHazards({ bench, box }: Pick<Scene, 'bench' | 'box'>): Hazard[] {
  if (!box.guests || box.guests.guests.length === 0) return [];
  return guestsOf(bench, box).findings.map((f) =>
    hazard('guests', f.grade, 'load', {}, { from: { guests: f.fault } }),
  );
}

function hazards({ bench, box }: Scene): Hazard[] {
  const shared = box.sharing
    ? sharingOf(bench, box).findings.map((f) =>
        hazard('sharing', f.grade, 'load', {}, { from: { sharing: f.fault } }),
      )
    : [];
  shared.push(
    ...carriedHazards(bench, box),
    ...movingHazards(box),
    ...ruleHazards({ bench, box }),
    ...guestHazards({ bench, box }),
  );
  if (!keepsThings(bench, box)) return shared;
  const today = judgedOn();
  const { findings, pool } = storageOf(bench, box);
  const scrub = box.pool?.way && today !== undefined ? checkScrub(pool, today) : [];
  const copies = today === undefined ? [] : checkCopies(box.things, today);
  return [
    ...[...findings, ...scrub].map((f) =>
      hazard(
        'pool',
        f.grade,
        'load',
        {},
        { from: { pool: f.fault }, ...(f.store ? { store: f.store } : {}) },
      ),
    ),
    ...shared,
    ...copies.map((f) => hazard('copies', f.grade, 'load', {}, { from: { copies: f.fault } })),
  ];
}

const plain = plainStop('load', [8, 15], [5, 60]);

export const load: StopModule = {
  ...plain,
  hazards,
  questions: ({ bench, box }) =>
    isGate(box) && (box.gate?.zones.length ?? 0) === 0
      ? [`What may talk to what through ${box.name}?`]
      : isHost(box) && (box.guests?.guests.length ?? 0) === 0
        ? [`Which guests does ${box.name} host?`]
        : keepsThings(bench, box) && !box.signoffs.some((s) => s.stop === 'load')
          ? [
              ...(box.pool?.way ? [] : [`Which way does ${box.name} keep things?`]),
              ...(box.sharing?.folders.length ? [] : [`Which folders of ${box.name} do others reach?`]),
              ...(box.things.length > 0 ? [] : [`What on ${box.name} must not be lost?`]),
            ]
          : [],
  // A new pool is written through once before it is whole.
  waiting: (scene) => {
    const { chosen } = storageOf(scene.bench, scene.box);
    return chosen ? makingOf(chosen.pool, chosen.room) : plain.waiting(scene);
  },
  bytesAtRisk: ({ bench, box }) =>
    storageOf(bench, box)
      .candidates.filter((c) => c.taken && c.holds !== '' && box.pool?.way !== null && box.pool !== null)
      .map((c) => ({
        label: c.store.name,
        value: formatBoth(c.store.bytes),
        because: `A pool is made of it; on it: ${c.holds}`,
      })),
};
