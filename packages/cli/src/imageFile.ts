import { readWhole, type UnpackOptions } from '@zb/core/starting/whole';
import { OpenFile } from './inputFile';
import { withinLimit } from './limit';
import { progressOf } from './progress';

/** Reads an image and its digest, with progress, unpacking no more than `limit` bytes; undefined where that was stopped. */
export async function readImageFile(
  path: string,
  limit: number,
  more: Pick<UnpackOptions, 'keys' | 'onContent'> = {},
) {
  const file = await OpenFile.open(path);
  try {
    return await withinLimit(path, limit, () =>
      readWhole(file, { algorithms: ['sha256'], onProgress: progressOf(path, file.size), limit, ...more }),
    );
  } finally {
    await file.close();
  }
}
