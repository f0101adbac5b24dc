import type { ImageReading } from '../model/inspection';
import type { Profile } from '../model/profile';

/** Do an image and a person mean the same by a name? Case and blanks around it do not count. */
export const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** The name by which an image calls itself where nobody has said that this is the system; undefined where that is settled. */
export function unsettledName(
  profile: Pick<Profile, 'calls'>,
  identity: ImageReading['identity'] | undefined,
): string | undefined {
  const name = identity?.name?.value;
  return name === undefined || profile.calls.some((c) => sameName(c, name)) ? undefined : name;
}
