import type { Bench, Box, ImageItem } from '../model/bench';
import { standingWrite } from '../plan/proof';

/** The question or finding at the head of the write sheet. */
export function writeHeadline(bench: Bench, box: Box, image: ImageItem | undefined, running: number): string {
  if (!image) return 'What is to be written?';
  if (running > 1) return `Writing ${image.name} to ${running} sticks; leave them in`;
  if (running === 1) return `Writing ${image.name}; leave the stick in`;
  const written = standingWrite(bench, box);
  if (written?.imageId === image.id) {
    const tail = written.serial.slice(-4);
    if (written.result === 'by word') return `Stick …${tail} holds ${image.name} by your word: not compared`;
    return written.result === 'proven'
      ? `Stick …${tail} holds ${image.name}, byte for byte`
      : `Stick …${tail} does not hold a whole image`;
  }
  return 'Which stick may be lost?';
}
