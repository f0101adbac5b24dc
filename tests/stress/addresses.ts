import { BlockList, connect, createServer } from 'node:net';
import { HEADERS } from '@zb/server/security';
import { mayBeAsked } from '@zb/server/watch';
import { bounded, type Part } from './part';
import type { Random } from './random';
import { BuiltServer } from './server';

/** Networks of one's own (RFC 1918; RFC 4193 §3), by Node's own arithmetic and not by ours. */
const OWN = new BlockList();
OWN.addSubnet('10.0.0.0', 8, 'ipv4');
OWN.addSubnet('172.16.0.0', 12, 'ipv4');
OWN.addSubnet('192.168.0.0', 16, 'ipv4');
OWN.addSubnet('fc00::', 7, 'ipv6');

/** What may be taken for an address: sound ones of every kind, and spellings by which a check was tricked before. */
function spelled(random: Random): { text: string; own: boolean } {
  const octets = Array.from({ length: 4 }, () => random.int(0, 255));
  const first = random.pick([10, 127, 169, 172, 192, 0, 224, 255, random.int(1, 223)]);
  const second = random.pick([16, 31, 32, 168, 254, 0, octets[1] ?? 0]);
  const plain = `${first}.${second}.${octets[2]}.${octets[3]}`;
  const number = Buffer.from(plain.split('.').map(Number)).readUInt32BE();
  const groups = Array.from({ length: 8 }, () => random.int(0, 0xffff).toString(16));
  const six = [random.pick(['fd00', 'fc12', 'fe80', 'ff02', '2001', '::1', '::']), ...groups.slice(1)].join(
    ':',
  );
  if (random.chance(0.3)) return { text: plain, own: OWN.check(plain, 'ipv4') };
  const text = random.pick([
    six,
    '::1',
    '::',
    `::ffff:${plain}`,
    `::ffff:127.0.0.1`,
    `::${plain}`,
    `64:ff9b::${plain}`,
    String(number),
    `0x${number.toString(16)}`,
    `0${first.toString(8)}.${second}.0.1`,
    `${first}.${second}`,
    `${plain}.`,
    ` ${plain}`,
    `${plain}\n`,
    `${plain}:80`,
    `[${six}]`,
    `${six}%eth0`,
    'localhost',
    `${plain}@127.0.0.1`,
    plain.replaceAll('.', '。'),
    plain.replace(/\d/g, (d) => String.fromCharCode(0xff10 + Number(d))),
    random.bytes(4).toString('latin1'),
  ]);
  // Blanks around an address are no part of it.
  if (text.trim() === plain) return { text, own: OWN.check(plain, 'ipv4') };
  // Only what is an address in IPv6's own text (RFC 4291 §2.2) may be one of ours; all other spellings are refused.
  const isSix = text === six && /^[0-9a-f]{1,4}(:[0-9a-f]{1,4}){7}$/.test(text);
  return { text, own: isSix && OWN.check(text, 'ipv6') };
}

/** A request as raw bytes; its answer, whole. */
function raw(port: number, text: string): Promise<string> {
  return bounded(
    'a raw request',
    15_000,
    new Promise((done) => {
      let said = '';
      const socket = connect(port, '127.0.0.1', () => socket.end(text));
      socket.on('data', (d) => (said += d.toString('latin1')));
      socket.on('error', () => done(said));
      socket.on('close', () => done(said));
    }),
  );
}

/**
 * The watch asks addresses of one's own networks alone, however an address is spelled; nobody on this machine is reached by
 * it; and every answer has our headers, also where a request has no Host or two, or an odd one.
 */
export const addresses: Part = async ({ random, dir, goOn, count, wrong }) => {
  const reached: string[] = [];
  const trap = createServer((s) => {
    reached.push(String(s.remoteAddress));
    s.destroy();
  });
  await new Promise<void>((done) => trap.listen(0, '::', done));
  const trapPort = (trap.address() as { port: number }).port;
  const server = await BuiltServer.start({ dataDir: `${dir}/addresses`, env: { ZB_LAN: '1' } });
  try {
    while (goOn()) {
      for (let i = 0; i < 500; i += 1) {
        const { text, own } = spelled(random);
        const may = mayBeAsked(text);
        if ((may !== undefined) !== own)
          wrong(`${JSON.stringify(text)} ${own ? 'is refused' : `is asked as ${may}`}`);
        count('spellings');
      }
      // Through the server: what is refused is refused before anything is opened.
      const { text, own } = spelled(random);
      if (!own) {
        const reply = await server.ask(
          'GET',
          `/api/watch?address=${encodeURIComponent(text)}&port=${trapPort}`,
        );
        if (reply.status !== 400) wrong(`${JSON.stringify(text)} is answered with ${reply.status}`);
        count('addresses asked of the server');
      }
      const heads = random.pick([
        '',
        'Host:\r\n',
        'Host: 127.0.0.1\r\nHost: evil.example\r\n',
        `Host: 127.0.0.1:${server.port}\r\n`,
        'Host: \u0001\r\n',
        `Host: ${'a'.repeat(5000)}\r\n`,
        'host : 127.0.0.1\r\n',
      ]);
      const [method, path, version] = [
        random.pick(['GET', 'HEAD', 'POST', 'DELETE', 'OPTIONS', 'BREW']),
        random.pick([
          '/',
          '/api/health',
          '//',
          '/%',
          '*',
          '/%2e%2e/',
          `/${'a'.repeat(3000)}`,
          'http://evil.example/',
        ]),
        random.pick(['1.0', '1.1', '9.9']),
      ];
      const said = await raw(
        server.port,
        `${method} ${path} HTTP/${version}\r\n${heads}Connection: close\r\n\r\n`,
      );
      const head = said.split('\r\n\r\n')[0]?.toLowerCase() ?? '';
      const asked = JSON.stringify([method, path.slice(0, 40), version, heads.slice(0, 60)]);
      if (!/^http\/1\.1 \d{3}/.test(head)) wrong(`${asked} is not answered: ${said.slice(0, 80)}`);
      else
        for (const name of Object.keys(HEADERS))
          if (!head.includes(`${name.toLowerCase()}:`)) wrong(`${asked}: no ${name}`);
      count('raw requests');
    }
    if (reached.length > 0) wrong(`the watch reached this machine: ${reached.join(', ')}`);
    if (server.ended !== undefined || server.said.includes('nobody caught')) wrong(server.said.slice(-2000));
  } finally {
    await server.end('SIGKILL');
    trap.close();
  }
};
