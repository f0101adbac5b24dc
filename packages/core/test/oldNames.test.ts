/** Benches of version 8 took any text for names that go into files of other programs. */
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { BENCH_VERSION } from '@zb/core/model/bench';
import { BenchFileError, benchFromText, benchToText } from '@zb/core/model/file';

type Plain = Record<string, unknown>;
const hall = JSON.parse(benchToText(saltmarshHall())) as Record<string, Plain[]> & Plain;
const changed = (collection: string, id: string, more: Plain): Plain[] =>
  (hall[collection] ?? []).map((r) => (r.id === id ? { ...r, ...more } : r));

const EVIL = 'home.arpa\nconf-script=/x/p.sh';
const archive = (hall.boxes as Plain[]).find((b) => b.id === 'archive') as Plain;
const sharing = archive.sharing as Plain & { folders: Plain[] };
const old = {
  ...hall,
  version: 8,
  networks: changed('networks', 'hall', { domain: EVIL, notes: 'mine' }),
  hosts: changed('hosts', String((hall.hosts as Plain[])[0]?.id), {
    label: 'x"; } execute(',
    port: '-I eth0',
  }),
  boxes: changed('boxes', 'archive', {
    sharing: {
      ...sharing,
      name: 'x; location /etc/ { alias /etc/; }',
      workgroup: 'a b',
      folders: sharing.folders.map((f, i) => (i === 0 ? { ...f, name: 'a]\nroot preexec=x' } : f)),
    },
    reach: {
      hostKeys: [
        { type: 'ssh-ed25519', key: 'QUJD' },
        { type: 'a b', key: 'QUJD' },
      ],
    },
  }),
};

describe('a bench of version 8', () => {
  const bench = benchFromText(JSON.stringify(old));
  it('is read, its names are ones that other programs take, and what they were is said', () => {
    expect(bench.version).toBe(BENCH_VERSION);
    expect(bench.networks.find((n) => n.id === 'hall')).toMatchObject({
      domain: null,
      notes: `mine\nWas: domain “${EVIL}”`,
    });
    expect(bench.hosts[0]).toMatchObject({ label: null, port: null });
    expect(bench.hosts[0]?.notes).toContain('interface “-I eth0”');
    const box = bench.boxes.find((b) => b.id === 'archive');
    expect(box?.sharing).toMatchObject({ name: null, workgroup: 'WORKGROUP' });
    expect(box?.sharing?.folders[0]?.name).toBe('a root preexec x');
    expect(box?.reach?.hostKeys).toEqual([{ type: 'ssh-ed25519', key: 'QUJD' }]);
    const line = bench.log.find((e) => e.id === 'names-archive');
    expect(line?.text).toContain('location /etc/');
    expect(line).toMatchObject({ boxId: 'archive', kind: 'note' });
  });
  it('can be saved and opened again, the same', () => {
    const text = benchToText(bench);
    expect(benchToText(benchFromText(text))).toBe(text);
  });
  it('of version 9 with such a name is not taken, and the place is told', () => {
    try {
      benchFromText(JSON.stringify({ ...old, version: 9 }));
      throw new Error('it was taken');
    } catch (error) {
      expect(error).toBeInstanceOf(BenchFileError);
      const paths = (error as BenchFileError).problems.map((p) => p.path);
      expect(paths).toEqual(
        expect.arrayContaining([
          expect.stringMatching(/^networks\[\d+\]\.domain$/),
          expect.stringMatching(/^hosts\[\d+\]\.label$/),
          expect.stringMatching(/^boxes\[\d+\]\.sharing\.folders\[0\]\.name$/),
        ]),
      );
    }
  });
});
