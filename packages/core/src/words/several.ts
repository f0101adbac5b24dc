import type { NotFromFile, SeveralOnStick } from '../write/severalOnStick';
import { formatBoth, formatSi } from '../units/bytes';
import { plural } from './text';

const NOT: Record<NotFromFile, string> = {
  'not read': 'it was not read yet: open it first',
  packed: 'it is packed: unpack it first',
  'no disc': 'it is a disk image, which takes a stick of its own',
  'no configuration of its own': 'it has no menu for being started out of its file',
  'too large for FAT': 'it is larger than a file on FAT can be, 4 GiB less one byte',
};
/** Why an image cannot be one of several on a stick. */
export const notFromFileWords = (why: NotFromFile): string => NOT[why];

/** What a stick for several images comes to. */
export function severalWords(plan: SeveralOnStick): string {
  const go = plan.images.filter((i) => i.not === null).length;
  if (go === 0) return 'None of these starts out of its own file: each takes a stick of its own.';
  const [stick] = plan.sticks;
  const on = stick ? `“${stick.name}” holds them` : 'no free stick of the shelf holds them';
  return `${plural(go, 'image')} on one stick need ${formatBoth(plan.bytes)}: a stick of ${formatSi(plan.sold)}; ${on}.`;
}
