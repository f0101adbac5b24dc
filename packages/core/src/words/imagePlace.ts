import type { ImagePlace } from '../model/imagePlace';

const label = (l: string | null): string => (l ? ` “${l}”` : '');

/** Where in an image something lies. */
export function imagePlaceWords(place: ImagePlace): string {
  switch (place.of) {
    case 'part':
      return `FAT part ${place.index}${label(place.label)}`;
    case 'volume':
      return place.index === 0
        ? `the ${place.filesystem ?? 'whole'} image${label(place.label)}`
        : `${place.filesystem ?? 'unknown'} part ${place.index}${label(place.label)}`;
    case 'whole image':
      return 'the whole-image FAT volume';
    case 'optical volume':
      return 'the optical volume';
    case 'boot catalogue':
      return 'the FAT image of the boot catalogue';
    case 'floppy image':
      return 'the floppy image';
    case 'in the loader':
      return 'the file system in the loader';
    case 'in a file':
      return `the image ${place.path}`;
    case 'earlier rules':
      return place.words;
  }
}
