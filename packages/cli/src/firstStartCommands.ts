import type { Command } from 'commander';
import { firstStartOutput, passphraseOutput, sheetOutput, strengthOutput } from './firstStart';
import { readText } from './inputFile';

/** Commands of a first start: its lines, its screen, its passwords. */
export function firstStartCommands(zb: Command, print: (value: unknown) => void): void {
  zb.command('firststart')
    .description('the first start of a box: what is done, in order, why, and what each line waits for')
    .requiredOption('--bench <file>', 'a bench file')
    .requiredOption('--box <id>', 'the box')
    .action(async ({ bench, box }: { bench: string; box: string }) =>
      print(firstStartOutput(await readText(bench), box)),
    );

  zb.command('testsheet')
    .description('a test sheet for screen and sound, one HTML file to be opened on the box')
    .requiredOption('--bench <file>', 'a bench file')
    .requiredOption('--box <id>', 'the box')
    .action(async ({ bench, box }: { bench: string; box: string }) => {
      process.stdout.write(sheetOutput(await readText(bench), box));
    });

  zb.command('passphrase')
    .description('draw a passphrase from a list of 7,776 words')
    .option('--words <number>', 'how many', '6')
    .action(async ({ words }: { words: string }) => print(await passphraseOutput(words)));

  zb.command('strength')
    .description('how hard the password on standard input is to guess; it is kept nowhere')
    .action(async () => print(await strengthOutput(await readText('-'))));
}
