import type { PracticeAct } from '../../model/practice';
import { said, type Said } from '../said';
import { offer, type Offer, type RigScreen, type Row } from '../scene';
import type { Tale } from '../tale';
import type { RigState } from './state';

/** A screen with nothing on it yet. */
export const screenOf = (
  manner: RigScreen['manner'],
  lines: Said[],
  rest: Partial<RigScreen> = {},
): RigScreen => ({
  manner,
  lines,
  heads: [],
  rows: [],
  beat: null,
  offers: [],
  ...rest,
});

/** The stretch after power-on in which a key counts. */
export function wakingScreen(rig: RigState): RigScreen {
  const { keys } = rig.setup;
  const press = (key: string): Offer => ({ ...offer('press', key, { key }), key });
  return screenOf('waking', [said('waking')], {
    beat: { at: rig.beat, of: keys.of, from: keys.from, to: keys.to },
    offers: [...[keys.setup, keys.menu, ...keys.others].sort().map(press), offer('wait')],
  });
}

const nameOf = (rig: RigState, id: string): string => rig.drive(id).name;

/** Setup: the order, Secure Boot, and ports that can be switched off. */
export function setupScreen(rig: RigState): RigScreen {
  const edited = rig.edited ?? rig.settings;
  const last = edited.order.length - 1;
  return screenOf('firmware', [said('setup order')], {
    heads: [said('place'), said('entry'), said('port')],
    rows: [
      ...edited.order.map((id, i): Row => {
        const off = edited.off.includes(id);
        const values = { name: nameOf(rig, id) };
        return {
          id,
          cells: [String(i + 1), nameOf(rig, id), said(off ? 'switched off' : 'switched on')],
          offers: [
            ...(i > 0 ? [offer('raise', id, values)] : []),
            ...(i < last ? [offer('lower', id, values)] : []),
            ...(rig.drive(id).portOff ? [offer(off ? 'port on' : 'port off', id, values)] : []),
          ],
        };
      }),
      {
        id: 'secure',
        cells: ['–', said('secure boot'), said(edited.secure ? 'on' : 'off')],
        offers: [offer('secure', edited.secure ? 'off' : 'on')],
      },
    ],
    offers: [offer('save'), offer('leave')],
  });
}

/** The menu for once: a stick may stand in it twice, and starts from one of its parts alone. */
export function menuScreen(rig: RigState): RigScreen {
  const row = (id: string, part: boolean): Row => {
    const key = part ? `${id} part` : id;
    const values = { name: nameOf(rig, id) };
    return {
      id: key,
      cells: [
        said(part ? 'entry other part' : id === rig.stick.id ? 'entry first part' : 'entry drive', values),
      ],
      offers: [offer(part ? 'take other part' : 'take', id, values)],
    };
  };
  const { showsParts } = rig.setup.plan.machine;
  return screenOf('menu', [said('menu once')], {
    heads: [said('entry')],
    rows: rig
      .tried()
      .flatMap((id) => [...(id === rig.stick.id && showsParts ? [row(id, true)] : []), row(id, false)]),
    offers: [offer('leave menu')],
  });
}

/** A key pressed while the machine wakes. */
export function pressed(rig: RigState, key: string, tale: Tale): void {
  const { keys } = rig.setup;
  const wrong = keys.others.includes(key);
  const late = rig.beat > keys.to;
  if (wrong || rig.beat < keys.from || late) {
    const told = `${key} ${late ? 'late' : 'early'}`;
    if (rig.inVain.has(told)) return;
    rig.inVain.add(told);
    if (wrong) tale.slip('wrong key', { key, setup: keys.setup, menu: keys.menu });
    else tale.tell(late ? 'too late' : 'too early', { key });
    return;
  }
  rig.view = key === keys.setup ? 'setup' : 'menu';
  rig.edited = key === keys.setup ? rig.settings : null;
  tale.tell(key === keys.setup ? 'in setup' : 'in the menu', { key }, 'good');
}

/** A beat goes by while the machine wakes. */
export function waking(rig: RigState, tale: Tale): void {
  rig.beat += 1;
  if (rig.beat < rig.setup.keys.of) return;
  const wanted = rig.stickIn && !rig.startedOnce && rig.now.get(rig.target.id) !== 'new';
  rig.startByOrder(tale);
  // Whoever has a stick in and sees another system start has missed the key.
  if (wanted && rig.view !== 'installer' && rig.view !== 'live')
    tale.slip('key missed', { menu: rig.setup.keys.menu });
  rig.judgeEnd(tale);
}

/** What is done in setup. */
export function inSetup(rig: RigState, act: PracticeAct, tale: Tale): void {
  const edited = rig.edited ?? rig.settings;
  const id = act.on ?? '';
  switch (act.do) {
    case 'raise':
    case 'lower': {
      const order = [...edited.order];
      const at = order.indexOf(id);
      order.splice(at, 1);
      order.splice(at + (act.do === 'raise' ? -1 : 1), 0, id);
      rig.edited = { ...edited, order };
      return;
    }
    case 'port on':
    case 'port off':
      rig.edited = {
        ...edited,
        off: act.do === 'port off' ? [...edited.off, id] : edited.off.filter((o) => o !== id),
      };
      return;
    case 'secure':
      rig.edited = { ...edited, secure: id === 'on' };
      return;
    default: {
      if (act.do === 'save') rig.settings = edited;
      tale.tell(act.do === 'save' ? 'saved' : 'left unsaved');
      tale.takes(2);
      rig.edited = null;
      rig.wake();
    }
  }
}

/** What is taken in the menu. */
export function inMenu(rig: RigState, act: PracticeAct, tale: Tale): void {
  if (act.do === 'leave menu') return rig.wake();
  if (act.do === 'take other part') {
    tale.slip('other part', { name: nameOf(rig, rig.stick.id) });
    return;
  }
  tale.takes(1);
  const id = act.on ?? '';
  if (!rig.canStart(id)) tale.tell('nothing on it', { name: nameOf(rig, id) });
  else if (rig.start(id, tale)) rig.judgeEnd(tale);
}
