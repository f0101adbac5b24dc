import type { Precaution } from '../rehearsal/precautions';
import type { RunSheet } from './runSheet';

/** Is a precaution carried out: is the step done that does it? Those without a step of their own are part of the step they guard. */
export function isCarriedOut({ steps }: Pick<RunSheet, 'steps'>, { kind, drive }: Precaution): boolean {
  const ofDrive = drive ?? '';
  const done = (...keys: string[]): boolean =>
    keys.some((k) => steps.find((s) => s.key === k)?.state === 'done');
  switch (kind) {
    case 'away':
      return done(`start:away:${ofDrive}`, `write:away:${ofDrive}`);
    case 'unplug':
      return done(`open:out:${ofDrive}`, `start:away:${ofDrive}`);
    case 'port off':
      return done(`setup:set:port of a drive:${ofDrive}`, `write:away:${ofDrive}`);
    case 'copy':
      return done(`save:${ofDrive}`);
    case 'label':
      return done('label:target');
    case 'serial':
    case 'read':
      return done('inst:drive', 'write:write');
    case 'menu':
      return done('start:go');
    case 'key':
      return done('setup:key');
    case 'stick first':
      return done('setup:set:boot order');
    case 'target first':
      return done('back:first');
    case 'stick out':
      return done('back:stick');
    case 'mode':
      return done('setup:set:boot mode');
    case 'secure off':
      return done('setup:set:Secure Boot');
    case 'enrol':
      return done('back:enrol');
    case 'power':
      return done('start:power', 'write:power');
  }
}
