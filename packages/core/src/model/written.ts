import type { ImageItem } from './bench';

/** What reaches a stick when this image is written: of a packed one what is inside. Bytes. */
export const writtenBytes = (image: Pick<ImageItem, 'bytes' | 'inspection'>): number =>
  image.inspection?.container.innerBytes ?? image.bytes;

/** SHA-256 of what reaches a stick when this image is written, in hex; null where nobody has read it yet. */
export const contentSha256 = (image: Pick<ImageItem, 'digests' | 'inspection'>): string | null =>
  image.inspection && image.inspection.container.kind !== 'none'
    ? image.inspection.container.innerSha256
    : (image.digests.sha256 ?? null);
