import { loaderPlaces } from '../model/installer';
import type { Ending } from './ending';
import { NOTHING, type Stage } from './stage';
import { questionOf } from './question';
import { bootFrom, firstStart, type Started } from './start';
import { Scenes, State } from './state';
import { takeDrive } from './take';
import { Order, type Asker, type Taken } from './walk';
import { cuts, stickMoments } from './varies';
import type { Frame, StartedHow } from './frames';

const startEnding = (stage: Stage, started: Started | null): Ending => {
  if (!started) return 'nothing starts';
  if (started.isNew) return 'right system starts';
  return started.drive === stage.installer ? 'installer starts again' : 'another system starts';
};

/**
 * Carries a plan out in one world and says how it ends. It asks about the world and about precautions only what it needs,
 * when it needs it: that is what lets worlds be counted without being walked. docs/rehearsal.md, “The run”.
 */
export function run(stage: Stage, asker: Asker, taken: Taken, frames: Frame[] | null): Ending {
  const { plan } = stage;
  const state = new State(stage, asker, taken);
  const scenes = new Scenes(state, frames);
  const boot = (stickIn: boolean, how: StartedHow): Started | null => bootFrom(state, stickIn, how, scenes);
  const end = (ending: Ending): Ending => {
    scenes.add({ code: 'end', ending });
    return ending;
  };
  const cut = (): (typeof cuts)[number] =>
    taken.has(stage.offers.power) ? 'holds' : (cuts[asker.answer(questionOf.power)] ?? 'holds');
  scenes.ready();

  if (plan.kind === 'install') {
    const started = firstStart(state, scenes);
    if (started?.drive !== stage.installer) return end(startEnding(stage, started));
    state.mode = started.mode;
  }

  const order = new Order(
    asker,
    stage.drives.map((_, i) => i),
  );
  const p = takeDrive(state, order, scenes);
  if (cut() === 'before the table') {
    scenes.add({ code: 'cut', when: 'before the table' });
    if (plan.kind === 'write') return end('nothing written');
    return end(startEnding(stage, boot(true, 'power back')));
  }

  const drive = stage.drives[p.drive];
  if (!drive) throw new Error('A drive was taken that is not in the plan.');
  const whole = p.drive !== stage.target || !p.beside;
  state.erase(p.drive, whole);
  if (whole && state.matters(p.drive)) return end('kept drive erased');
  if (p.drive !== stage.target) return end('other drive erased');
  scenes.add({ code: 'written', drive: drive.id, whole });

  const after = cut();
  if (after === 'while copying' || after === 'before the loader') {
    state.looks[p.drive] = 'half written';
    scenes.add({ code: 'cut', when: after });
    return end(state.matters(p.drive) ? 'half written, for good' : 'half written, again');
  }
  if (plan.kind === 'write') return end('written');

  const moment = taken.has(stage.offers['stick out'])
    ? 'in time'
    : (stickMoments[asker.answer(questionOf.stick)] ?? 'in time');
  if (moment === 'too early') {
    state.looks[p.drive] = 'half written';
    scenes.add({ code: 'stick out too early' });
    return end(state.matters(p.drive) ? 'half written, for good' : 'half written, again');
  }

  const l = loaderDrive(state, order);
  const stoodThere = state.startsOf(l, state.mode) !== NOTHING;
  const entry =
    (state.mode === 'uefi' && plan.installer.entry === 'made') || taken.has(stage.offers['target first']);
  state.install(l, stage.target);
  if (entry) state.first = l;
  scenes.add({ code: 'loader', drive: stage.drives[l]?.id ?? '', entry });
  // Beside a kept system the new one takes its boot sector, or its loader in the one place firmware looks in by itself.
  const overwrites =
    l !== stage.target || (stoodThere && (state.mode === 'bios' || plan.installer.entry !== 'made'));
  if (overwrites && state.matters(l)) return end('kept start altered');

  const cutAtRestart = after === 'before the restart';
  if (cutAtRestart) scenes.add({ code: 'cut', when: 'before the restart' });
  const stickIn = cutAtRestart || moment === 'left in';
  if (!cutAtRestart) scenes.add({ code: 'stick', out: !stickIn });
  if (state.stickFirst && !cutAtRestart && asker.answer(questionOf['set back']) === 0)
    state.stickFirst = false;
  const restart = boot(stickIn, cutAtRestart ? 'power back' : 'restart');
  if (!restart?.isNew) return end(startEnding(stage, restart));

  const back = state.putBack();
  if (back.length > 0)
    scenes.add({
      code: 'put back',
      drives: back.flatMap((i) => stage.drives[i]?.id ?? []),
      forgotten: state.forgets,
    });
  return end(startEnding(stage, boot(false, 'later')));
}

function loaderDrive(state: State, order: Order): number {
  const { stage, asker } = state;
  const place = stage.plan.installer.loader ?? loaderPlaces[asker.answer(questionOf.loader)];
  const there = (d: number): boolean => d !== stage.installer && state.present(d);
  if (place === 'the first drive') return order.first(there) ?? stage.target;
  if (place === 'the first start part found' && state.mode === 'uefi')
    return (
      order.first((d) => there(d) && (d === stage.target || stage.drives[d]?.startPart === true)) ??
      stage.target
    );
  return stage.target;
}
