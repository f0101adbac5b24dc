import type { Cause } from '../rehearsal/cause';

/** How it comes to a bad end, after “when” or a colon. */
export const causeWords: Record<Cause, string> = {
  'taken first': 'the installer takes the first drive that answers, and asks nobody',
  'taken largest': 'the installer takes the largest drive, and asks nobody',
  'taken serial': 'the drive is selected by its serial',
  'taken read': 'two drives in the list look alike',
  'taken label': 'the drive is selected by its label',
  'taken place': 'the drive is selected by its place in the list, and drives can answer in another order',
  'taken preselected': 'the list comes with it selected, and yes is said unread',
  'cut before the table': 'the power fails before anything is written',
  'cut while copying': 'the power fails while the system is copied',
  'cut before the loader': 'the power fails before the loader is written',
  'cut before the restart': 'the power fails before the restart',
  'stick out too early': 'the stick comes out before the installer is done',
  'loader goes elsewhere': 'the installer writes its loader to another drive than the one selected',
  'loader overwritten': 'the new system takes the place from which the kept one boots',
  'started menu': 'the line taken in the boot menu boots something else',
  'started key missed': 'the key for the boot menu is missed',
  'started dead line': 'a line of the boot menu is taken that boots nothing',
  'started line does not start': 'the line taken in the boot menu boots nothing',
  'started stick first': 'the stick stands first in the boot order',
  'started power back': 'the power fails, and the stick is still in when it is back',
  'started restart': 'something else is tried first at the restart',
  'started later': 'something else is tried first when the machine boots later',
};
