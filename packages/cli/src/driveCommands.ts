import type { Command } from 'commander';
import { contentFromDump } from '@zb/core/machine/dumped';
import { eraseOutput } from './benchOutput';
import { InputError, readText } from './inputFile';
import { claimsOutput, openingOutput, startsOutput } from './inside';
import { layoutForms, layoutOutput, planFrom, planOfBox, tableOutput, type BoxAsked } from './layout';
import { rehearsedFrom, rehearseOutput } from './rehearse';

/** Commands of drives: read, laid out, rehearsed, erased; what a box starts, and what is done inside it. */
export function driveCommands(zb: Command, print: (value: unknown) => void): void {
  zb.command('table')
    .description('read what sfdisk, lsblk or parted printed of a drive, as a plan takes it')
    .argument('<file>', 'the text; - for standard input')
    .option('--name <drive>', 'the drive, where several are in it')
    .option('--bytes <count>', 'its size, where the text does not tell it')
    .action(async (path: string, { name, bytes }: { name?: string; bytes?: string }) =>
      print(tableOutput(await readText(path), name, bytes)),
    );

  zb.command('layout')
    .description('lay a drive out: parts to the byte, what to type, what is free afterwards')
    .argument('[plan]', 'the plan; - for standard input')
    .option('--bench <file>', 'a bench file in place of a plan, with --box')
    .option('--box <id>', 'the box whose drive is laid out as its system would have it')
    .option('--drive <id>', 'the drive, where several may be lost')
    .option('--parts <school>', 'one system part, or /var and /home apart')
    .option('--swap <school>', '1 GB, equal to memory, swap file or none')
    .option('--as <form>', `one of ${layoutForms.join(', ')}`, 'json')
    .option('--way <way>', 'with --as steps: how the installer is told', 'asks part after part')
    .action(async (path: string | undefined, o: { as: string; way: string; bench?: string } & BoxAsked) => {
      if (path === undefined && o.bench === undefined)
        throw new InputError('layout needs a PLAN, or --bench FILE with --box ID');
      const plan =
        o.bench === undefined ? planFrom(await readText(path ?? '-')) : planOfBox(await readText(o.bench), o);
      const out = layoutOutput(plan, o.as, o.way);
      if (typeof out === 'string') process.stdout.write(out);
      else print(out);
    });

  zb.command('rehearse')
    .description(
      'carry a plan out in every world: how each ends, and the precautions under which none ends badly',
    )
    .argument('[plan]', 'the plan; - for standard input')
    .option('--bench <file>', 'a bench file in place of a plan, with --box')
    .option('--box <id>', 'the box whose plan is rehearsed')
    .option('--with <precautions>', 'ids of precautions that are taken, with commas between them')
    .option('--part <part>', 'of a box: the install, or writing the stick', 'the install')
    .action(
      async (path: string | undefined, o: { bench?: string; box?: string; with?: string; part: string }) => {
        if (path === undefined && (o.bench === undefined || o.box === undefined))
          throw new InputError('rehearse needs a PLAN, or --bench FILE with --box ID');
        const taken = o.with === undefined ? undefined : o.with.split(',').filter(Boolean);
        const text = await readText(o.bench ?? path ?? '-');
        print(rehearseOutput(rehearsedFrom(text, o.bench === undefined ? undefined : o.box, taken, o.part)));
      },
    );

  zb.command('starts')
    .description('what a box starts: now, at the first restart after the install, and ever after')
    .requiredOption('--bench <file>', 'a bench file')
    .requiredOption('--box <id>', 'the box')
    .option('--left-in', 'the stick is left in at the first restart')
    .action(async ({ bench, box, leftIn }: { bench: string; box: string; leftIn?: boolean }) =>
      print(startsOutput(await readText(bench), box, leftIn === true)),
    );

  zb.command('claims')
    .description('which box has reserved or uses each medium, module and adapter of a shelf')
    .requiredOption('--bench <file>', 'a bench file')
    .action(async ({ bench }: { bench: string }) => print(claimsOutput(await readText(bench))));

  zb.command('opening')
    .description('what has to be done inside the machine of a box, step by step')
    .requiredOption('--bench <file>', 'a bench file')
    .requiredOption('--box <id>', 'the box')
    .action(async ({ bench, box }: { bench: string; box: string }) =>
      print(openingOutput(await readText(bench), box)),
    );

  zb.command('ondrive')
    .description('say what lies on a drive by the dump of its partition table')
    .argument('<dump>', 'what sfdisk --dump printed')
    .action(async (path: string) =>
      print(contentFromDump(await readText(path), null, new Date().toISOString())),
    );

  zb.command('erase')
    .description('ways to erase a store of a bench, how sure each is, and where to read back afterwards')
    .requiredOption('--bench <file>', 'a bench file')
    .requiredOption('--id <store>', 'the drive, card or stick')
    .option('--seed <number>', 'draws other places to read back', '1')
    .action(async ({ bench, id, seed }: { bench: string; id: string; seed: string }) =>
      print(eraseOutput(await readText(bench), id, seed)),
    );
}
