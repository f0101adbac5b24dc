import type { Command } from 'commander';
import { shareForms } from '@zb/core/storage/share/write';
import {
  contentOutput,
  contentPlanOutput,
  contentVerifyOutput,
  contentForms,
  type ContentAsked,
  type PlanAskedOf,
} from './content';
import { readText } from './inputFile';
import { movingOutput, poolOutput, type PoolAsked } from './pool';
import { write } from './printed';
import { sharesOutput } from './shares';

/** Commands of what keeps things: pools, folders that are shared, and what goes on them. */
export function keepCommands(zb: Command, print: (value: unknown) => void): void {
  zb.command('pool')
    .description('every way drives make a pool: room, what it survives, how long it takes to be made good')
    .argument('<file>', 'drives, or with --box a bench; - for standard input')
    .option('--box <id>', 'the box of a bench')
    .option('--manner <manner>', 'plain, padded or groups alone')
    .option('--way <way>', 'one way alone, such as “groups copies 2”')
    .option('--spares', 'also with one drive that waits')
    .option('--name <name>', 'the name of the pool in commands', 'pool')
    .option('--as <form>', 'json, or commands for a shell', 'json')
    .action(async (path: string, asked: PoolAsked) => write(poolOutput(await readText(path), asked), print));

  zb.command('shares')
    .description(
      'folders that others reach: what is wrong, and the files of their servers; ends with 1 where there is a Stop',
    )
    .argument('<file>', 'folders and users, or with a box a bench; - for standard input')
    .argument('[box]', 'the box of a bench')
    .option('--as <form>', `json, ${shareForms.join(', ')}`, 'json')
    .option('--name <name>', 'the name it is found by, where the file has none', 'box')
    .action(async (path: string, box: string | undefined, asked: { as: string; name: string }) => {
      const out = sharesOutput(await readText(path), { ...asked, box });
      write(out, print);
      if (typeof out !== 'string' && (out as { stops: number }).stops > 0) process.exitCode = 1;
    });

  zb.command('moving')
    .description('databases that move to a box: steps, what is typed, and whether one can go back')
    .requiredOption('--bench <file>', 'a bench file')
    .requiredOption('--box <id>', 'the box')
    .action(async ({ bench, box }: { bench: string; box: string }) =>
      print(movingOutput(await readText(bench), box, new Date().toISOString().slice(0, 10))),
    );

  const asking = (command: Command): Command =>
    command
      .option('--profile <file>', 'rules, or a system that holds them')
      .option('--purpose <purpose>', 'what it is for, where no system says it', 'file store')
      .option('--target <target>', 'what takes it: fat, exfat, ntfs, ext4 or smb', 'smb')
      .option('--whole', 'look whether files end as files of their kind do')
      .option('--tags', 'read what music files say of themselves')
      .option('--hash', 'digest files of one size, to tell whether they are the same');
  const content = asking(
    zb
      .command('content')
      .description('look through a folder: what is in the wrong place, there twice, refused, or not whole')
      .argument('[dir]', 'the folder'),
  ).action(async (dir: string | undefined, asked: ContentAsked) => {
    if (dir === undefined) content.help({ error: true });
    else print(await contentOutput(dir, asked));
  });
  asking(
    content
      .command('plan')
      .description('what goes where, by how many trips, in which time')
      .argument('<dir>'),
  )
    .option(
      '--take <codes>',
      'findings whose remedies are taken, with commas between them; without it those nobody would miss',
    )
    .option('--room <bytes>', 'free room of the stick, or of the target')
    .option('--cluster <bytes>', 'what it rounds files up to', '32768')
    .option('--wire <megabits>', 'rate of the wire, in Mb/s', '1000')
    .option('--as <form>', contentForms.join(', '), 'json')
    .action(async (dir: string, asked: PlanAskedOf, command: Command) =>
      // Options of the command above are heard here too.
      write(await contentPlanOutput(dir, { ...command.optsWithGlobals<PlanAskedOf>(), ...asked }), print),
    );
  content
    .command('verify')
    .description(
      'hold a folder against a list of SHA-256 sums; ends with 1 where a file differs or is missing',
    )
    .argument('<manifest>')
    .argument('<dir>')
    .action(async (manifest: string, dir: string) => {
      const out = await contentVerifyOutput(manifest, dir);
      print(out);
      if (!out.whole) process.exitCode = 1;
    });
}
