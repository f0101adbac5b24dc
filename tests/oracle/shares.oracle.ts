/**
 * Folders by real servers: smb.conf taken by testparm and served by smbd in a name space of its own, where every user does
 * what was planned and is refused what was not; links made and walked by the shell; the web server's block taken by nginx.
 * smb.conf(5), exports(5), nginx's own check. As root.
 */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import fc from 'fast-check';
import { sharingSchema, type Sharing } from '@zb/core/model/sharing';
import { archiveSharing } from '@zb/core/demo/storage';
import { checkSharing } from '@zb/core/storage/share/check';
import { follow } from '@zb/core/storage/share/links';
import { mayDo, type Asker } from '@zb/core/storage/share/rights';
import { writeAdvert, writeFolders, writeSmb, writeWeb } from '@zb/core/storage/share/write';
import { run, scratch } from './files';
import { seedOfRun } from './damage';

jest.setTimeout(120_000);
const room = scratch();
afterAll(() => room.clear());

/** A text that a tool reads from a file. */
function file(name: string, text: string): string {
  const at = room.path(name);
  writeFileSync(at, text);
  return at;
}

const word = fc.stringMatching(/^[a-z][a-z0-9]{1,7}$/);
const odd = fc.constantFrom(
  'reading room',
  'Größe',
  'a.b',
  "bell's",
  'x-1',
  '日本',
  'A & B',
  '(old)',
  '#1',
  'c&d',
);
const sharings: fc.Arbitrary<Sharing> = fc
  .record({
    users: fc.uniqueArray(word, { maxLength: 4 }),
    folders: fc.uniqueArray(
      fc.record({
        name: fc.oneof(word, odd),
        guests: fc.constantFrom('none' as const, 'read' as const, 'write' as const),
        oneCase: fc.boolean(),
        binDays: fc.option(fc.integer({ min: 1, max: 60 })),
        rights: fc.array(fc.constantFrom('none', 'read', 'write'), { minLength: 4, maxLength: 4 }),
        protocols: fc.subarray(['smb', 'nfs', 'web'] as const),
      }),
      { maxLength: 5, selector: (f) => f.name.toLowerCase() },
    ),
    from: fc.subarray(['10.44.8.0/24', '192.0.2.0/25', '2001:db8:1::/64']),
  })
  .map(({ users, folders, from }) =>
    sharingSchema.parse({
      users: users.map((name, i) => ({ id: `u${i}`, name: `zb${name}` })),
      from,
      folders: folders.map((f, i) => ({
        ...f,
        id: `f${i}`,
        path: `/srv/pool/${f.name}`,
        read: users.flatMap((_, k) => (f.rights[k] === 'read' ? [`u${k}`] : [])),
        write: users.flatMap((_, k) => (f.rights[k] === 'write' ? [`u${k}`] : [])),
      })),
    }),
  );

it('every share file is taken by testparm without a word, and says what was planned', () => {
  fc.assert(
    fc.property(sharings, (sharing) => {
      const stops = checkSharing(sharing, 'box', null).filter(
        (f) => f.grade === 'stop' && f.fault.code !== 'no networks',
      );
      if (stops.length > 0) return;
      const at = file('smb.conf', writeSmb(sharing, 'box'));
      const read = spawnSync('testparm', ['-s', at], { encoding: 'utf8' });
      expect(read.status).toBe(0);
      expect(read.stderr).not.toMatch(/unknown|invalid|ignoring|WARNING|error/i);
      for (const f of sharing.folders)
        expect(read.stdout.includes(`\n[${f.name}]\n`)).toBe(f.protocols.includes('smb'));
      for (const f of sharing.folders.filter((x) => x.protocols.includes('smb'))) {
        const value = (name: string): string =>
          run('testparm', ['-s', '--section-name', f.name, '--parameter-name', name, at]).trim();
        expect(value('path')).toBe(f.path);
        expect(value('guest ok')).toBe(f.guests === 'none' ? 'No' : 'Yes');
        expect(value('read only')).toBe(f.guests === 'write' ? 'No' : 'Yes');
      }
    }),
    { numRuns: 8, seed: seedOfRun() },
  );
});

it('the server block of the web is taken by nginx, and what is told of itself is whole', () => {
  fc.assert(
    fc.property(sharings, (sharing) => {
      const block = file(
        'web.conf',
        writeWeb(sharing, 'box')
          .replace('listen 80;', 'listen 127.0.0.1:18080;')
          .replace('  listen [::]:80;\n', ''),
      );
      const conf = file(
        'nginx.conf',
        `pid ${room.path('pid')};\nerror_log stderr;\nevents {}\nhttp { include ${block}; access_log off; }\n`,
      );
      const read = spawnSync('nginx', ['-t', '-c', conf, '-p', room.dir], { encoding: 'utf8' });
      expect([read.status, read.stderr.includes('syntax is ok')]).toEqual([0, true]);
      const parsed = run(
        'python3',
        [
          '-c',
          'import sys, xml.etree.ElementTree as e; print(len(e.fromstring(sys.stdin.read()).findall("service")))',
        ],
        writeAdvert(sharing, 'A & B'),
      );
      const has = (p: 'smb' | 'nfs' | 'web'): number =>
        sharing.folders.filter((f) => f.protocols.includes(p)).length;
      expect(Number(parsed)).toBe(Math.min(1, has('smb')) + has('nfs') + Math.min(1, has('web')));
    }),
    { numRuns: 15, seed: seedOfRun() },
  );
});

/** Everything in a name space of its own: its network, and layers over the folders that users and servers write to. */
const apart = (script: string): string =>
  run(
    'unshare',
    ['--mount', '--net', '--pid', '--fork', '--mount-proc', 'bash', '-s'],
    `exec 2>&1
top=${room.path('layers')}
mkdir -p $top && mount -t tmpfs none $top
for d in etc var srv; do
  mkdir -p $top/$d/up $top/$d/work
  mount -t overlay overlay -o lowerdir=/$d,upperdir=$top/$d/up,workdir=$top/$d/work /$d
done
mount -t tmpfs none /run
mkdir -p /run/samba /run/zb
ip link set lo up; ip link add zb0 type veth peer name zb1; ip link set zb0 up; ip link set zb1 up
ip addr add 10.44.8.5/24 dev zb0; ip addr add 192.0.2.5/24 dev zb0
${script}`,
  );

it('a real SMB server lets each user do what was planned, refuses what was not, and answers nobody from elsewhere', () => {
  const demo = archiveSharing();
  const sharing: Sharing = {
    ...demo,
    users: [...demo.users, { id: 'u-x', name: 'stranger', full: '' }].map((u) => ({
      ...u,
      name: `zb${u.name}`,
    })),
    folders: [
      ...demo.folders.map((f) => ({ ...f, protocols: ['smb' as const] })),
      {
        id: 'drop',
        name: 'drop',
        path: '/srv/pool/drop',
        protocols: ['smb'],
        read: [],
        write: [],
        guests: 'write',
        oneCase: false,
        binDays: null,
      },
    ],
    links: [],
  };
  const who: { name: string; asker: Asker; sign: string }[] = [
    ...sharing.users.map((u) => ({ name: u.name, asker: { user: u.id }, sign: `-U ${u.name}%geheim-7` })),
    { name: 'guest', asker: 'guest' as const, sign: '-N -U %' },
  ];
  const asks = sharing.folders.flatMap((f, i) =>
    who.flatMap((w) =>
      (['10.44.8.5', '192.0.2.5'] as const).flatMap((from) =>
        (['read', 'write'] as const).map((what) => ({ f, i, w, from, what })),
      ),
    ),
  );
  const said = apart(`
${sharing.users.map((u) => `useradd -M -s /usr/sbin/nologin ${u.name}`).join('\n')}
cat > /run/zb/smb.conf <<'END'
${writeSmb(sharing, 'box').replace('log file = /var/log/samba/%m.log', 'log file = /run/zb/log')}
END
mkdir -p /etc/samba && cp /run/zb/smb.conf /etc/samba/smb.conf
${sharing.users.map((u) => `printf 'geheim-7\\ngeheim-7\\n' | smbpasswd -s -a ${u.name} >/dev/null`).join('\n')}
cat > /run/zb/folders.sh <<'END'
${writeFolders(sharing)}
END
sh /run/zb/folders.sh >/dev/null
sh /run/zb/folders.sh >/dev/null && echo AGAIN
${sharing.folders.map((f) => `echo kept > '${f.path}/there'; chmod 664 '${f.path}/there'; chgrp --reference='${f.path}' '${f.path}/there'`).join('\n')}
smbd -D
for i in 1 2 3 4 5 6 7 8 9 10; do smbclient -N -U % -L 10.44.8.5 >/dev/null 2>&1 && break; sleep 0.5; done
set +e
echo new > /run/zb/new
${asks
  .map(
    ({ f, w, from, what }, n) =>
      `smbclient '//${from}/${f.name}' ${w.sign} -c '${what === 'read' ? 'get there /run/zb/got' : `put /run/zb/new n${n}`}' >/dev/null 2>&1; echo "ask ${n} $?"`,
  )
  .join('\n')}
smbclient '//10.44.8.5/archive' -U zbgroup%geheim-7 -c 'put /run/zb/new Gone; del gone' >/dev/null 2>&1
find /srv/pool/archive/.bin -type f 2>/dev/null | sed 's/^/bin /'
`);
  expect(said).toMatch(/^AGAIN$/m);
  const wrong = asks.flatMap(({ f, w, from, what }, n) => {
    const done = new RegExp(`^ask ${n} 0$`, 'm').test(said);
    const planned = mayDo(sharing, f, { who: w.asker, what, over: 'smb', from });
    return done === planned ? [] : [`${w.name} ${what} ${f.name} from ${from}: ${done ? 'let' : 'refused'}`];
  });
  expect(wrong).toEqual([]);
  // Deleted by another case of its name, and kept in the bin.
  expect(said).toMatch(/^bin .*\/zbgroup\/.*[Gg]one/m);
});

it('links that are taken lead where they should, and those that are refused are what a walk stumbles over', () => {
  const places = [
    '/srv/pool/a',
    '/srv/pool/a/x',
    '/srv/pool/b',
    '/srv/pool/b/y',
    '/srv/pool/c/z',
    '/srv/pool/gone/w',
  ];
  const sharing = fc
    .array(
      fc.record({
        at: fc.constantFrom(...places.map((p) => `${p}/l`), '/srv/pool/a/x/m', '/srv/pool/b/m'),
        to: fc.constantFrom(...places, ...places.map((p) => `${p}/l`), '/srv/pool'),
      }),
      { maxLength: 4 },
    )
    .map((links) =>
      sharingSchema.parse({
        from: ['10.44.8.0/24'],
        folders: places.slice(0, 5).map((path, i) => ({ id: `f${i}`, name: `f${i}`, path, guests: 'read' })),
        links: links.map((l, i) => ({ id: `l${i}`, ...l })),
      }),
    );
  fc.assert(
    fc.property(sharing, (s) => {
      const refused = checkSharing(s, 'box', null)
        .filter((f) => f.grade === 'stop')
        .map((f) => f.fault.code);
      const root = room.path('tree');
      run('sh', ['-c', 'rm -rf "$1" && mkdir -p "$1"', 'sh', root]);
      // The script of a plan without users and groups, under a root of its own.
      const script = writeFolders(s)
        .split('\n')
        .filter((l) => !/group|chgrp|chmod|setfacl/.test(l))
        .join('\n')
        .replace(/(^|[ '])\/srv/gm, `$1${root}/srv`);
      if (refused.length > 0) return;
      // What lies in a shared folder is taken for there.
      for (const l of s.links) run('mkdir', ['-p', `${root}${follow(l.to, s.links)?.path ?? ''}`]);
      run('sh', ['-s'], script);
      for (const l of s.links) {
        expect(
          run('readlink', ['-f', `${root}${l.at}`])
            .trim()
            .startsWith(`${root}/srv/pool/`),
        ).toBe(true);
        expect(spawnSync('test', ['-e', `${root}${l.at}`]).status).toBe(0);
      }
      // find(1) says “File system loop detected” where a walk meets a folder it is in.
      const walked = spawnSync('find', ['-L', root], { encoding: 'utf8' });
      expect(walked.stderr).not.toMatch(/loop/);
      expect(run('find', [root, '-xtype', 'l']).trim()).toBe('');
    }),
    { numRuns: 60, seed: seedOfRun() },
  );
});

it('a circle, and a link into itself, are what find says a walk never comes back from', () => {
  const of = (links: { at: string; to: string }[]) =>
    sharingSchema.parse({
      from: ['10.44.8.0/24'],
      folders: [{ id: 'a', name: 'a', path: '/srv/pool/a', guests: 'read' }],
      links: links.map((l, i) => ({ id: `l${i}`, ...l })),
    });
  const codes = (links: { at: string; to: string }[]): string[] =>
    checkSharing(of(links), 'box', null).map((f) => f.fault.code);
  const walk = (links: { at: string; to: string }[]): string => {
    const root = room.path('walk');
    run('sh', ['-c', 'rm -rf "$1" && mkdir -p "$1/srv/pool/a"', 'sh', root]);
    for (const l of links) run('ln', ['-s', `${root}${l.to}`, `${root}${l.at}`]);
    return spawnSync('find', ['-L', root], { encoding: 'utf8' }).stderr;
  };
  const itself = [{ at: '/srv/pool/a/up', to: '/srv/pool/a' }];
  expect(codes(itself)).toContain('link into itself');
  expect(walk(itself)).toMatch(/loop/);
  const circle = [
    { at: '/srv/pool/a/one', to: '/srv/pool/a/two' },
    { at: '/srv/pool/a/two', to: '/srv/pool/a/one' },
  ];
  expect(codes(circle)).toContain('link in a circle');
  expect(walk(circle)).toMatch(/Too many levels|loop/i);
  expect(codes([{ at: '/srv/pool/a/one', to: '/srv/nowhere' }])).toContain('link dangles');
});
