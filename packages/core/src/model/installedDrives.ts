import { each, plain, type Plain } from './plain';

const records = (value: unknown): Plain[] =>
  Array.isArray(value) ? value.flatMap((v): Plain[] => (plain(v) ? [v as Plain] : [])) : [];
const text = (value: unknown): string => (typeof value === 'string' ? value : '');

/** When Install was marked as done; undefined where it was not, or the box is retired. */
function installedAt(box: Plain): string | undefined {
  if (plain(box.kept)?.retired) return undefined;
  const done = records(box.signoffs).find((s) => s.stop === 'install');
  return done && text(done.at);
}

/** The drive that took the system, by what the box has decided; else the only drive in its machine that could be erased. */
function driveOf(box: Plain, profile: Plain | undefined, items: readonly Plain[]): Plain | undefined {
  if (profile?.installer === 'written straight to the final drive')
    return items.find((i) => 'serial' in i && i.serial !== null && i.serial === box.targetSerial);
  const chosen = plain(box.layout)?.driveId;
  if (typeof chosen === 'string') return items.find((i) => i.id === chosen);
  const free = items.filter((i) => i.kind === 'drive' && i.in === box.machineId && i.fate === 'may be lost');
  return box.machineId !== null && free.length === 1 ? free[0] : undefined;
}

/**
 * Up to version 9 the shelf did not follow what was done: a drive that a box had installed on was still one that may be
 * erased, and a stick held every image that was ever written to it. From version 10 on it does: the drive of a box whose
 * Install is done holds its system and is kept; of the writes to one serial the newest proven one alone counts.
 */
export function fromVersion9(old: Plain): Plain {
  const items = records(old.items);
  const boxes = records(old.boxes);
  const profiles = records(old.profiles);
  const to = new Map<Plain, Plain>();
  const change = (item: Plain, more: Plain): void =>
    void to.set(item, { ...item, ...to.get(item), ...more, revision: 1 });

  const writes = boxes
    .flatMap((box) => {
      const written = plain(box.written);
      return written?.result === 'proven' ? [{ box, written }] : [];
    })
    .sort((a, b) => (text(a.written.at) < text(b.written.at) ? -1 : 1));
  for (const { box, written } of writes) {
    const store = items.find((i) => 'serial' in i && i.serial === written.serial && 'fate' in i);
    const image = items.find((i) => i.id === written.imageId);
    if (store)
      change(store, {
        wholeImage: {
          imageId: written.imageId,
          imageName: text(image?.name) || 'an image',
          boxId: box.id,
          at: written.at,
          by: 'read-back',
        },
        retentionOrigin: 'written',
      });
  }
  for (const box of boxes) {
    const at = installedAt(box);
    const profile = profiles.find((p) => p.id === box.profileId);
    const drive = at === undefined ? undefined : driveOf(box, profile, items);
    if (drive && profile)
      change(drive, {
        installed: { boxId: box.id, boxName: text(box.name), system: text(profile.name), at, by: 'word' },
        fate: 'keep',
        retentionOrigin: 'installed',
      });
  }
  return { ...old, items: each(old.items, (item) => to.get(item) ?? item) };
}
