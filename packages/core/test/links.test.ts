import fc from 'fast-check';
import {
  cardClassIn,
  cardClassRate,
  cardLinks,
  linkOfStore,
  nvmeLink,
  sataLink,
  slowest,
  usbLinks,
} from '@zb/core/machine/links';
import { probeCapacity, type ProbedDevice } from '@zb/core/write/probe';
import { predictTimes, unknownStick } from '@zb/core/write/time';
import type { Box, LogEntry } from '@zb/core/model/bench';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { predictInstall } from '@zb/core/write/install';
import { runs } from './runs';

describe('what links carry, coding paid for', () => {
  // USB 2.0 specification, table 5-10: bulk at high speed, 13 transfers of 512 bytes, 53 248 000 bytes/s.
  it('USB 2', () => expect(usbLinks.usb2.bytesPerSecond).toBe(53_248_000));
  // USB 3.2 specification: 8b/10b for Gen 1, 128b/132b for Gen 2 and Gen 2x2.
  it.each([
    ['usb5', 500e6],
    ['usb10', (10e9 / 8) * (128 / 132)],
    ['usb20', (20e9 / 8) * (128 / 132)],
  ] as const)('%s', (id, rate) => expect(usbLinks[id].bytesPerSecond).toBeCloseTo(rate, 3));
  // SATA revision 3.x names the generations 150, 300 and 600 MB/s.
  it.each([
    [1.5, 150e6],
    [3, 300e6],
    [6, 600e6],
  ] as const)('SATA %d Gb/s', (g, rate) => expect(sataLink(g).bytesPerSecond).toBe(rate));
  // PCI-SIG's FAQ gives about 250, 500, 985, 1969 and 3938 MB/s a lane.
  it.each([
    [1, 250],
    [2, 500],
    [3, 985],
    [4, 1969],
    [5, 3938],
  ] as const)('one lane of generation %d', (g, mb) =>
    expect(Math.round(nvmeLink(g, 1).bytesPerSecond / 1e6)).toBe(mb),
  );
  it('lanes add up', () =>
    expect(nvmeLink(3, 4).bytesPerSecond).toBeCloseTo(4 * nvmeLink(3, 1).bytesPerSecond, 3));
  // SD Physical Layer Simplified Specification 9.00 §4.13: speed class, UHS speed grade and video speed class in MB/s;
  // the figures are written from memory.
  it.each([
    ['class 2', 2],
    ['class 4', 4],
    ['class 6', 6],
    ['class 10', 10],
    ['U1', 10],
    ['U3', 30],
    ['V6', 6],
    ['V10', 10],
    ['V30', 30],
    ['V60', 60],
    ['V90', 90],
  ])('a card marked %s writes at least %d MB/s', (mark, mb) => {
    const found = cardClassIn(`64 GB card, ${mark}`);
    expect(found && cardClassRate[found]).toBe(mb * 1e6);
  });
  // The same, §3.4 and §3.9: bus speed modes in MB/s, from memory.
  it.each([
    ['default speed', 12.5],
    ['high speed', 25],
    ['SDR50', 50],
    ['SDR104', 104],
    ['UHS-II', 312],
  ] as const)('a card in %s carries %d MB/s', (mode, mb) =>
    expect(cardLinks[mode].bytesPerSecond).toBe(mb * 1e6),
  );
  it.each([
    ['64 GB card, V30 U3', 30],
    ['SDXC u1', 10],
  ])('a class mark in “%s”', (text, mb) => {
    const found = cardClassIn(text);
    expect(found && cardClassRate[found]).toBe(mb * 1e6);
  });
  it('no mark, no promise', () => expect(cardClassIn('64 GB card, U2 V300')).toBeUndefined());
  it('the slowest of several is named', () => {
    expect(slowest([usbLinks.usb10, undefined, sataLink(3), nvmeLink(4, 4)])?.name).toBe('SATA 3 Gb/s');
    expect(slowest([undefined])).toBeUndefined();
  });
  it('a drive’s own link by what the shelf knows', () => {
    expect(
      linkOfStore({ kind: 'drive', transport: 'nvme', m2: { length: '2280', key: 'M', lanes: 2 } })?.name,
    ).toBe('NVMe, 2 lanes of generation 3');
    expect(linkOfStore({ kind: 'stick', transport: 'usb', m2: null })).toBeUndefined();
  });
});

describe('times of a write', () => {
  const run = (writeSeconds: number, seconds: number, i: number): LogEntry => ({
    kind: 'write',
    id: `r${i}`,
    at: '',
    boxId: null,
    stop: 'write',
    text: '',
    serial: 'S',
    result: 'proven',
    bytes: 1e9,
    predicted: null,
    seconds,
    writeSeconds,
  });
  const log = [run(60, 90, 1), run(50, 75, 2), run(70, 105, 3), run(55, 82, 4), run(65, 97, 5)];

  it('write and read-back are foretold each from their own record, median and middle half named', () => {
    const t = predictTimes(1e9, unknownStick('S'), log);
    // Quartiles of the five rates 1e9/50 … 1e9/70 s (linear quantile): 55 and 65 s are the second and fourth.
    expect(t.write.value.low).toBeCloseTo(55, 6);
    expect(t.write.value.high).toBeCloseTo(65, 6);
    expect(t.verify.value.low).toBeGreaterThan(24);
    expect(t.verify.value.high).toBeLessThan(36);
    expect(t.write.because[0]).toMatch(
      /5 earlier runs.*16\.7 MB\/s writing in the middle, half of them between/,
    );
  });
  it('no link carries more than its own rate, and the one that holds up is named', () => {
    const drive = {
      ...unknownStick('D'),
      kind: 'drive' as const,
      transport: 'sata' as const,
      rotational: false,
    };
    const fast = predictTimes(1e9, drive, []);
    const slow = predictTimes(1e9, drive, [], usbLinks.usb2);
    expect(slow.slowest?.name).toBe('USB 2');
    expect(slow.write.value.low).toBeCloseTo(1e9 / 53_248_000, 6);
    expect(slow.write.because[0]).toMatch(/held up by USB 2/);
    expect(fast.write.value.low).toBeLessThan(slow.write.value.low);
  });
  it('a card’s mark gives its least rate', () => {
    const card = {
      ...unknownStick('C'),
      kind: 'card' as const,
      transport: 'mmc' as const,
      model: 'V30 card',
    };
    expect(predictTimes(3e9, card, []).write.value.high).toBeCloseTo(100, 6);
  });
});

describe('probing a stick', () => {
  /** A stick in memory, by places that were written; what lies beyond its real size is lost, or wraps round. */
  function device(bytes: number, real: number, wraps: boolean) {
    const kept = new Map<number, Uint8Array>();
    const at = (o: number): number | undefined => (o < real ? o : wraps ? o % real : undefined);
    const d: ProbedDevice & { writes: number } = {
      bytes,
      writes: 0,
      write(offset, b) {
        d.writes += 1;
        const to = at(offset);
        if (to !== undefined) kept.set(to, b.slice());
        return Promise.resolve();
      },
      read(offset, length) {
        const from = at(offset);
        return Promise.resolve((from === undefined ? undefined : kept.get(from)) ?? new Uint8Array(length));
      },
    };
    return { d, kept };
  }
  const KIB4 = 4096;

  it('finds the border of any lying stick exactly, in O(log n) writes', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 2, max: 16_000_000 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        async (places, share) => {
          const real = Math.max(1, Math.floor(places * share));
          const { d } = device(places * KIB4, real * KIB4, false);
          const found = await probeCapacity(d, 7);
          expect(found.real).toBe(real * KIB4);
          expect(found.writes).toBe(d.writes);
          expect(d.writes).toBeLessThanOrEqual(4 * Math.ceil(Math.log2(places)) + 8);
        },
      ),
      { numRuns: runs(80) },
    );
  });
  it('finds a stick that wraps its addresses round at a power of two', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 18 }),
        fc.integer({ min: 2, max: 40 }),
        async (power, times) => {
          const real = 2 ** power;
          const { d } = device(real * times * KIB4, real * KIB4, true);
          expect((await probeCapacity(d, 3)).real).toBe(real * KIB4);
        },
      ),
      { numRuns: runs(60) },
    );
  });
  it('an honest stick gets back what was on it', async () => {
    const { d, kept } = device(1000 * KIB4, 1000 * KIB4, false);
    const old = new Uint8Array(KIB4).fill(5);
    kept.set(0, old);
    kept.set(999 * KIB4, old);
    const found = await probeCapacity(d, 9);
    expect(found).toMatchObject({ real: 1000 * KIB4, claimed: 1000 * KIB4 });
    expect(kept.get(0)).toEqual(old);
    expect(kept.get(999 * KIB4)).toEqual(old);
    expect([...kept.values()].filter((b) => b.some((x) => x !== 0)).length).toBe(2);
  });
});

describe('the wait of an install', () => {
  const demo = saltmarshHall();
  const box = demo.boxes.find((b) => b.id === 'games-corner');
  const profile = demo.profiles.find((p) => p.id === box?.profileId);
  const image = (bytes: number) => ({
    kind: 'image' as const,
    id: 'big',
    name: 'big.img',
    bytes,
    digests: {},
    inspection: null,
    comparison: null,
    depotFile: null,
    trials: [],
    notes: '',
  });
  const wait = (bytes: number) =>
    predictInstall(
      { ...demo, items: [...demo.items, image(bytes)] },
      { ...(box as Box), imageId: 'big', targetSerial: 'ST16-40A7-7C20' },
    );

  it('is what the system tells, until copying takes longer than that', () => {
    const [low, high] = profile?.installMinutes ?? [0, 0];
    expect(wait(1e6)?.value).toEqual({ low: low * 60, high: high * 60 });
    // The blue stick's own record: 2 GiB were read back in 63 s, 1 GiB in 31 s.
    const long = wait(200e9)?.value;
    expect(long?.low).toBeGreaterThan(low * 60);
    expect(long?.low).toBeCloseTo(200e9 / ((2_147_483_648 / 63 + 1_073_741_824 / 31) / 2 / 0.9), -3);
  });
  it('without a system there is none to tell', () =>
    expect(predictInstall(demo, { ...(box as Box), profileId: null })).toBeUndefined());
});
