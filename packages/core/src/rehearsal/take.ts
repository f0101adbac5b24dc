import { asksPerson, isListed, readColumns } from './alike';
import type { TakenBy } from './frames';
import { questionOf } from './question';
import type { Scenes, State } from './state';
import type { Order } from './walk';

/** The drive that is taken, and whether only the room beside another system on it is. */
export interface Take {
  drive: number;
  beside: boolean;
}

/** Which drive the installer, or the person at it, takes. docs/rehearsal.md, “Which drive is taken”. */
export function takeDrive(state: State, order: Order, scenes: Scenes): Take {
  const { stage, taken, asker } = state;
  const { plan, drives, offers } = stage;
  const { choice } = plan.installer;
  const listed = (d: number): boolean => {
    const drive = drives[d];
    return drive !== undefined && isListed(plan, drive) && state.present(d);
  };
  const take = (drive: number | undefined, by: TakenBy, read = false): Take => {
    const d = drive ?? stage.target;
    scenes.flash(d, 'taken', { code: 'taken', drive: drives[d]?.id ?? '', by });
    return { drive: d, beside: read && d === stage.target && plan.installer.beside };
  };
  const first = (): number | undefined => order.first(listed);

  if (choice === 'takes the first drive unasked') return take(first(), 'first');
  if (choice === 'takes the largest drive unasked') {
    const there = drives.map((_, i) => i).filter(listed);
    const most = Math.max(...there.map((i) => drives[i]?.bytes ?? 0));
    const largest = there.filter((i) => drives[i]?.bytes === most);
    return take(largest.length === 1 ? largest[0] : order.first((d) => largest.includes(d)), 'largest');
  }
  if (!asksPerson(plan)) throw new Error(`Nothing is known of an installer that ${choice}.`);
  if (taken.has(offers.serial)) return take(stage.target, 'serial', true);
  const reads = taken.has(offers.read) || asker.answer(questionOf.read) === 0;
  if (!reads && choice === 'preselects the first drive')
    return take(order.first((d) => listed(d) && drives[d]?.bus !== 'usb') ?? first(), 'preselected');
  if (!reads || readColumns(plan).length === 0) {
    const expected = drives.map((_, i) => i).filter(listed);
    const place = expected.indexOf(stage.target);
    let seen = -1;
    return take(
      order.first((d) => listed(d) && (seen += 1) === place),
      'place',
      reads,
    );
  }
  if (taken.has(offers.label)) return take(stage.target, 'label', true);
  const alike = stage.world.alike[asker.answer(questionOf.pick)];
  const picked = alike ? drives.indexOf(alike) : -1;
  return take(picked >= 0 && listed(picked) ? picked : stage.target, 'read', true);
}
