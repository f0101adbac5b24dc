import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { benchToText } from '@zb/core/model/file';
import { commandLine } from './command';

const zb = commandLine();
const json = (args: string[], input = ''): Record<string, unknown> => {
  const done = zb(args, input);
  if (done.stderr !== '') throw new Error(done.stderr);
  return JSON.parse(done.stdout) as Record<string, unknown>;
};
const dir = mkdtempSync(join(tmpdir(), 'zb-network-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const file = (name: string, text: string): string => {
  const path = join(dir, name);
  writeFileSync(path, text);
  return path;
};
const BENCH = file('hall.json', benchToText(saltmarshHall()));
const NEIGH = JSON.stringify([
  { dst: '192.168.7.9', dev: 'eth0', lladdr: '00:16:3e:00:00:09', state: ['REACHABLE'] },
  { dst: '192.168.7.77', dev: 'eth0', state: ['FAILED'] },
]);
const ADDR = JSON.stringify([
  {
    ifindex: 2,
    ifname: 'eth0',
    address: '00:16:3e:00:00:02',
    addr_info: [{ family: 'inet', local: '192.168.7.2', prefixlen: 24 }],
  },
]);

describe('zb network', () => {
  it('reads several texts into one plan, whatever their order, and the plan goes on to the others', () => {
    const out = json(['network', 'read', file('neigh', NEIGH), file('addr', ADDR)]);
    expect(out).toMatchObject({
      plan: {
        networks: [{ prefix: '192.168.7.0/24' }],
        hosts: [
          { address: '192.168.7.2', manner: 'fixed' },
          { address: '192.168.7.9', known: false },
        ],
      },
    });
    const plan = file('plan.json', JSON.stringify(out));
    expect(json(['network', 'plan', plan])).toMatchObject({ next: '192.168.7.10' });
    expect(json(['network', 'check', plan])).toMatchObject({ stops: 0 });
    expect(zb(['network', 'write', '--as', 'csv', plan]).stdout.split('\n')).toHaveLength(4);
  });
  it('says what a text is not, and takes nothing of it', () => {
    const done = zb(['network', 'read', file('cut', NEIGH.slice(0, 60))]);
    expect([done.status, done.stdout]).toEqual([2, '']);
    expect(done.stderr).toMatch(/Nothing was changed/);
  });
  it('checks, plans, cuts and writes a bench', () => {
    const found = json(['network', 'check', BENCH]);
    expect(found.stops).toBe(0);
    expect((found.findings as { fault: { code: string } }[]).map((f) => f.fault.code)).toEqual(
      expect.arrayContaining(['nobody wrote it down', 'fixed in the pool', 'wrong mask']),
    );
    const planned = json(['network', 'plan', '--network', 'hall', '--box', 'booking-host', BENCH]);
    expect(planned).toMatchObject({ host: { address: '10.44.8.30', manner: 'reservation' } });
    const cut = json(['network', 'cut', '--network', 'hall', '--seed', '5', BENCH]);
    expect(cut.worlds).toBe('480');
    expect((cut.hosts as { id: string; fate: string }[]).find((h) => h.id === 'host-archive')?.fate).toBe(
      'same',
    );
    expect(zb(['network', 'write', '--network', 'hall', '--as', 'dnsmasq', BENCH]).stdout).toMatch(
      /^dhcp-host=02:5a:.*,10\.44\.8\.20,archive$/m,
    );
    expect(
      zb(['network', 'write', '--network', 'hall', '--as', 'netplan', '--host', 'archive', BENCH]).stdout,
    ).toContain('"10.44.8.20/24"');
  });
  it('asks for what it was not told', () => {
    expect(zb(['network', 'cut', BENCH]).stderr).toContain('--network: hall, guests');
    expect(zb(['network', 'write', '--network', 'hall', '--as', 'networkd', BENCH]).stderr).toContain(
      '--host',
    );
    expect(zb(['network', 'write', '--network', 'hall', '--as', 'nothing', BENCH]).stderr).toContain(
      'dnsmasq',
    );
    expect(zb(['network', 'plan', '--network', 'hall', '--place', 'x', BENCH]).status).toBe(2);
    expect(zb(['network', 'read']).status).toBe(2);
    expect(zb(['network', 'read', '--script']).stdout).toMatch(/^#!\/bin\/sh/);
  });
  it('ends with 1 where an address is had twice', () => {
    const host = (id: string) => ({ id, name: id, networkId: 'n', manner: 'fixed', address: '10.0.0.5' });
    const plan = JSON.stringify({
      networks: [{ id: 'n', name: 'N', prefix: '10.0.0.0/24' }],
      hosts: [host('a'), host('b')],
    });
    const done = zb(['network', 'check', '-'], plan);
    expect(done.status).toBe(1);
    expect(JSON.parse(done.stdout)).toMatchObject({
      findings: [{ hosts: ['a', 'b'], says: expect.stringContaining('a and b') as string }],
    });
  });
});

describe('zb firststart', () => {
  it('prints the list in its order, with reasons and what each line waits for', () => {
    const out = json(['firststart', '--bench', BENCH, '--box', 'games-corner']);
    const lines = out.lines as { key: string; after: string[]; title: string }[];
    const at = new Map(lines.map((l, i) => [l.key, i]));
    for (const l of lines) for (const a of l.after) expect(at.get(a)).toBeLessThan(at.get(l.key) ?? 0);
    expect(lines.map((l) => l.title)).toContain('Driver: graphics');
    expect(zb(['firststart', '--bench', BENCH, '--box', 'tea-room-music']).stderr).toContain('Which machine');
  });
  it('draws passphrases and tells how strong what is piped in is', () => {
    const [a, b] = [json(['passphrase']), json(['passphrase'])];
    expect(a).toMatchObject({ words: 6, list: 7776, bits: 77.55 });
    expect(a.passphrase).not.toBe(b.passphrase);
    expect(zb(['passphrase', '--words', '0']).status).toBe(2);
    expect(json(['strength'], 'password\n')).toMatchObject({ score: 0 });
    expect(json(['strength'], `${String(a.passphrase)}\n`)).toMatchObject({ score: 4 });
  });
});
