import { guestsOf, isHost } from '../../guests/forBox';
import { hostsOfBox } from '../../model/bench';
import { isGate } from '../../rules/forBox';
import { gateFile } from '../../rules/write/forms';
import { makingOf } from '../../storage/making';
import type { Effect } from '../../plan/effect';
import { poolSteps, type PoolStep } from '../../storage/commands';
import { storageOf } from '../../storage/forBox';
import { moveSteps } from '../../model/moving';
import { step, type StepDraft } from '../../runsheet/step';
import { span } from '../../units/duration';
import type { Scene } from '../scene';

const AFTER = ['survey:*', 'choose:*', 'first:*', 'net:*'];

/** The first of these makes the drives part of the pool. */
const MAKES: readonly PoolStep['code'][] = ['make rows', 'make pool', 'make file system'];

function pool({ bench, box }: Scene): StepDraft[] {
  const { chosen, candidates, pool: decided } = storageOf(bench, box);
  if (!chosen) return [];
  const typed = poolSteps(chosen.pool, decided);
  if ('code' in typed) {
    const of = typed.code === 'no serial' ? typed.drives.join(', ') : typed.serial;
    // It is decided and cannot be done: a step that says what is lacking, not none.
    return [
      step(
        'load',
        'load:pool',
        { code: 'pool', step: 'find drives', text: '', erases: false },
        { after: AFTER, must: [{ code: 'drives have serials', of, id: null }] },
      ),
    ];
  }
  let before: string | undefined;
  const makes = typed.steps.find((s) => MAKES.includes(s.code));
  const effects = candidates
    .filter((c) => c.taken)
    .map(({ store }): Effect => ({ code: 'make pool', medium: store.id }));
  return typed.steps
    .filter((s) => s.code !== 'replace' && s.code !== 'read through')
    .map((s, i) => {
      const key = `load:pool:${i}:${s.code}`;
      const after = [...AFTER, ...(before ? [before] : [])];
      before = key;
      return step(
        'load',
        key,
        { code: 'pool', step: s.code, text: s.text, erases: s.erases },
        {
          after,
          hurts: s.erases ? ['what is on the drive is lost'] : [],
          effects: s === makes ? effects : [],
          back: s.erases ? 'from a copy alone' : 'do it again',
          alone: s.code === 'state' ? makingOf(chosen.pool, chosen.room) : span(0),
        },
      );
    });
}

/** Where a box answers; null where nobody has said. */
const addressOf = ({ bench, box }: Scene): string | null =>
  hostsOfBox(bench, box.id).find((h) => h.address !== null)?.address ?? null;

function gate(scene: Scene): StepDraft[] {
  const { box } = scene;
  if (!isGate(box) || !box.gate || box.gate.zones.length === 0) return [];
  const { zones, permits, promises, confirmSeconds: seconds } = box.gate;
  const file = gateFile.rollback;
  return [
    step(
      'load',
      'load:rules brought',
      { code: 'bring the rules', file, to: addressOf(scene) },
      { after: AFTER },
    ),
    step(
      'load',
      'load:rules',
      { code: 'load the rules', file, zones: zones.length, permits: permits.length, seconds },
      { after: ['load:rules brought'] },
    ),
    step('load', 'load:rules kept', { code: 'keep the rules', file, seconds }, { after: ['load:rules'] }),
    step(
      'load',
      'load:rules tried',
      { code: 'try the rules', promises: promises.filter((p) => p.on).map((p) => p.id) },
      { after: ['load:rules kept'] },
    ),
  ];
}

function guests({ bench, box }: Scene): StepDraft[] {
  if (!isHost(box)) return [];
  const { plan } = guestsOf(bench, box);
  return [...plan.guests]
    .sort((a, b) => a.order - b.order)
    .flatMap((g) => [
      step(
        'load',
        `load:guest:${g.id}`,
        {
          code: 'make a guest',
          guest: g.name,
          memory: g.memoryBytes,
          cores: g.cores,
          disk: g.disks.reduce((n, d) => n + d.bytes, 0),
        },
        { after: [...AFTER, 'load:pool:*'] },
      ),
      ...(g.autostart
        ? [
            step(
              'load',
              `load:guest start:${g.id}`,
              { code: 'start the guest by itself', guest: g.name, place: g.order, seconds: g.delaySeconds },
              { after: [`load:guest:${g.id}`] },
            ),
          ]
        : []),
    ]);
}

function things(scene: Scene): StepDraft[] {
  const { box } = scene;
  const { carried } = box;
  return [
    ...(box.sharing?.folders ?? []).flatMap((f) => [
      step(
        'load',
        `load:share:${f.id}`,
        { code: 'share', folder: f.name, path: f.path, protocols: [...f.protocols] },
        { after: [...AFTER, 'load:pool:*'] },
      ),
      step(
        'load',
        `load:share tried:${f.id}`,
        {
          code: 'try the share',
          folder: f.name,
          path: f.path,
          protocols: [...f.protocols],
          host: addressOf(scene),
        },
        { after: [`load:share:${f.id}`] },
      ),
    ]),
    ...(carried
      ? [
          step(
            'load',
            'load:carry',
            { code: 'carry', folder: carried.folder, bytes: carried.bytes, files: carried.files },
            { after: [...AFTER, 'load:pool:*', 'load:share:*'] },
          ),
        ]
      : []),
    ...box.moving.flatMap((m) =>
      moveSteps.map((s, i) =>
        step(
          'load',
          `load:move:${m.id}:${s}`,
          { code: 'move', moving: m.what, step: s, from: m.from },
          {
            after: [...AFTER, 'load:pool:*', ...moveSteps.slice(0, i).map((b) => `load:move:${m.id}:${b}`)],
            seen: m.done[s] !== undefined,
          },
        ),
      ),
    ),
    ...box.things.map((t) =>
      step(
        'load',
        `load:copy:${t.id}`,
        { code: 'copy of', thing: t.what },
        {
          after: ['load:carry', 'load:share:*', 'load:pool:*', ...AFTER],
          seen: t.copies.some((c) => c.at !== null),
        },
      ),
    ),
  ];
}

/** What the box is for: its pool, folders, rules, guests and content. */
export const loadSteps = (scene: Scene): StepDraft[] => [
  ...pool(scene),
  ...gate(scene),
  ...guests(scene),
  ...things(scene),
];
