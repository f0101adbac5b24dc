import type { Bench, ShelfItem } from '../model/bench';

/** An adapter by which a drive is written from outside: it puts a drive on USB. */
export const usbAdapterOf = (bench: Bench): Extract<ShelfItem, { kind: 'adapter' }> | undefined =>
  bench.items.find(
    (i): i is Extract<ShelfItem, { kind: 'adapter' }> =>
      i.kind === 'adapter' && i.owned && i.goesIn === 'outside' && /usb/i.test(i.to) && !/usb/i.test(i.from),
  );
