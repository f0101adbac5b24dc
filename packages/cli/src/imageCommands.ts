import { basename } from 'node:path';
import type { Command } from 'commander';
import { trialAttached, trialFirmwares } from '@zb/core/model/trial';
import { readTrustedKeys } from '@zb/core/image/trustedKeys';
import { formatIec } from '@zb/core/units/bytes';
import { differenceWords } from '@zb/core/words/compare';
import { dumpWords } from '@zb/core/words/readback';
import { compareImages } from '@zb/core/write/compareImages';
import { severalOutput } from './benchOutput';
import { checkOutput } from './check';
import { readImageFile } from './imageFile';
import { OpenFile, readBytes, readText } from './inputFile';
import { inspectOutput } from './inspectOutput';
import { limitFrom, USUAL_LIMIT } from './limit';
import { profileOutput } from './profileOutput';
import { progressOf } from './progress';
import { startOutput, type StartAsked } from './start';

const collect = (value: string, before: string[] = []): string[] => [...before, value];
const LIMIT = ['--limit <size>', `unpack no more than this (usual: ${formatIec(USUAL_LIMIT)})`] as const;

/** Commands of images: read, compared, checked, put together, started. */
export function imageCommands(zb: Command, print: (value: unknown) => void): void {
  zb.command('inspect')
    .description('read a disk image, packed or not: what it holds and what it starts on')
    .argument('<file>', 'the image')
    .option('--keys <certs>', 'certificates that the firmware trusts; may be given several times', collect)
    .option(...LIMIT)
    .action(async (path: string, options: { keys?: string[]; limit?: string }) => {
      const limit = limitFrom(options.limit);
      const given = await Promise.all((options.keys ?? []).map(readBytes));
      const keys = options.keys && given.flatMap(readTrustedKeys);
      const found = await readImageFile(path, limit, { keys });
      if (found) print(inspectOutput(found.inspection, found.digests.sha256 ?? ''));
    });

  zb.command('profile')
    .description('begin a system from what an image says of itself; values that nothing told are marked')
    .argument('<file>', 'the image')
    .option(...LIMIT)
    .action(async (path: string, options: { limit?: string }) => {
      const found = await readImageFile(path, limitFrom(options.limit));
      if (found) print(profileOutput(basename(path), found.inspection));
    });

  zb.command('compare')
    .description('compare an image with a dump, or with another image; ends with 1 where any byte differs')
    .argument('<image>')
    .argument('<dump>')
    .action(async (imagePath: string, dumpPath: string) => {
      const image = await OpenFile.open(imagePath);
      const dump = await OpenFile.open(dumpPath).catch(async (error: unknown) => {
        await image.close();
        throw error;
      });
      try {
        const tell = progressOf(`${imagePath} and ${dumpPath}`, Math.min(image.size, dump.size));
        const found = await compareImages(image, dump, (bytes) => {
          tell(bytes);
          return true;
        });
        if (!found) return;
        const { blocks, differences, trees } = found;
        print({
          same: blocks.result === 'proven',
          ...blocks,
          explanation: dumpWords(blocks),
          differences: differences.map((d) => ({ ...d, says: differenceWords(d) })),
          trees,
        });
        if (blocks.result !== 'proven') process.exitCode = 1;
      } finally {
        await image.close();
        await dump.close();
      }
    });

  zb.command('check')
    .description(
      'hold files against a checksum list; ends with 1 where a file does not match or the signature is not good',
    )
    .argument('<list>')
    .argument('<file...>')
    .option('--key <file>', 'OpenPGP key the list is to be signed with')
    .option('--signature <file>', 'detached signature over the list')
    .option(...LIMIT)
    .action(
      async (
        list: string,
        files: string[],
        { key, signature, limit }: { key?: string; signature?: string; limit?: string },
      ) => {
        const found = await checkOutput(list, files, limitFrom(limit), signature, key);
        print(found);
        if (!found.allMatch || (found.signature && found.signature.state !== 'good')) process.exitCode = 1;
      },
    );

  zb.command('several')
    .description('plan one stick for several images of a bench, each started out of its own file')
    .requiredOption('--bench <file>', 'a bench file')
    .option('--image <id>', 'an image of it; may be given several times, without it all are taken', collect)
    .action(async ({ bench, image }: { bench: string; image?: string[] }) =>
      print(severalOutput(await readText(bench), image)),
    );

  zb.command('start')
    .description(
      'start an image in the emulator, and hold what happens beside what is foretold; ends with 1 where they disagree',
    )
    .argument('<image>', 'the image, packed or not; it is read and never written')
    .requiredOption('--firmware <kind>', trialFirmwares.join(', '))
    .option('--attached <how>', trialAttached.join(', '), 'disk')
    .option('--seconds <n>', 'at most so long', '60')
    .option('--memory <mib>', 'memory of the machine, MiB', '512')
    .option('--screen <file>', 'keep the last picture of its screen, as PNG')
    .option(...LIMIT)
    .option('--vars <file>', 'UEFI variables to begin with, such as ones with keys of your own')
    .action(async (image: string, o: StartAsked) => {
      const said = await startOutput(image, o);
      print(said);
      if (said.agrees === false) process.exitCode = 1;
    });
}
