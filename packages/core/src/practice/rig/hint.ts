import { said, type Said } from '../said';
import type { RigState } from './state';

/** What must be out, and can be taken out, before an installer that asks nobody may run. */
const inTheWay = (rig: RigState): string[] =>
  rig
    .rivals()
    .filter((d) => d.unplug !== null && rig.now.get(d.id) !== 'new')
    .map((d) => d.id);

function hintOff(rig: RigState, installed: boolean): Said {
  const { task } = rig.setup;
  const [out] = inTheWay(rig);
  if (task === 'put right' || installed || rig.startedOnce) {
    if (rig.stickIn) return said('hint stick out');
    const back = rig.inner.find((d) => !rig.inside.has(d.id));
    if (back) return said('hint put back', { name: back.name });
    return rig.tried()[0] !== rig.target.id && task !== 'start once'
      ? said('hint order', { key: rig.setup.keys.setup, name: rig.target.name })
      : said('hint power');
  }
  if (out !== undefined) return said('hint pull', { name: rig.drive(out).name });
  return said(rig.stickIn ? 'hint power and key' : 'hint stick in', { key: rig.setup.keys.menu });
}

/** What to do next at this machine. */
export function rigHint(rig: RigState): Said {
  const installed = rig.now.get(rig.target.id) === 'new';
  const { keys, plan } = rig.setup;
  switch (rig.view) {
    case 'dark':
      return hintOff(rig, installed);
    case 'waking':
      return installed || rig.startedOnce
        ? said('hint let it start')
        : said('hint press', { key: rig.settings.secure && !rig.stick.signed ? keys.setup : keys.menu });
    case 'setup':
      return said(
        rig.settings.secure && !rig.stick.signed && !rig.startedOnce ? 'hint secure off' : 'hint setup',
        {
          name: rig.target.name,
        },
      );
    case 'menu':
      return said('hint take stick', { name: rig.stick.name });
    case 'installer':
      return inTheWay(rig).length > 0 || rig.setup.task === 'put right'
        ? said('hint power off')
        : said(rig.alike().length > 1 ? 'hint details' : 'hint choose', { serial: rig.target.serial ?? '' });
    case 'sure':
      return said(rig.picked === rig.target.id ? 'hint erase' : 'hint back');
    case 'working':
      return said('hint leave it');
    case 'prompt':
      return said(rig.stickIn ? 'hint stick out' : 'hint restart');
    case 'live':
      return said('hint shut down');
    default:
      return said(
        plan.machine.secureBoot === 'on' && !rig.stick.signed && !rig.startedOnce
          ? 'hint unsigned'
          : 'hint power off',
        {
          key: keys.setup,
        },
      );
  }
}
