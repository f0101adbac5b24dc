import { readImageItem } from '@zb/core/model/blank';
import type { Inspection } from '@zb/core/model/inspection';
import { profileFromImage } from '@zb/core/system/fromImage';
import { notSaid } from '@zb/core/system/notSaid';
import { originWords } from '@zb/core/words/origin';

/** What `zb profile` prints: a system as `zb fit` and the page take it, where each value comes from, and what is to say. */
export function profileOutput(name: string, inspection: Inspection) {
  const profile = profileFromImage(readImageItem(name, inspection), 'from-image');
  if (!profile) throw new Error('an image that was read has an inspection');
  return {
    profile,
    from: Object.fromEntries(Object.entries(profile.origins).map(([path, o]) => [path, originWords(o)])),
    toSay: notSaid(profile),
  };
}
