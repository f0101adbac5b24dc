import { randomFrom } from '../../units/random';
import type { Exercise } from '../play';
import { drawRig, type Asked } from '../rig/draw';
import { Rig } from '../rig/rig';

const machine = (id: string, stop: Exercise['stop'], asked: Asked): Exercise => ({
  id,
  stop,
  begin: (random) => new Rig(drawRig(random, asked), random),
  // The machine is the first thing that a seed draws.
  plan: (seed) => drawRig(randomFrom(seed), asked).plan,
});

/** Exercises at a machine: its firmware, and installers of four manners. */
export const machines: readonly Exercise[] = [
  machine('start-once', 'firmware', { task: 'start once', others: 0 }),
  machine('unsigned', 'firmware', { task: 'start once', others: 0, secure: true, signed: false }),
  machine('again-and-again', 'firmware', {
    task: 'put right',
    others: 0,
    choice: 'takes the first drive unasked',
  }),
  machine('it-asks', 'install', {
    task: 'install',
    others: 2,
    twin: true,
    choice: 'asks for the drive',
    manner: { lists: ['size', 'model'] },
  }),
  machine('it-has-chosen', 'install', {
    task: 'install',
    others: 2,
    twin: true,
    choice: 'preselects the first drive',
    manner: { lists: ['size'], ends: 'powers off' },
  }),
  machine('it-takes-the-first', 'install', {
    task: 'install',
    others: 2,
    choice: 'takes the first drive unasked',
    manner: { ends: 'asks for a restart' },
  }),
  machine('it-takes-the-largest', 'install', {
    task: 'install',
    others: 2,
    larger: true,
    choice: 'takes the largest drive unasked',
    manner: { ends: 'restarts by itself' },
  }),
];
