import type { StartedHow } from './frames';
import { questionOf } from './question';
import { NEW, NOTHING } from './stage';
import type { Scenes, State } from './state';

type Mode = 'uefi' | 'bios';
const MODES: Record<'uefi' | 'bios' | 'both', readonly Mode[]> = {
  uefi: ['uefi'],
  bios: ['bios'],
  both: ['uefi', 'bios'],
};

/** What the firmware started: the drive that it went to, under which mode, and whether it is the new system. */
export interface Started {
  drive: number;
  mode: Mode;
  isNew: boolean;
}

/** The modes that the firmware tries, in its order. */
function modesNow({ stage, taken, asker }: State): readonly Mode[] {
  const { mode } = stage.plan.machine;
  if (mode !== 'uefi' && mode !== 'bios' && taken.has(stage.offers.mode)) return MODES[stage.fixedMode];
  return MODES[mode ?? (asker.answer(questionOf.mode) === 0 ? 'uefi' : 'bios')];
}

/** Does BIOS give up after the first drive that is there? */
function firstAlone({ stage, asker }: State): boolean {
  const { biosTries } = stage.plan.machine;
  return biosTries === 'first' || (biosTries === null && asker.answer(questionOf['bios tries']) === 1);
}

const keyEnrolled = ({ stage, taken, asker }: State): boolean =>
  taken.has(stage.offers.enrol) || asker.answer(questionOf.enrol) === 0;

function secureBootOn({ stage, taken, asker }: State): boolean {
  const { secureBoot } = stage.plan.machine;
  if (secureBoot === 'off' || taken.has(stage.offers['secure off'])) return false;
  return secureBoot === 'on' || asker.answer(questionOf['secure boot']) === 1;
}

/** What starts when the firmware goes to a drive under a mode; null where nothing does, or it is refused. */
function startOf(state: State, d: number, mode: Mode): Started | null {
  const { stage } = state;
  let what = state.startsOf(d, mode);
  if (what === NOTHING || stage.reachable[d] !== true || !state.present(d)) return null;
  if (mode === 'uefi' && state.signed[d] !== true && secureBootOn(state)) {
    // What was just installed starts once its key is enrolled, where it is signed by one.
    const enrolled = what === NEW && stage.plan.installer.enrols && keyEnrolled(state);
    if (!enrolled) return null;
  }
  const handsOn = stage.chain[d] ?? -1;
  // A chain loader that the installation has replaced hands on to nothing.
  if (handsOn >= 0 && what !== NEW) {
    if (!state.present(handsOn)) return null;
    what = state.startsOf(handsOn, mode);
    if (what === NOTHING) return null;
  }
  return { drive: d, mode, isNew: what === NEW };
}

function said({ stage }: State, scenes: Scenes, how: StartedHow, started: Started | null): Started | null {
  if (!started) scenes.add({ code: 'nothing starts', how });
  else
    scenes.flash(started.drive, 'starts', {
      code: 'starts',
      how,
      drive: stage.drives[started.drive]?.id ?? '',
      mode: started.mode,
    });
  return started;
}

/**
 * UEFI 2.10 §3.1: entries are tried in their order until one starts. BIOS: BIOS Boot Specification
 * 1.01, by which the first hard disk alone is tried; firmware that goes on to the next is common practice, no source.
 */
export function bootFrom(state: State, stickIn: boolean, how: StartedHow, scenes: Scenes): Started | null {
  const { stage } = state;
  const modes = modesNow(state);
  for (const d of state.order()) {
    if (d === stage.installer && !stickIn) continue;
    for (const mode of modes) {
      const started = startOf(state, d, mode);
      if (started) return said(state, scenes, how, started);
    }
    if (modes[0] === 'bios' && stage.reachable[d] && state.present(d) && firstAlone(state)) break;
  }
  return said(state, scenes, how, null);
}

/** The first start with the stick in: by the one-time menu, or by the order. */
export function firstStart(state: State, scenes: Scenes): Started | null {
  const { stage, taken, asker } = state;
  const boot = (how: StartedHow): Started | null => bootFrom(state, true, how, scenes);
  if (state.stickFirst) return boot('stick first');
  if (!taken.has(stage.offers.key) && asker.answer(questionOf.key) === 1) return boot('key missed');
  const line = stage.world.menu[asker.answer(questionOf.entry)];
  const named = line ? stage.drives.findIndex((d) => d.id === line.drive) : -1;
  const drive = named >= 0 && state.present(named) ? named : stage.installer;
  if (line?.dead === true) return boot('dead line');
  const modes = modesNow(state);
  const wanted = line?.mode && modes.includes(line.mode) ? [line.mode] : modes;
  for (const mode of wanted) {
    const started = startOf(state, drive, mode);
    if (started) return said(state, scenes, 'menu', started);
  }
  return boot('line does not start');
}
