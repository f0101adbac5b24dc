import type { PracticeAct } from '../../model/practice';
import { said, type Part, type Said } from '../said';
import { offer, type RigScreen, type Row } from '../scene';
import type { Tale } from '../tale';
import { screenOf } from './firmware';
import { COUNTDOWN, WRITING, type RigState } from './state';

const COLUMNS = ['size', 'model', 'label', 'serial'] as const;

/** What the installer lists of a drive: its place this time, the columns of its manner, and the serial once it was asked for. */
function row(rig: RigState, id: string, place: number): Row {
  const { installer } = rig.setup.plan;
  const d = rig.drive(id);
  const values = { place };
  const cells: Record<(typeof COLUMNS)[number], Part> = {
    size: said('bytes', { bytes: d.bytes }),
    model: d.model,
    label: d.label ?? '–',
    serial: d.serial ?? '–',
  };
  const shown = rig.shown.has(id) && !installer.lists.includes('serial');
  return {
    id,
    cells: [
      said('drive place', values),
      ...COLUMNS.filter((c) => installer.lists.includes(c)).map((c) => cells[c]),
      ...(installer.lists.includes('serial') ? [] : [shown ? cells.serial : '']),
    ],
    here: rig.picked === id,
    offers: [
      offer('choose', id, values),
      ...(installer.lists.includes('serial') || shown ? [] : [offer('details', id, values)]),
    ],
  };
}

const headsOf = (rig: RigState): Said[] => {
  const { lists } = rig.setup.plan.installer;
  return [
    said('place'),
    ...COLUMNS.filter((c) => lists.includes(c) || c === 'serial').map((c) => said(`column ${c}`)),
  ];
};

const rowsOf = (rig: RigState): Row[] => rig.list.map((id, i) => row(rig, id, i + 1));

/** The installer before it writes: it asks, it has chosen already, or it counts down and asks nobody. */
export function installerScreen(rig: RigState): RigScreen {
  switch (rig.setup.plan.installer.choice) {
    case 'takes the first drive unasked':
    case 'takes the largest drive unasked':
      return screenOf(
        'unasked',
        [said(rig.setup.plan.installer.choice), said('begins in', { beats: COUNTDOWN - rig.beat })],
        { beat: { at: rig.beat, of: COUNTDOWN, from: 0, to: 0 }, offers: [offer('wait')] },
      );
    case 'preselects the first drive':
      return screenOf('list', [said('installer chosen')], {
        heads: headsOf(rig),
        rows: rowsOf(rig),
        offers: rig.picked === null ? [] : [offer('go on')],
      });
    default:
      return screenOf('form', [said('installer asks')], { heads: headsOf(rig), rows: rowsOf(rig) });
  }
}

/** The last question before it erases. */
export function sureScreen(rig: RigState): RigScreen {
  const id = rig.picked ?? '';
  return screenOf('form', [said('sure', { place: rig.list.indexOf(id) + 1, bytes: rig.drive(id).bytes })], {
    offers: [offer('erase'), offer('back')],
  });
}

/** While it writes. */
export const workingScreen = (rig: RigState): RigScreen =>
  screenOf('working', [said('working')], {
    beat: { at: rig.beat, of: WRITING, from: 0, to: 0 },
    offers: [offer('wait')],
  });

/** What is done at the installer. */
export function inInstaller(rig: RigState, act: PracticeAct, tale: Tale): void {
  const { installer } = rig.setup.plan;
  switch (act.do) {
    case 'wait': {
      rig.beat += 1;
      if (rig.beat < COUNTDOWN) return;
      const [first] = rig.list;
      const largest = rig.answering().sort((a, b) => b.bytes - a.bytes)[0]?.id;
      const taken = installer.choice === 'takes the largest drive unasked' ? largest : first;
      if (taken === undefined) {
        tale.tell('no drive there');
        rig.view = 'nothing';
      } else rig.erase(taken, tale);
      return;
    }
    case 'details':
      rig.shown.add(act.on ?? '');
      tale.takes(1);
      return;
    case 'choose':
      rig.picked = act.on ?? null;
      if (installer.choice !== 'preselects the first drive') rig.view = 'sure';
      return;
    case 'go on':
      if (installer.confirms > 0) rig.view = 'sure';
      else if (rig.picked !== null) rig.erase(rig.picked, tale);
      return;
    case 'back':
      rig.view = 'installer';
      return;
    default:
      if (rig.picked !== null) rig.erase(rig.picked, tale);
  }
}

/** A beat of writing goes by. */
export function working(rig: RigState, tale: Tale): void {
  rig.beat += 1;
  if (rig.beat < WRITING) return;
  tale.takes(rig.setup.minutes);
  if (rig.picked !== null) rig.now.set(rig.picked, 'new');
  tale.tell('installed', { name: rig.drive(rig.picked ?? '').name });
  const { ends } = rig.setup.plan.installer;
  if (ends === 'powers off') rig.view = 'dark';
  else if (ends === 'restarts by itself') rig.wake();
  else rig.view = 'prompt';
}
