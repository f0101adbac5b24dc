import { z } from 'zod';

/** From here to there. */
export interface Range {
  low: number;
  high: number;
}

/** What a machine brings to carrying packets; null where nobody knows. */
export interface Carrier {
  cores: number | null;
  /** Hertz of a core. */
  hertz: number | null;
  /** Year its processor came. */
  year: number | null;
  /** A small core that does one thing after another, as boards have. */
  small: boolean;
  /** It enciphers in hardware. */
  aes: boolean | null;
  /** Bits a second of the slower of the two ports. */
  linkBits: number | null;
}

/** How much goes through for one size of packet: bits a second of IP, and what holds it back. */
export interface PaceLine {
  /** Bytes of an IP packet. */
  packetBytes: number;
  encrypted: boolean;
  /** Packets a second that the wire takes (IEEE 802.3: 18 bytes of frame, 20 of preamble and gap; at least 64 bytes of frame). */
  wirePackets: number | null;
  /** Packets a second that the processor takes, low and high. */
  cpuPackets: Range | null;
  bits: Range | null;
  bound: 'wire' | 'processor' | 'not known';
}

const FRAME = 18;
const BETWEEN = 20;
const LEAST_FRAME = 64;

/** Packets a second of a wire. RFC 2544, appendix B: 1,488,095 of the smallest frames at 1 Gb/s, 81,274 of the largest. */
export const wirePackets = (linkBits: number, packetBytes: number): number =>
  Math.floor(linkBits / (8 * (Math.max(LEAST_FRAME, packetBytes + FRAME) + BETWEEN)));

/** Cycles that a packet costs on its way through filter and tracker, by the age of a core. Common practice, no source. */
function cyclesPerPacket(c: Carrier): Range {
  if (c.small) return { low: 9_000, high: 22_000 };
  if ((c.year ?? 2015) < 2010) return { low: 12_000, high: 28_000 };
  return (c.year ?? 2015) < 2017 ? { low: 7_000, high: 15_000 } : { low: 5_000, high: 11_000 };
}

/** Cycles that a byte costs to encipher. Common practice, no source. */
const cyclesPerByte = (aes: boolean | null): Range =>
  aes === true ? { low: 1.5, high: 5 } : aes === false ? { low: 14, high: 32 } : { low: 1.5, high: 32 };

/** Cores that share the work: one queue of a card is one core, and few cards have more than four. Common practice, no source. */
const sharing = (cores: number | null): Range => ({ low: 1, high: Math.min(cores ?? 1, 4) });

function cpuPackets(c: Carrier, packetBytes: number, encrypted: boolean): Range | null {
  if (c.hertz === null) return null;
  const per = cyclesPerPacket(c);
  const byte = encrypted ? cyclesPerByte(c.aes) : { low: 0, high: 0 };
  const twice = encrypted ? 2 : 1;
  const cores = sharing(c.cores);
  const at = (perPacket: number, perByte: number, n: number): number =>
    Math.floor((n * (c.hertz ?? 0)) / (twice * perPacket + perByte * packetBytes));
  return { low: at(per.high, byte.high, cores.low), high: at(per.low, byte.low, cores.high) };
}

/** Full packets and small ones, plain and enciphered. Names are looked up and telephones talk in small ones. */
export function expectedPace(c: Carrier): PaceLine[] {
  return [
    [1500, false],
    [128, false],
    [1420, true],
  ].map(([size, enc]): PaceLine => {
    const packetBytes = Number(size);
    const encrypted = enc === true;
    const wire = c.linkBits === null ? null : wirePackets(c.linkBits, packetBytes);
    const cpu = cpuPackets(c, packetBytes, encrypted);
    const bits = (n: number): number => n * packetBytes * 8;
    if (wire === null || cpu === null) {
      const only = wire === null ? cpu : null;
      return {
        packetBytes,
        encrypted,
        wirePackets: wire,
        cpuPackets: cpu,
        bits: only ? { low: bits(only.low), high: bits(only.high) } : null,
        bound: 'not known',
      };
    }
    const low = Math.min(wire, cpu.low);
    const high = Math.min(wire, cpu.high);
    return {
      packetBytes,
      encrypted,
      wirePackets: wire,
      cpuPackets: cpu,
      bits: { low: bits(low), high: bits(high) },
      bound: cpu.low >= wire ? 'wire' : 'processor',
    };
  });
}

const iperfSchema = z.object({
  start: z.object({
    test_start: z.object({ protocol: z.string(), blksize: z.number().optional() }).optional(),
    timestamp: z.object({ timesecs: z.number() }).optional(),
  }),
  end: z.object({
    sum_received: z.object({ bits_per_second: z.number() }).optional(),
    sum: z.object({ bits_per_second: z.number(), lost_percent: z.number().optional() }).optional(),
  }),
});

/** What `iperf3 -J` measured: bits a second as they arrived; undefined where the text is not its output, or it measured nothing. */
export function readIperf(
  text: string,
): { bitsPerSecond: number; protocol: string; at: string | null } | undefined {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return undefined;
  }
  const found = iperfSchema.safeParse(value);
  if (!found.success) return undefined;
  const { start, end } = found.data;
  const bits = (end.sum_received ?? end.sum)?.bits_per_second;
  if (bits === undefined || bits <= 0) return undefined;
  const seconds = start.timestamp?.timesecs;
  return {
    bitsPerSecond: bits,
    protocol: start.test_start?.protocol ?? 'TCP',
    at: seconds === undefined ? null : new Date(seconds * 1000).toISOString(),
  };
}
