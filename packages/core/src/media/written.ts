import type { ImageItem } from '../schema/bench';

/** What reaches a stick when this image is written: of a packed one what is inside. Bytes. */
export const writtenBytes = (image: Pick<ImageItem, 'bytes' | 'inspection'>): number =>
  image.inspection?.container.innerBytes ?? image.bytes;
