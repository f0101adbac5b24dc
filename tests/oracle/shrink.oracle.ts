/**
 * A part is made smaller with data on it, by the script that is written: real file systems on loop devices, filled with files
 * whose sums are kept; the script shrinks, writes the table and makes the new file system; then every file is read again and
 * the file system is checked. As root.
 */
import { createHash, randomBytes } from 'node:crypto';
import { chmodSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { lay } from '@zb/core/layout/lay';
import { readTable } from '@zb/core/layout/read/table';
import { layoutScript } from '@zb/core/layout/write/script';
import { layoutPlanSchema } from '@zb/core/model/layout';
import { blank, run, scratch } from './files';

jest.setTimeout(300_000);
const MIB = 1024 ** 2;
const room = scratch();
const drive = room.path('by-id/DRIVE');
const image = room.path('drive.img');
const loops = (): string[] =>
  run('losetup', ['-nlO', 'NAME,BACK-FILE'])
    .split('\n')
    .filter((l) => l.includes(image))
    .map((l) => l.split(' ')[0] ?? '');
const free = (): void => loops().forEach((l) => run('losetup', ['-d', l]));
afterAll(() => {
  free();
  room.clear();
});

/** Where parts are, as udev would show them: links to loop devices over the stretches that the table names. */
const REFRESH = `#!/bin/sh
set -eu
sync
for loop in $(losetup -nlO NAME,BACK-FILE | awk -v f="$IMAGE" '$2 == f { print $1 }'); do losetup -d "$loop"; done
rm -f "$DRIVE" "$DRIVE"-part*
ln -s "$(losetup -f --show "$IMAGE")" "$DRIVE"
sfdisk -d "$IMAGE" | sed -n 's/^[^ ]*[^0-9]\\([0-9]*\\) : start= *\\([0-9]*\\), size= *\\([0-9]*\\).*/\\1 \\2 \\3/p' | while read -r n start size; do
  ln -s "$(losetup -f --show -o $((start * 512)) --sizelimit $((size * 512)) "$IMAGE")" "$DRIVE-part$n"
done
`;
const shell = (script: string, input = ''): string =>
  run(
    'sh',
    [
      '-c',
      `export IMAGE='${image}' DRIVE='${drive}' PATH="${room.path('bin')}:$PATH:/usr/sbin:/sbin"; ${script}`,
    ],
    input,
  );

/** Files of many sizes, and their sums. */
function fill(at: string): Map<string, string> {
  const sums = new Map<string, string>();
  mkdirSync(`${at}/deep/er`, { recursive: true });
  for (let i = 0; i < 60; i += 1) {
    const bytes = randomBytes(i === 0 ? 40 * MIB : 1000 + i * 20_011);
    const name = i % 2 === 0 ? `file ${i}` : `deep/er/${i}.bin`;
    writeFileSync(`${at}/${name}`, bytes);
    sums.set(name, createHash('sha256').update(bytes).digest('hex'));
  }
  return sums;
}

it.each([
  ['ext4', 'mkfs.ext4 -q -F', 'e2fsck -f -n', 220],
  ['ntfs', 'mkfs.ntfs -q -F -f', 'ntfsfix -n', 220],
  ['btrfs', 'mkfs.btrfs -q -f', 'btrfs check --readonly', 400],
] as const)('%s becomes smaller with data on it, and loses none', (filesystem, make, check, shrinkMib) => {
  rmSync(room.path('by-id'), { recursive: true, force: true });
  mkdirSync(room.path('by-id'));
  mkdirSync(room.path('bin'), { recursive: true });
  // The script waits for udev: here, where none is, that makes the links.
  writeFileSync(room.path('bin/udevadm'), REFRESH);
  chmodSync(room.path('bin/udevadm'), 0o755);
  free();
  rmSync(image, { force: true });
  blank(image, 1200 * MIB);
  run('sfdisk', ['-q', image], 'label: gpt\nsize=64M, type=U, name="start"\nsize=900M, name="old"\n');
  run('sfdisk', ['-q', '--part-attrs', image, '2', 'GUID:63']);
  shell('udevadm settle');
  const part = `${drive}-part2`;
  shell(`${make} ${part}`);
  const at = room.path('at');
  mkdirSync(at, { recursive: true });
  const mount = filesystem === 'ntfs' ? `ntfs-3g "$(readlink ${part})"` : `mount ${part}`;
  // Mounted in a view of its own: another test that makes one meanwhile would take the mount with it and hold the part in use.
  const mounted = (act: string): string =>
    shell(`exec unshare -m sh -euc '${mount} ${at}; ${act}; umount ${at}'`);
  const files = room.path('files');
  rmSync(files, { recursive: true, force: true });
  const sums = fill(files);
  mounted(`cp -a ${files}/. ${at}`);

  const there = readTable(run('sfdisk', ['--dump', image]), { bytes: 1200 * MIB });
  const plan = layoutPlanSchema.parse({
    drive: { ...there, parts: there.parts.map((p) => (p.number === 2 ? { ...p, filesystem } : p)) },
    want: {
      table: 'gpt',
      kept: [
        { number: 1, shrinkTo: null },
        { number: 2, shrinkTo: shrinkMib * MIB },
      ],
      wants: [{ id: 'new', use: 'data', name: 'new', filesystem: 'ext4', size: { kind: 'rest' } }],
    },
    device: drive,
  });
  const layout = lay(plan.drive, plan.want);
  expect(layout.problems).toEqual([]);
  const script = layoutScript(layout, plan);
  if (typeof script !== 'string') throw new Error(JSON.stringify(script));
  writeFileSync(room.path('layout.sh'), script);
  shell(`sh ${room.path('layout.sh')}`, 'yes\nyes\n');

  const now = readTable(run('sfdisk', ['--dump', image]), { bytes: 1200 * MIB });
  expect(now.tableId).toBe(there.tableId);
  expect(now.parts.map((p) => [p.number, p.bytes / MIB])).toEqual([
    [1, 64],
    [2, shrinkMib],
    [3, expect.any(Number)],
  ]);
  expect(now.parts[1]).toMatchObject({ uuid: there.parts[1]?.uuid, name: 'old', attributes: 'GUID:63' });
  shell(`${check} ${part}`);
  rmSync(files, { recursive: true, force: true });
  mkdirSync(files);
  mounted(`cp -a ${at}/. ${files}`);
  const seen = new Map(
    [...sums.keys()].map((name) => [
      name,
      createHash('sha256')
        .update(readFileSync(`${files}/${name}`))
        .digest('hex'),
    ]),
  );
  expect(seen).toEqual(sums);
  shell(`e2fsck -f -n ${drive}-part3`);
});
