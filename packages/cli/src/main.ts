import { basename } from 'node:path';
import { Command, CommanderError } from 'commander';
import { contentFromDump } from '@zb/core/machine/dumped';
import { differenceWords } from '@zb/core/words/compare';
import { dumpWords } from '@zb/core/words/readback';
import { compareImages } from '@zb/core/write/compareImages';
import { readTrustedKeys } from '@zb/core/image/trustedKeys';
import { readSurvey } from '@zb/core/machine/read';
import { SURVEY_SCRIPT } from '@zb/core/machine/script';
import { LOOK_SCRIPT } from '@zb/core/network/look';
import { hostWriterNames, networkWriterNames } from '@zb/core/network/write/forms';
import { formatIec } from '@zb/core/units/bytes';
import { assignBench } from './assign';
import { checkOutput } from './check';
import { eraseOutput, linesOutput, severalOutput } from './benchOutput';
import { openingOutput, startsOutput } from './inside';
import { firstStartOutput, passphraseOutput, sheetOutput, strengthOutput } from './firstStart';
import { fitOutput } from './fit';
import { InputError, OpenFile, readBytes, readText } from './inputFile';
import { inspectOutput } from './inspectOutput';
import { guestCommands } from './guestCommands';
import { gateCommands } from './gateCommands';
import { keepCommands } from './keepCommands';
import { layoutForms, layoutOutput, planFrom, planOfBox, tableOutput, type BoxAsked } from './layout';
import { limitFrom, USUAL_LIMIT } from './limit';
import { readImageFile } from './imageFile';
import {
  checkNetworkOutput,
  cutOutput,
  planOutput,
  readOutput,
  writeNetworkOutput,
  type PlanAsked,
} from './network';
import { profileOutput } from './profileOutput';
import { progressOf } from './progress';
import { rehearsedFrom, rehearseOutput } from './rehearse';
import { surveyOutput } from './survey';
import { runCommands } from './runCommands';
import { tuneCommands } from './tuneCommands';

const print = (value: unknown): void => void process.stdout.write(JSON.stringify(value, null, 2) + '\n');
const collect = (value: string, before: string[] = []): string[] => [...before, value];
const LIMIT = ['--limit <size>', `unpack no more than this (usual: ${formatIec(USUAL_LIMIT)})`] as const;

const zb = new Command('zb')
  .description('Zealous Box on the command line: JSON on standard output, words on standard error.')
  .helpCommand('help [command]', 'how a command is used')
  .helpOption('-h, --help', 'how this is used')
  .exitOverride()
  .configureOutput({ writeErr: () => undefined });

zb.command('survey')
  .description('read a survey report, or print the script that makes one')
  .argument('[file]', 'the report; - for standard input')
  .option('--script', 'print the survey script')
  .action(async (path: string | undefined, { script }: { script?: boolean }) => {
    if (script) process.stdout.write(SURVEY_SCRIPT);
    else if (path === undefined) throw new InputError('survey needs a FILE, or - for standard input');
    else print(surveyOutput(readSurvey(await readText(path))));
  });

zb.command('inspect')
  .description('read a disk image, packed or not: what it holds and what it starts on')
  .argument('<file>', 'the image')
  .option('--keys <certs>', 'certificates that the firmware trusts; may be given several times', collect)
  .option(...LIMIT)
  .action(async (path: string, options: { keys?: string[]; limit?: string }) => {
    const limit = limitFrom(options.limit);
    const given = await Promise.all((options.keys ?? []).map(readBytes));
    const keys = options.keys && given.flatMap(readTrustedKeys);
    const found = await readImageFile(path, limit, keys);
    if (found) print(inspectOutput(found.inspection, found.digests.sha256 ?? ''));
  });

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

zb.command('opening')
  .description('what has to be done inside the machine of a box, step by step')
  .requiredOption('--bench <file>', 'a bench file')
  .requiredOption('--box <id>', 'the box')
  .action(async ({ bench, box }: { bench: string; box: string }) =>
    print(openingOutput(await readText(bench), box)),
  );

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
  .description('all addresses of a network, the next free one, and the ways in which a box may have its own')
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

keepCommands(zb, print);
gateCommands(zb, print);
guestCommands(zb, print);
tuneCommands(zb, print);
runCommands(zb, print);

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

zb.command('ondrive')
  .description('say what lies on a drive by the dump of its partition table')
  .argument('<dump>', 'what sfdisk --dump printed')
  .action(async (path: string) =>
    print(contentFromDump(await readText(path), null, new Date().toISOString())),
  );

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

zb.command('fit')
  .description('judge systems for a machine, with reasons and repairs')
  .requiredOption('--machine <file>', 'a survey report, its JSON, a machine record, or a bench')
  .option('--id <machine>', 'which machine of a bench')
  .requiredOption('--profiles <file>', 'systems, or a bench that holds them')
  .action(async ({ machine, profiles, id }: { machine: string; profiles: string; id?: string }) =>
    print(fitOutput(await readText(machine), await readText(profiles), id)),
  );

zb.command('erase')
  .description('ways to erase a store of a bench, how sure each is, and where to read back afterwards')
  .requiredOption('--bench <file>', 'a bench file')
  .requiredOption('--id <store>', 'the drive, card or stick')
  .option('--seed <number>', 'draws other places to read back', '1')
  .action(async ({ bench, id, seed }: { bench: string; id: string; seed: string }) =>
    print(eraseOutput(await readText(bench), id, seed)),
  );

zb.command('lines')
  .description('what people who do this often look at, at a stop of a box')
  .requiredOption('--bench <file>', 'a bench file')
  .requiredOption('--box <id>', 'the box')
  .option('--stop <stop>', 'one stop alone')
  .action(async ({ bench, box, stop }: { bench: string; box: string; stop?: string }) =>
    print(linesOutput(await readText(bench), box, stop)),
  );

zb.command('several')
  .description('plan one stick for several images of a bench, each started out of its own file')
  .requiredOption('--bench <file>', 'a bench file')
  .option('--image <id>', 'an image of it; may be given several times, without it all are taken', collect)
  .action(async ({ bench, image }: { bench: string; image?: string[] }) =>
    print(severalOutput(await readText(bench), image)),
  );

zb.command('assign')
  .description('say which machine takes which wish, proven best')
  .requiredOption('--bench <file>', 'a bench file')
  .action(async ({ bench }: { bench: string }) => print(await assignBench(await readText(bench))));

function words(error: unknown): string {
  const { code, path } = error as { code?: string; path?: string };
  if (code === 'ENOENT' && path) return `there is no file ${path}`;
  if (code === 'EACCES' && path) return `${path} may not be read by this user`;
  return error instanceof Error ? error.message.replace(/^error: /, '') : String(error);
}

// Whoever reads may have had enough.
process.stdout.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : 2));

try {
  await zb.parseAsync();
} catch (error) {
  const asked =
    error instanceof CommanderError && /^commander\.(helpDisplayed|help|version)$/.test(error.code);
  // Asked for, help is an answer; shown because nothing was asked for, it is not.
  if (!(asked && error.exitCode === 0)) {
    const said = asked ? `a command is needed\n${zb.helpInformation()}` : words(error);
    process.stderr.write(`zb: ${said.trimEnd()}\n`);
    process.exitCode = 2;
  }
}
