/** Displays: EDID blocks made here, read by us and by Debian's edid-decode. Layout from VESA E-EDID 1.4 and CTA-861. */
import { writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { EdidError, readEdid } from '@zb/core/formats/edid';
import { scratch } from './files';

const room = scratch();
afterAll(() => room.clear());

/** A small generator with a seed, so that a failing block can be made again. */
function random(seed: number): (n: number) => number {
  let x = seed;
  return (n) => {
    x = (Math.imul(x, 1103515245) + 12345) & 0x7fffffff;
    return (x >>> 8) % n;
  };
}

interface Made {
  bytes: Uint8Array;
  width: number;
  height: number;
  mm: [number, number];
  name: string;
  audio: boolean;
}

const seal = (block: Uint8Array): void => {
  block[127] = 0;
  block[127] = (256 - (block.reduce((n, b) => n + b, 0) % 256)) % 256;
};

function make(seed: number): Made {
  const pick = random(seed);
  const base = new Uint8Array(128);
  base.set([0, 255, 255, 255, 255, 255, 255, 0, 0x31, 0xd8, 1, 0, 0, 0, 0, 0, 12, 30, 1, 4]);
  const width = 320 + 2 * pick(1700);
  const height = 240 + 2 * pick(1700);
  const mm: [number, number] = [60 + pick(900), 60 + pick(900)];
  base.set(
    [0xa5, Math.min(255, Math.round(mm[0] / 10)), Math.min(255, Math.round(mm[1] / 10)), 120, 0x06],
    20,
  );
  // Colour points and no established or standard timings.
  base.set([0xee, 0x91, 0xa3, 0x54, 0x4c, 0x99, 0x26, 0x0f, 0x50, 0x54, 0, 0, 0], 25);
  base.fill(1, 38, 54);
  const [hBlank, vBlank] = [160, 40];
  const rate = 24 + pick(121);
  const clock = Math.min(65535, Math.round(((width + hBlank) * (height + vBlank) * rate) / 10000));
  const split = (a: number, b: number): number => ((a >> 8) << 4) | (b >> 8);
  base.set(
    [
      clock & 255,
      clock >> 8,
      width & 255,
      hBlank & 255,
      split(width, hBlank),
      height & 255,
      vBlank & 255,
      split(height, vBlank),
      48,
      32,
      0x35,
      0,
      mm[0] & 255,
      mm[1] & 255,
      split(mm[0], mm[1]),
      0,
      0,
      0x1a,
    ],
    54,
  );
  const name = `Panel ${seed}`;
  const text = [...`${name}\n`.padEnd(13, ' ')].map((c) => c.charCodeAt(0));
  base.set([0, 0, 0, 0xfc, 0, ...text], 72);
  base.set([0, 0, 0, 0xfd, 0, 24 + pick(30), 60 + pick(190), 30, 140, 60, 0, 10, 32, 32, 32, 32, 32, 32], 90);
  base.set([0, 0, 0, 0x10, 0], 108);
  const kind = pick(4);
  base[126] = kind === 0 ? 0 : 1;
  seal(base);
  if (kind === 0) return { bytes: base, width, height, mm, name, audio: false };
  const cta = new Uint8Array(128);
  const basic = pick(2) === 1;
  const block = pick(2) === 1;
  // Video data block, then (sometimes) an audio data block with one descriptor for plain PCM.
  const blocks = [0x42, 0x90, 0x04, ...(block ? [0x23, 0x09, 0x07, 0x07] : [])];
  cta.set([2, 3, 4 + blocks.length, basic ? 0x40 : 0, ...blocks]);
  seal(cta);
  return { bytes: new Uint8Array([...base, ...cta]), width, height, mm, name, audio: basic || block };
}

const decoded = (bytes: Uint8Array): string => {
  const file = room.path('display.bin');
  writeFileSync(file, bytes);
  // A complaint about style makes the tool end with 1; what it read is printed all the same.
  return spawnSync('edid-decode', [file], { encoding: 'utf8' }).stdout;
};

it('agrees with edid-decode on 240 generated displays', () => {
  let portraits = 0;
  for (let seed = 1; seed <= 240; seed += 1) {
    const made = make(seed);
    const ours = readEdid(made.bytes);
    const theirs = decoded(made.bytes);
    const dtd = /DTD 1:\s+(\d+)x(\d+).*\((\d+) mm x (\d+) mm\)/.exec(theirs);
    expect({ seed, native: ours.native }).toEqual({
      seed,
      native: { width: Number(dtd?.[1]), height: Number(dtd?.[2]) },
    });
    expect(ours.sizeMm).toEqual({ width: Number(dtd?.[3]), height: Number(dtd?.[4]) });
    const drawn = /DTD 1:\s+\d+x\d+\s+(?:\S+\s+)*?([\d.]+) Hz/.exec(theirs)?.[1];
    expect(Math.abs((ours.refreshHz ?? 0) - Number(drawn))).toBeLessThan(0.001);
    const range = /Monitor ranges[^:]*: (\d+)-(\d+) Hz V/.exec(theirs);
    expect(ours.rates).toEqual({ least: Number(range?.[1]), most: Number(range?.[2]) });
    expect(ours.name).toBe(/Display Product Name: '(.*)'/.exec(theirs)?.[1]);
    expect(ours.audio).toBe(/Basic audio support|Audio Data Block/.test(theirs));
    expect({ seed, native: ours.native, audio: ours.audio }).toEqual({
      seed,
      native: { width: made.width, height: made.height },
      audio: made.audio,
    });
    expect(ours.portrait).toBe(made.height > made.width);
    portraits += Number(ours.portrait);
  }
  // Both kinds of panel were among them.
  expect(portraits).toBeGreaterThan(40);
  expect(portraits).toBeLessThan(200);
});

it('refuses what edid-decode calls a wrong checksum, and what is cut', () => {
  const { bytes } = make(7);
  const spoiled = Uint8Array.from(bytes);
  spoiled[60] = (spoiled[60] ?? 0) ^ 0x40;
  expect(decoded(spoiled)).toMatch(/Checksum: 0x\S+ \(should be|checksum/i);
  expect(() => readEdid(spoiled)).toThrow(EdidError);
  expect(() => readEdid(bytes.subarray(0, 100))).toThrow(/128/);
});
