import type { Command } from 'commander';
import { LOOK_SCRIPT } from '@zb/core/network/look';
import { hostWriterNames, networkWriterNames } from '@zb/core/network/write/forms';
import { InputError, readText } from './inputFile';
import {
  checkNetworkOutput,
  cutOutput,
  planOutput,
  readOutput,
  writeNetworkOutput,
  type PlanAsked,
} from './network';

/** Commands of addresses. */
export function networkCommands(zb: Command, print: (value: unknown) => void): void {
  const network = zb.command('network').description('addresses: read, checked, planned, cut and written');
  const NETWORK = ['--network <id>', 'which network, where several are in it'] as const;

  network
    .command('read')
    .description(
      'read what tools print of a network: ip -j, arp, lease files, hosts, a router’s list, our look',
    )
    .argument('[file...]', 'the texts; - for standard input')
    .option('--script', 'print the look script')
    .action(async (paths: string[], { script }: { script?: boolean }) => {
      if (script) return void process.stdout.write(LOOK_SCRIPT);
      if (paths.length === 0) throw new InputError('network read needs a FILE, or - for standard input');
      const files = await Promise.all(paths.map(async (path) => ({ path, text: await readText(path) })));
      print(readOutput(files, new Date().toISOString()));
    });
  network
    .command('check')
    .description('what is wrong with networks and hosts; ends with 1 where a Stop is among it')
    .argument('<file>', 'a plan of networks and hosts, or a bench; - for standard input')
    .action(async (path: string) => {
      const found = checkNetworkOutput(await readText(path));
      print(found);
      if (found.stops > 0) process.exitCode = 1;
    });
  network
    .command('plan')
    .description(
      'all addresses of a network, the next free one, and the ways in which a box may have its own',
    )
    .argument('<file>', 'a plan of networks and hosts, or a bench; - for standard input')
    .option(...NETWORK)
    .option('--box <id>', 'a box of the bench')
    .option('--purpose <purpose>', 'what the address is wanted for')
    .option('--place <number>', 'room or rack it stands in')
    .action(async (path: string, asked: PlanAsked) => print(planOutput(await readText(path), asked)));
  network
    .command('cut')
    .description('cut the power: every machine comes back, in every order')
    .argument('<file>', 'a plan of networks and hosts, or a bench; - for standard input')
    .option(...NETWORK)
    .option('--seed <number>', 'draws other orders where they are too many to count', '1')
    .option('--outage <seconds>', 'how long the power is gone', '600')
    .action(async (path: string, asked: { network?: string; seed: string; outage: string }) =>
      print(cutOutput(await readText(path), asked)),
    );
  network
    .command('write')
    .description('write the plan for a server, or for one host that sets its own address')
    .argument('<file>', 'a plan of networks and hosts, or a bench; - for standard input')
    .requiredOption('--as <form>', `one of ${[...networkWriterNames, ...hostWriterNames].join(', ')}`)
    .option(...NETWORK)
    .option('--host <id>', 'the host, by id, name or label')
    .action(async (path: string, asked: { network?: string; as: string; host?: string }) => {
      process.stdout.write(writeNetworkOutput(await readText(path), asked));
    });
}
