/**
 * Pools by real tools. Block groups: what our own script makes of unequal drives on loop devices, filled until nothing more
 * fits, and mounted with drives taken away (mkfs.btrfs, the kernel). Rows: our script in an emulated machine, whose drives it
 * finds by their serials (mdadm, mkfs.ext4). Volumes: pvcreate and vgcreate on a drive of real size. A selection in every
 * run; more sets of drives in `npm run proof pools`.
 */
import { execFileSync, spawnSync } from 'node:child_process';
import { chmodSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { poolDriveSchema, type PoolDrive, type PoolWay } from '@zb/core/model/storage';
import { poolScript, poolSteps } from '@zb/core/storage/commands';
import { profilesOf } from '@zb/core/storage/room';
import { leastDriveOf } from '@zb/core/storage/usable/groups';
import { place } from '@zb/core/storage/ways';
import { survivalOf } from '@zb/core/storage/survives';
import { dataOffset, memberRoom, volumeRoom } from '@zb/core/storage/usable/plain';
import { randomFrom } from '@zb/core/units/random';
import { seedOfRun } from './damage';
import { blank, run, scratch } from './files';
import { sharingSchema } from '@zb/core/model/sharing';
import { writeExports } from '@zb/core/storage/share/write';
import { prepareKernel, ranIn } from './machines';

jest.setTimeout(300_000);
const ALL = process.env.ZB_POOLS === 'all';
const GIB = 1024 ** 3;
const MIB = 1024 ** 2;
const TB4 = 4_000_787_030_016;
const TB2 = 2_000_398_934_016;
const TB1 = 1_000_204_886_016;
const room = scratch();
afterAll(() => room.clear());

const way = (manner: PoolWay['manner'], shape: PoolWay['shape'], level = 1): PoolWay => ({
  manner,
  shape,
  level,
  spare: false,
});
const drivesOf = (sizes: readonly number[]): PoolDrive[] =>
  sizes.map((bytes, i) =>
    poolDriveSchema.parse({
      id: `d${i}`,
      name: `drive ${i}`,
      bytes,
      serial: `ZB-SERIAL-${i}`,
      rotational: true,
    }),
  );

/** Drives as loop devices, and an lsblk that tells them by their serials: what our script looks for. */
function attached<T>(
  drives: readonly PoolDrive[],
  use: (devices: ReadonlyMap<string, string>, bin: string) => T,
): T {
  const devices = new Map<string, string>();
  const files: string[] = [];
  try {
    for (const d of drives) {
      const file = blank(room.path(`${d.id}.img`), d.bytes);
      files.push(file);
      devices.set(d.id, run('losetup', ['-f', '--show', file]).trim());
    }
    const bin = room.path('bin');
    mkdirSync(bin, { recursive: true });
    const lines = drives.map((d) => `echo '${devices.get(d.id) ?? ''} ${d.serial ?? ''}'`);
    writeFileSync(`${bin}/lsblk`, `#!/bin/sh\n${lines.join('\n')}\n`);
    chmodSync(`${bin}/lsblk`, 0o755);
    return use(devices, bin);
  } finally {
    for (const at of devices.values()) spawnSync('losetup', ['-d', at]);
    for (const f of files) rmSync(f, { force: true });
  }
}

const NAME = `zbpool${process.pid}`;
/** Our script, up to the file system; where it is mounted is the test's own. */
function scriptOf(want: PoolWay, drives: readonly PoolDrive[]): string {
  const placed = place(want, drives);
  if (!placed) throw new Error('no such pool');
  const made = poolSteps(placed.pool, { name: NAME, recordBytes: 131_072 });
  if ('code' in made) throw new Error(made.code);
  return poolScript(
    placed.pool,
    NAME,
    made.steps.filter((s) => s.code !== 'mount'),
  );
}
/** Runs it on drives whose tools lie in `bin`. */
function make(want: PoolWay, drives: readonly PoolDrive[], bin: string): void {
  execFileSync('sh', ['-s'], {
    input: scriptOf(want, drives),
    stdio: ['pipe', 'pipe', 'pipe'],
    env: { ...process.env, PATH: `${bin}:${process.env.PATH ?? ''}:/usr/sbin:/sbin` },
  });
}

function mounted<T>(device: string, options: string, use: (at: string) => T): T | undefined {
  const at = room.path('at');
  mkdirSync(at, { recursive: true });
  if (spawnSync('mount', ['-o', options, device, at]).status !== 0) return undefined;
  try {
    return use(at);
  } finally {
    run('umount', [at]);
  }
}

/** Makes the kernel know these devices and no others: what was unmounted a moment ago may still be held by it. */
function register(devices: readonly string[]): void {
  for (let tries = 0; ; tries += 1) {
    spawnSync('btrfs', ['device', 'scan', '--forget']);
    const failed = devices.filter((d) => spawnSync('btrfs', ['device', 'scan', d]).status !== 0);
    if (failed.length === 0) return;
    if (tries === 20) throw new Error(`not taken: ${failed.join(' ')}`);
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 250);
  }
}

/**
 * Files are promised room until there is none: nothing is written, and every group is given out. The group of data that
 * mkfs made in advance is given back first, as the kernel does by itself some time after: the test does not wait for it.
 */
const FILL = `btrfs balance start -dusage=0 "$1" >/dev/null || exit 1
n=0; step=4294967296
while [ $step -ge 65536 ]; do
  if fallocate -l $step "$1/f$n" 2>/dev/null; then n=$((n+1)); else rm -f "$1/f$n"; step=$((step/2)); fi
done`;

const ways: PoolWay[] = [
  way('groups', 'copies', 2),
  way('groups', 'copies', 3),
  way('groups', 'parity', 1),
  way('groups', 'parity', 2),
  way('groups', 'joined'),
];
const random = randomFrom(seedOfRun());
const sets: [string, PoolWay, number[]][] = [
  ['the archive’s drives', way('groups', 'copies', 2), [60 * GIB, 60 * GIB, 30 * GIB, 15 * GIB]],
  ['one drive', way('groups', 'single'), [7 * GIB]],
  ['one large, two small', way('groups', 'copies', 2), [30 * GIB, 8 * GIB, 5 * GIB]],
  ['three alike', way('groups', 'copies', 2), [5 * GIB, 5 * GIB, 5 * GIB]],
  ['five alike', way('groups', 'copies', 2), Array.from({ length: 5 }, () => 12 * GIB)],
  ['of three copies', way('groups', 'copies', 3), [10 * GIB, 20 * GIB, 40 * GIB, 60 * GIB]],
  ['one parity', way('groups', 'parity', 1), [10 * GIB, 20 * GIB, 40 * GIB, 60 * GIB]],
  ['two parities', way('groups', 'parity', 2), [10 * GIB, 20 * GIB, 40 * GIB, 60 * GIB]],
  ['all as one', way('groups', 'joined'), [4 * GIB, 9 * GIB, 11 * GIB]],
  ['very small', way('groups', 'copies', 2), [300 * MIB, 400 * MIB, 500 * MIB, 600 * MIB]],
  ['of three copies, 4 GiB in all', way('groups', 'copies', 3), Array.from({ length: 4 }, () => 1000 * MIB)],
  ['of two copies, 2.7 GiB in all', way('groups', 'copies', 2), Array.from({ length: 4 }, () => 700 * MIB)],
  ['one drive of 3 GiB', way('groups', 'single'), [3 * GIB]],
  ['one drive of 400 MiB', way('groups', 'single'), [400 * MIB]],
  ['just over fifty', way('groups', 'copies', 2), [26 * GIB, 25 * GIB]],
  ['of odd sizes', way('groups', 'parity', 1), [5 * GIB + 4096 * 7, 6 * GIB + 512 * 3, 7 * GIB + 1]],
  ...Array.from({ length: ALL ? 200 : 3 }, (_, i): [string, PoolWay, number[]] => {
    const want = ways[i % ways.length] ?? way('groups', 'joined');
    const least = want.shape === 'parity' ? want.level + 2 : want.level + 1;
    const n = least + Math.floor(random() * 4);
    return [
      `by chance ${i + 1}`,
      want,
      Array.from({ length: n }, () => Math.floor((0.4 + random() * 80) * GIB)),
    ];
  }),
];

it.each(sets)('block groups, %s: as much fits as was told, to the byte', (_name, want, sizes) => {
  const drives = drivesOf(sizes);
  const told = place(want, drives)?.room.usable ?? 0;
  attached(drives, (devices, bin) => {
    make(want, drives, bin);
    const used = mounted([...devices.values()][0] ?? '', 'noatime', (at) => {
      run('sh', ['-c', FILL, 'sh', at]);
      return /^Data,\S+ Size:(\d+)/m.exec(run('btrfs', ['filesystem', 'usage', '-b', at]))?.[1];
    });
    expect(Number(used)).toBe(told);
  });
});

it.each(ALL ? ways : ways.slice(0, 2))(
  'block groups: the smallest drive that mkfs takes is the smallest that is offered ($shape, $level)',
  (want) => {
    const n = want.shape === 'parity' ? want.level + 2 : want.level + 1;
    const { data, metadata } = profilesOf(want);
    const least = leastDriveOf(data, metadata);
    for (const [bytes, taken] of [
      [least - 4096, false],
      [least, true],
    ] as const) {
      const drives = drivesOf(Array.from({ length: n }, () => bytes));
      expect(place(want, drives) !== undefined).toBe(taken);
      // Profiles are what the script names for drives that are large enough.
      const names = /-d \S+ -m \S+/.exec(scriptOf(want, drivesOf(drives.map(() => 10 * GIB))))?.[0] ?? '';
      attached(drives, (devices) => {
        const made = spawnSync('mkfs.btrfs', ['-q', '-f', ...names.split(' '), ...devices.values()]);
        expect(made.status === 0).toBe(taken);
      });
    }
  },
);

const failing: [string, PoolWay, number[]][] = [
  ['copies on any two', way('groups', 'copies', 2), [320, 300, 260, 240]],
  ['copies on any three', way('groups', 'copies', 3), [420, 380, 300, 260]],
  ['all as one', way('groups', 'joined'), [300, 260, 240]],
];
it.each(ALL ? failing : failing.slice(0, 1))(
  'block groups, %s: every set of failures, read again by the kernel',
  (_name, want, mib) => {
    const drives = drivesOf(mib.map((m) => m * MIB));
    const placed = place(want, drives);
    const row = placed?.pool.rows[0] ?? [];
    attached(drives, (devices, bin) => {
      make(want, drives, bin);
      const first = [...devices.values()][0] ?? '';
      // Noise that is not packed and not shared, in files of 8 MiB, until it is full.
      mounted(first, 'noatime', (at) =>
        run('sh', [
          '-c',
          'i=0; while dd if=/dev/urandom of="$1/f$i" bs=1M count=8 status=none 2>/dev/null; do i=$((i+1)); done; rm -f "$1/f$i"; sync',
          'sh',
          at,
        ]),
      );
      const bears = placed ? survivalOf(placed.pool).any : 0;
      const lost: number[] = [];
      for (let gone = 1; gone < 1 << row.length; gone += 1) {
        const failed = row.filter((_, i) => (gone >> i) & 1);
        if (failed.length > bears + 1) continue;
        for (const at of devices.values()) spawnSync('losetup', ['-d', at]);
        const again = row
          .filter((d) => !failed.includes(d))
          .map((d) => run('losetup', ['-f', '--show', room.path(`${d.id}.img`)]).trim());
        try {
          register(again);
          const read = (at: string): boolean =>
            spawnSync('sh', ['-c', 'cat "$1"/f* >/dev/null', 'sh', at]).status === 0;
          const whole = again[0] !== undefined && mounted(again[0], 'ro,degraded', read) === true;
          // What was promised holds; of one failure more, some take something with them.
          if (failed.length <= bears) expect({ gone, whole }).toEqual({ gone, whole: true });
          else if (!whole) lost.push(gone);
        } finally {
          for (const at of again) spawnSync('losetup', ['-d', at]);
        }
      }
      expect(lost.length).toBeGreaterThan(0);
    });
  },
);

it('volumes: the room of a drive of 4 TB, as vgs has it', () => {
  attached(drivesOf([TB4]), (devices) => {
    const at = devices.get('d0') ?? '';
    const group = `zbv${process.pid}`;
    run('pvcreate', ['-q', at]);
    run('vgcreate', ['-q', group, at]);
    try {
      const size = run('vgs', ['--noheadings', '--units', 'b', '--nosuffix', '-o', 'vg_size', group]);
      expect(Number(size.trim())).toBe(volumeRoom(TB4));
    } finally {
      run('vgremove', ['-q', '-f', group]);
    }
  });
});

/** Disks of real size with serials, as the command line makes them. */
const disks = (drives: readonly PoolDrive[]): string[] =>
  drives.flatMap((d) => ['-device', `nvme,drive=${d.id},serial=${d.serial ?? ''}`]);

it('on small members data begins where mdadm begins it, and what mdadm does not make is not offered', async () => {
  const sizes = ALL
    ? [4, 8, 12, 16, 33, 60, 130, 250, 700, 1500, 2050, 3000, 4100, 5000, 9000, 20_000]
    : [8, 2050];
  const drives = drivesOf(sizes.map((m) => m * MIB));
  const text = await ranIn(
    {
      name: 'small rows',
      firmware: 'bios',
      args: ['-M', 'q35', '-m', '1024', ...disks(drives)],
      drives: Object.fromEntries(drives.map((d) => [d.id, d.bytes / MIB])),
    },
    prepareKernel(),
    [
      'for m in md_mod raid1 raid456; do modprobe -q $m; done; mkdir -p /run; mount -t tmpfs none /run',
      // One drive and one that is missing: what a member gives is the same, and half as many drives are needed.
      `for d in /dev/nvme*n1; do for level in '1' '5 --chunk=512K'; do`,
      'bytes=$(($(cat /sys/block/$(basename $d)/size) * 512))',
      'yes | mdadm --create /dev/md0 --run --metadata=1.2 --level=$level --raid-devices=2 $d missing >/dev/null 2>&1',
      'offset=$(mdadm --examine $d 2>/dev/null | grep "Data Offset" | tr -dc 0-9)',
      'echo "member $bytes level ${level%% *} offset ${offset:-0} size $(cat /sys/block/md0/size 2>/dev/null || echo 0)"',
      'mdadm --stop /dev/md0 >/dev/null 2>&1; mdadm --zero-superblock $d 2>/dev/null',
      'done; done',
    ].join('\n'),
  );
  const made = [...text.matchAll(/^member (\d+) level (\d) offset (\d+) size (\d+)/gm)].map((m) =>
    m.slice(1).map(Number),
  );
  expect(made).toHaveLength(2 * sizes.length);
  const told = made.map(([bytes = 0, level = 0]) => {
    const chunk = level === 5 ? 512 * 1024 : null;
    const gives = memberRoom(bytes, chunk);
    return [bytes, level, gives > 0 ? dataOffset(bytes, chunk) / 512 : 0, gives / 512];
  });
  expect(told).toEqual(made);
});

describe('rows, and what is served of them, in a machine of their own', () => {
  it('our script finds its drives by their serials, makes rows and a file system, and they are as large as was told', async () => {
    // In every run the file system goes on smaller ones: on ten terabytes it takes half a minute in an emulator.
    const members = drivesOf(ALL ? [TB4, TB4, TB2] : [40 * GIB, 40 * GIB, 20 * GIB]);
    const others = [TB4, TB1].map((bytes, i) => ({
      ...drivesOf([bytes])[0],
      id: `e${i}`,
      name: `e${i}`,
      serial: `ZB-OTHER-${i}`,
      bytes,
    })) as PoolDrive[];
    const parity = place(way('plain', 'parity', 1), members);
    const mirror = place(way('plain', 'mirror', 2), others);
    if (!parity || !mirror) throw new Error('no such pools');
    const script = (p: typeof parity, name: string): string => {
      const made = poolSteps(p.pool, { name, recordBytes: 131_072 });
      if ('code' in made) throw new Error(made.code);
      return poolScript(p.pool, name, made.steps).replace('#!/bin/sh', '');
    };
    const all = [...members, ...others];
    // Of folders on it, exports(5) as we write them, served by the kernel to itself from two of its addresses.
    const sharing = sharingSchema.parse({
      from: ['10.44.8.0/24'],
      users: [{ id: 'u', name: 'somebody' }],
      folders: [
        { id: 'a', name: 'written', path: '/srv/one/written to', protocols: ['nfs'], write: ['u'] },
        { id: 'b', name: 'read', path: '/srv/one/read', protocols: ['nfs'], read: ['u'] },
        { id: 'c', name: 'not over it', path: '/srv/one/other', protocols: ['smb'], write: ['u'] },
      ],
    });
    const mount = (from: string, path: string, name: string): string =>
      `timeout 30 mount.nfs4 '${from}:${path}' /mnt -o vers=4.2,retry=0 2>/dev/null; echo "${name} mounted $?"; cat /mnt/f 2>/dev/null; (echo new > /mnt/new) 2>/dev/null; echo "${name} written $?"; umount /mnt 2>/dev/null`;
    const served = [
      'for m in nfsd nfs nfsv4; do modprobe -q $m; done',
      'mkdir -p /var/lib/nfs/v4recovery /mnt; mount -t nfsd nfsd /proc/fs/nfsd; touch /var/lib/nfs/etab /var/lib/nfs/rmtab',
      "printf 'udp tpi_clts v inet udp - -\\ntcp tpi_cots_ord v inet tcp - -\\n' > /etc/netconfig",
      "printf 'nfs 2049/tcp\\nnfs 2049/udp\\n' > /etc/services; echo 'root:x:0:0::/:/bin/sh' > /etc/passwd",
      'ip link set lo up; ip addr add 10.44.8.5/24 dev lo; ip addr add 192.0.2.5/24 dev lo',
      ...sharing.folders.map(
        (f) => `mkdir -p '${f.path}'; chmod 777 '${f.path}'; echo 'of ${f.name}' > '${f.path}/f'`,
      ),
      "cat > /etc/exports <<'END'",
      writeExports(sharing),
      'END',
      // A server that was just started lets others claim what they had open before: there are none, and it need not wait.
      'exportfs -ra; echo "exports $?"; rpc.mountd -N 3 & sleep 1; rpc.nfsd -G 10 -L 10 -N 3 4',
      'echo Y > /proc/fs/nfsd/v4_end_grace',
      mount('10.44.8.5', '/srv/one/written to', 'written'),
      mount('10.44.8.5', '/srv/one/read', 'read'),
      mount('10.44.8.5', '/srv/one/other', 'other'),
      mount('192.0.2.5', '/srv/one/read', 'elsewhere'),
    ];
    const text = await ranIn(
      {
        name: 'rows',
        firmware: 'bios',
        args: ['-M', 'q35', '-m', '1024', ...disks(all)],
        drives: Object.fromEntries(all.map((d) => [d.id, d.bytes / MIB])),
      },
      prepareKernel(),
      [
        'for m in md_mod raid1 raid456 ext4; do modprobe -q $m; done',
        // What a row does for hours behind one's back is not what is looked at, and takes the emulator's time.
        'echo 1 > /proc/sys/dev/raid/speed_limit_min; echo 1 > /proc/sys/dev/raid/speed_limit_max',
        'mkdir -p /run /srv /etc; mount -t tmpfs none /run',
        "cat > /one.sh <<'END'",
        script(parity, 'one').replace(/^mount .*$/m, 'mount /dev/md/one /srv/one'),
        'END',
        "cat > /two.sh <<'END'",
        script(mirror, 'two').replace(/^mkfs[\s\S]*$/m, ''),
        'END',
        'yes | sh /one.sh; echo "one $?"; yes | sh /two.sh; echo "two $?"',
        'echo "free $(df -B1 /srv/one | tail -n 1)"',
        'for a in one two; do echo "$a size $(cat /sys/block/$(basename $(readlink -f /dev/md/$a))/size)"; done',
        'for d in /dev/nvme?n1; do echo "$d $(mdadm --examine $d 2>/dev/null | grep -E "Data Offset" | tr -dc 0-9)"; done',
        ...served,
        'sed -i "s/-0/-9/" /one.sh; sh /one.sh; echo "gone $?"',
      ].join('\n'),
    );
    const of = (what: RegExp): number => Number(what.exec(text)?.[1]);
    expect(text).toMatch(/^one 0$/m);
    expect(text).toMatch(/^two 0$/m);
    const take = (p: typeof parity, what: string): number =>
      p.room.takes.find((t) => t.what === what)?.bytes ?? 0;
    expect(of(/^one size (\d+)$/m) * 512).toBe(parity.room.usable + take(parity, 'file system'));
    expect(of(/^two size (\d+)$/m) * 512).toBe(mirror.room.usable + take(mirror, 'file system'));
    const free = Number(/^free \S+\s+\d+\s+\d+\s+(\d+)/m.exec(text)?.[1]);
    // The maker of the file system keeps a little more for its journal and groups on a row than on a drive by itself.
    expect(Math.abs(free / parity.room.usable - 1)).toBeLessThan(0.001);
    expect(text).toMatch(/^exports 0$/m);
    expect(text).toMatch(/^written mounted 0\nof written\nwritten written 0$/m);
    expect(text).toMatch(/^read mounted 0\nof read\nread written 1$/m);
    expect(text).toMatch(/^other mounted 32$/m);
    expect(text).toMatch(/^elsewhere mounted 32$/m);
    // A drive that is not there: nothing is done.
    expect(text).toMatch(/not one drive of serial ZB-SERIAL-9; nothing was done/);
    expect(text).toMatch(/^gone 1$/m);
  });
});
