import type { Bench, Profile } from '../model/bench';
import { edited, type Act, type Change } from '../model/changes';
import { BenchFileError, benchFromText, sortKeys } from '../model/file';
import { profileFromVersion1 } from '../model/migrations';
import { Problems } from '../model/problems';
import { profileSchema } from '../model/profile';

/** Larger than any sound list of systems; a file beyond it is refused before it is read. */
export const LARGEST_FILE = 5_000_000;
const MOST_PROFILES = 500;

/** Profiles as the text of a file to share. */
export const profilesToText = (profiles: readonly Profile[]): string =>
  JSON.stringify(sortKeys({ format: 'zealous-box-profiles', version: 2, profiles }), null, 2) + '\n';

const plain = (v: unknown): Record<string, unknown> | undefined =>
  typeof v === 'object' && v !== null && !Array.isArray(v) ? (v as Record<string, unknown>) : undefined;

/**
 * Reads systems from a file: one made here, a whole bench file, a bare list, or a single system, of this version or the
 * first. Throws BenchFileError with the path of every wrong field; never half a list.
 */
export function profilesFromText(text: string): Profile[] {
  if (text.length > LARGEST_FILE)
    throw new BenchFileError(
      `This file has ${text.length} characters; a list of systems has far fewer. Nothing was changed.`,
    );
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new BenchFileError(
      `This file is not readable JSON: ${error instanceof Error ? error.message : 'unknown fault'}`,
    );
  }
  const root = plain(json);
  if (root?.format === 'zealous-box-bench') return benchFromText(text).profiles;
  const list = Array.isArray(json)
    ? (json as unknown[])
    : Array.isArray(root?.profiles)
      ? (root.profiles as unknown[])
      : [json];
  if (list.length > MOST_PROFILES)
    throw new BenchFileError(
      `There are ${list.length} systems in this file; no more than ${MOST_PROFILES} are taken.`,
    );
  const problems = new Problems();
  const profiles = problems.checkAll(profileSchema, list.map(profileFromVersion1));
  problems.throwIfAny((n) => (n === 1 ? 'One field in it is wrong.' : `${n} fields in it are wrong.`));
  if (profiles.length === 0) throw new BenchFileError('There is no system in this file.');
  const seen = new Set<string>();
  profiles.forEach((p, i) => {
    if (seen.has(p.id))
      throw new BenchFileError('One field in it is wrong.', [
        { path: `[${i}].id`, why: `“${p.id}” is used twice` },
      ]);
    seen.add(p.id);
  });
  return profiles;
}

/** What taking shared profiles would do to the bench. */
export interface ProfileArrival {
  profile: Profile;
  /** What taking it does to the bench. */
  does: 'is new' | 'replaces' | 'is the same';
  /** Boxes that have chosen the one it would replace. */
  boxes: string[];
}

/** What taking these systems would do, before anything is done. */
export function previewProfiles(bench: Bench, incoming: readonly Profile[]): ProfileArrival[] {
  return incoming.map((profile) => {
    const here = bench.profiles.find((p) => p.id === profile.id);
    const same = here !== undefined && JSON.stringify(sortKeys(here)) === JSON.stringify(sortKeys(profile));
    return {
      profile,
      does: here === undefined ? 'is new' : same ? 'is the same' : 'replaces',
      boxes: bench.boxes.filter((b) => b.profileId === profile.id).map((b) => b.name),
    };
  });
}

/** Puts shared profiles on the bench, in one act; those of the same id are replaced. */
export const takeProfiles = (incoming: readonly Profile[]): Act => ({
  label: `${incoming.length} ${incoming.length === 1 ? 'system' : 'systems'} taken`,
  changes: incoming.map((to): Change => ({ in: 'profiles', id: to.id, to })),
});

/** Removes a system; boxes and wishes that named it name none. */
export const removeProfile = (bench: Bench, profile: Profile): Act => ({
  label: `“${profile.name}” removed`,
  changes: [
    { in: 'profiles', id: profile.id, to: null },
    ...bench.boxes
      .filter((b) => b.profileId === profile.id)
      .map((b) => edited('boxes', b, { ...b, profileId: null, releaseId: null, variantId: null })),
    ...bench.wishes
      .filter((w) => w.profileId === profile.id)
      .map((w) => edited('wishes', w, { ...w, profileId: null })),
  ],
});
