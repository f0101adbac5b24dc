import { readImageItem } from '@zb/core/model/blank';
import type { ImageItem } from '@zb/core/model/bench';
import { inspectionSchema } from '@zb/core/model/inspection';
import { silent } from './fitting';

/** An optical image that a loader can start out of its file. */
export const disc = (id: string, more: object = {}, bytes = 1e9): ImageItem =>
  readImageItem(
    `${id}.iso`,
    inspectionSchema.parse({
      bytes,
      layout: 'iso9660',
      parts: [],
      outcomes: [],
      regions: [],
      findings: [],
      container: { kind: 'none' },
      identity: { ...silent, fromItsFile: '/boot/grub/loopback.cfg', reaches: bytes },
      ...more,
    }),
    id,
  );
