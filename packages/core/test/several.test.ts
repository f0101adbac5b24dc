import { gzipSync } from 'node:zlib';
import type { Store } from '@zb/core/model/bench';
import { contentOf } from '@zb/core/model/inspection';
import { bytesSource } from '@zb/core/formats/source';
import { readWhole } from '@zb/core/starting/whole';
import { imageFaultWords } from '@zb/core/words/imageFinding';
import { notFromFileWords, severalWords } from '@zb/core/words/several';
import { severalOnStick } from '@zb/core/write/severalOnStick';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { isStore } from '@zb/core/model/shelf';
import { disc } from './discs';

describe('several images on one stick', () => {
  it.each([
    [{ ...disc('a'), inspection: null }, 'not read'],
    [disc('a', { container: { kind: 'xz' } }), 'packed'],
    [disc('a', { layout: 'gpt' }), 'no disc'],
    [disc('a', { identity: null }), 'no configuration of its own'],
    // A file on FAT holds 4 GiB less one byte (FAT specification).
    [disc('a', {}, 2 ** 32), 'too large for FAT'],
  ] as const)('%#: says why an image is not one of them: %s', (image, not) => {
    const plan = severalOnStick([image], []);
    expect(plan.images[0]?.not).toBe(not);
    expect(plan).toMatchObject({ bytes: 0, sold: 0, config: '' });
    expect(notFromFileWords(not)).not.toBe('');
  });

  it('takes the smallest free stick that holds them all, never one that is kept or lies', () => {
    const like = saltmarshHall()
      .items.filter(isStore)
      .find((s) => s.kind === 'stick');
    const stick = (id: string, bytes: number, more: Partial<Store> = {}): Store =>
      ({
        ...like,
        id,
        name: id,
        bytes,
        realBytes: null,
        owned: true,
        fate: 'may be lost',
        ...more,
      }) as Store;
    const all = [
      stick('small', 2e9),
      stick('kept', 8e9, { fate: 'keep' }),
      stick('liar', 8e9, { realBytes: 1e9 }),
      stick('large', 64e9),
      stick('right', 16e9),
    ];
    const plan = severalOnStick([disc('a', {}, 3e9), disc('b', {}, 2e9)], all);
    expect(plan.sticks.map((s) => s.name)).toEqual(['right', 'large']);
    expect(plan.sold).toBe(8e9);
    expect(plan.bytes).toBeGreaterThan(5e9);
    expect(severalWords(plan)).toContain('right');
  });

  it('a name with a quotation mark stays one word of the menu', () => {
    // GRUB manual, “Quoting”: within single quotes nothing has a meaning, so the quote itself stands outside.
    expect(severalOnStick([disc("o'clock")], []).config).toContain(`'/images/o'\\''clock.iso'`);
  });
});

it('a file that is empty once it is unpacked is told: an unpacker that was let overwrite leaves such', async () => {
  const packed = gzipSync(new Uint8Array());
  const found = await readWhole(bytesSource(packed), { algorithms: ['sha256'] });
  const inner = found && contentOf(found.inspection);
  expect(inner?.bytes).toBe(0);
  expect(inner?.findings).toContainEqual({ grade: 'stop', fault: { code: 'empty' } });
  expect(imageFaultWords({ code: 'empty' })).toBe('The file is empty.');
});
