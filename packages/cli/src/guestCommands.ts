import type { Command } from 'commander';
import { guestsOutput, hostOutput, type GuestsAsked } from './guests';
import { readText } from './inputFile';
import { write } from './printed';

/** Commands of a host of guests. */
export function guestCommands(zb: Command, print: (value: unknown) => void): void {
  const guests = zb
    .command('guests')
    .description('guests from one pot: sums, turns, what does not fit; ends with 1 where there is a Stop')
    .argument('[plan]', 'a plan, or with --box a bench')
    .option('--box <id>', 'the box of a bench')
    .option('--as <form>', 'json, xml, seed, md', 'json')
    .option('--guest <name>', 'one guest alone, for xml and seed')
    .option('--fit', 'the smallest change that makes all of it fit')
    .option('--out <dir>', 'write all files, seeds as optical volumes too')
    .action(async (plan: string | undefined, asked: GuestsAsked) => {
      if (plan === undefined) return guests.help({ error: true });
      const out = await guestsOutput(await readText(plan), asked);
      write(out, print);
      if (typeof out !== 'string' && 'stops' in out && typeof out.stops === 'number' && out.stops > 0)
        process.exitCode = 1;
    });
  guests
    .command('read')
    .description('what a running host printed (virsh): its guests, and what it has left')
    .argument('<file>')
    .action(async (file: string) => print(hostOutput(await readText(file))));
}
