/** Rules of a gate and guests of a host on the command line: what is printed, what is refused, and with which status. */
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hallGate } from '@zb/core/demo/gate';
import { bookingGuests } from '@zb/core/demo/guests';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { benchToText } from '@zb/core/model/file';
import { commandLine } from './command';

const run = commandLine();
const zb = (...args: string[]) => run(args);

const dir = mkdtempSync(join(tmpdir(), 'zb-gate-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const put = (name: string, value: unknown): string => {
  const path = join(dir, name);
  writeFileSync(path, typeof value === 'string' ? value : JSON.stringify(value));
  return path;
};
const bench = saltmarshHall();
const plan = put('gate.json', { gate: hallGate(), networks: bench.networks, hosts: bench.hosts });
const mended = put('mended.json', {
  gate: {
    ...hallGate(),
    permits: hallGate().permits.map((p) => (p.id === 'reading-room' ? { ...p, services: ['reading'] } : p)),
  },
  networks: bench.networks,
  hosts: bench.hosts,
});
const packet = put('packet.json', {
  from: 'guests',
  source: '10.44.30.9',
  destination: '10.44.8.20',
  protocol: 'tcp',
  destinationPort: 445,
});
const json = (text: string) => JSON.parse(text) as Record<string, never>;

describe('zb rules', () => {
  it('ends with 1 where a promise fails, and gives no rules away', () => {
    const judged = zb('rules', plan);
    expect(judged.status).toBe(1);
    const out = json(judged.stdout) as unknown as {
      promises: { id: string; verdict: string; mends: unknown[] }[];
      stops: number;
    };
    expect(out.promises.filter((p) => p.verdict === 'fails').map((p) => p.id)).toEqual(['apart-guests']);
    expect(out.promises.find((p) => p.verdict === 'fails')?.mends).toHaveLength(2);
    const given = zb('rules', plan, '--as', 'nft');
    expect(given.status).toBe(2);
    expect(given.stdout).toBe('');
  });
  it('writes every form once all promises hold, and is the same of a bench', () => {
    expect(zb('rules', mended).status).toBe(0);
    expect(zb('rules', mended, '--as', 'nft').stdout).toContain('table inet gate {');
    expect(zb('rules', mended, '--as', 'rollback').stdout).toMatch(/^#!\/bin\/sh/);
    expect(zb('rules', mended, '--as', 'dnsmasq').stdout).toContain('interface=eth1');
    const file = put('bench.json', benchToText(bench));
    const [one, two] = [zb('rules', plan), zb('rules', file, '--box', 'guest-gate')];
    expect(json(two.stdout)['promises']).toEqual(json(one.stdout)['promises']);
    expect(zb('rules', file, '--box', 'archive').status).toBe(2);
  });
  it('tells a packet’s way and its answer', () => {
    const asked = json(zb('rules', 'ask', packet, '--plan', plan).stdout) as unknown as {
      way: { end: string; by: string };
      answer: { way: { end: string } };
    };
    expect(asked.way).toMatchObject({ end: 'passes', by: 'permit reading-room.1' });
    expect(asked.answer.way.end).toBe('passes');
    expect(
      zb(
        'rules',
        'ask',
        put('odd.json', { from: 'cellar', source: '10.44.30.9', destination: '10.44.8.20', protocol: 'tcp' }),
        '--plan',
        plan,
      ).status,
    ).toBe(2);
    expect(
      zb(
        'rules',
        'ask',
        put('mixed.json', {
          from: 'guests',
          source: '10.44.30.9',
          destination: '2001:db8::1',
          protocol: 'tcp',
        }),
        '--plan',
        plan,
      ).status,
    ).toBe(2);
  });
  it('compares, and reads what somebody else wrote', () => {
    expect(zb('rules', 'compare', plan, plan).status).toBe(0);
    const differs = zb('rules', 'compare', plan, mended);
    expect(differs.status).toBe(1);
    expect((json(differs.stdout)['changed'] as unknown as unknown[]).length).toBeGreaterThan(0);
    const nft = put('nft.json', {
      nftables: [
        {
          chain: {
            family: 'inet',
            table: 't',
            name: 'f',
            type: 'filter',
            hook: 'forward',
            prio: 0,
            policy: 'drop',
          },
        },
        {
          rule: {
            family: 'inet',
            table: 't',
            chain: 'f',
            handle: 4,
            expr: [{ match: { op: '==', left: { meta: { key: 'mark' } }, right: 7 } }, { accept: null }],
          },
        },
      ],
    });
    const read = json(zb('rules', 'read', nft, '--plan', plan).stdout) as unknown as {
      unknown: { what: string }[];
      promises: { id: string; verdict: string }[];
    };
    expect(read.unknown[0]?.what).toContain('mark');
    expect(read.promises.find((p) => p.id === 'apart-guests')?.verdict).toBe('cannot say');
    expect(zb('rules', 'read', put('none.json', '{}')).status).toBe(2);
    expect(zb('rules', 'compare', nft, plan, '--plan', plan).status).toBe(1);
  });
});

describe('zb guests', () => {
  const guests = put('guests.json', {
    plan: { ...bookingGuests(), pot: { memoryBytes: 8 * 1024 ** 3, threads: 6, cores: 6 } },
  });
  it('ends with 1 where they do not fit, and finds the smallest change', () => {
    const found = zb('guests', guests, '--fit');
    expect(found.status).toBe(1);
    expect(json(found.stdout)).toMatchObject({
      mend: { code: 'mended', touched: 1, changes: [{ kind: 'left out', guest: 'trial' }] },
    });
  });
  it('writes each guest, seeds in words, and everything into a folder', () => {
    expect(zb('guests', guests, '--as', 'xml', '--guest', 'booking').stdout).toMatch(/^<domain type="kvm">/);
    expect(zb('guests', guests, '--as', 'seed').stdout).toContain('#cloud-config');
    expect(zb('guests', guests, '--as', 'md').stdout).toContain('| booking |');
    const out = join(dir, 'out');
    expect(zb('guests', guests, '--out', out).status).toBe(0);
    expect(existsSync(join(out, 'seeds/booking-seed.iso'))).toBe(true);
    expect(readFileSync(join(out, 'guests/weather.xml'), 'utf8')).toContain('<name>weather</name>');
    expect(zb('guests', guests, '--guest', 'nobody').status).toBe(2);
    expect(zb('guests', put('bad.json', { plan: { guests: [{ name: '' }] } })).status).toBe(2);
  });
  it('reads a running host', () => {
    const text = put(
      'host.txt',
      'CPU(s):              4\nMemory size:         8388608 KiB\n\nName:           a\nCPU(s):         2\nMax memory:     2097152 KiB\nState:          running\n',
    );
    expect(json(zb('guests', 'read', text).stdout)).toMatchObject({
      threads: 4,
      guests: [{ name: 'a', running: true }],
      left: { running: 1 },
    });
    expect(zb('guests', 'read', put('no.txt', 'nothing here')).status).toBe(2);
  });
});
