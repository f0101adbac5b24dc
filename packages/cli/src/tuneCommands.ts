import type { Command } from 'commander';
import { recorderScript } from '@zb/core/tune/logs/recorder';
import { InputError, readBytes, readText } from './inputFile';
import { write } from './printed';
import {
  compareOutput,
  designOutput,
  logOutput,
  resultOutput,
  standInOutput,
  steadyOutput,
  type CompareAsked,
  type LogAsked,
  type StandInAsked,
} from './tune';

const PANEL = ['--panel <hz>', 'the panel: “60”, or with the range it follows “60,40-60”'] as const;
const MEASURE = ['--measure <seconds>', 'only the last so many seconds are measured'] as const;

/** Where the second list of files begins: the words behind “--”. */
function sides(files: readonly string[], asked: CompareAsked): [string[], string[]] {
  const at = process.argv.lastIndexOf('--');
  const after = at < 0 ? 0 : process.argv.length - at - 1;
  const [before, behind] = [files.slice(0, files.length - after), files.slice(files.length - after)];
  // Behind “--” nothing is an option to the parser; those of this command are typed there all the same.
  const named: string[] = [];
  for (let i = 0; i < behind.length; i += 1) {
    const option = /^--(order|quantity|matters|measure|panel)$/.exec(behind[i] ?? '')?.[1];
    if (option === undefined) named.push(behind[i] ?? '');
    else Object.assign(asked, { [option]: behind[(i += 1)] });
  }
  return [before, named];
}

/** Commands of tuning: logs read, runs compared, experiments planned. */
export function tuneCommands(zb: Command, print: (value: unknown) => void): void {
  const tune = zb.command('tune').description('one change at a time, with honest numbers');
  tune
    .command('read')
    .description('what logs say: their kind, figures with intervals, and what was mended')
    .argument('<files...>')
    .option(...MEASURE)
    .option(...PANEL)
    .action(async (files: string[], asked: LogAsked) => {
      const out = [];
      for (const f of files) out.push(logOutput(f, await readBytes(f), asked));
      print(out);
    });
  tune
    .command('compare')
    .description('runs before against runs after (BEFORE… -- AFTER…), one log each')
    .argument('<files...>')
    .option(...MEASURE)
    .option(...PANEL)
    .option('--quantity <code>', 'one quantity alone')
    .option('--matters <value>', 'the change that would matter, in its unit')
    .option('--room <temperatures>', 'how warm the room was in every run, °C, with commas; taken out of heat')
    .option('--order <letters>', 'the order in which the runs were made, such as ABBA')
    .action(async (files: string[], asked: CompareAsked) => {
      const [before, after] = sides(files, asked);
      if (before.length === 0 || after.length === 0)
        throw new InputError('compare needs logs before and after: zb tune compare a1 a2 -- b1 b2');
      const read = async (names: readonly string[]) => {
        const out = [];
        for (const name of names) out.push({ name, bytes: await readBytes(name) });
        return out;
      };
      print(compareOutput(await read(before), await read(after), asked));
    });
  tune
    .command('plan')
    .description(
      'an experiment planned: quantities, waiting, runs, their order, and the chance to see what matters',
    )
    .argument('<question>', 'as docs/tune.schema.json says; - for standard input')
    .action(async (path: string) => print(designOutput(await readText(path))));
  tune
    .command('steady')
    .description('whether the temperatures of a log have settled; ends with 1 where one has not')
    .argument('<file>')
    .action(async (path: string) => {
      const out = steadyOutput(path, await readBytes(path));
      print(out);
      if (out.series.some((s) => s.code !== 'steady' && s.code !== 'level')) process.exitCode = 1;
    });
  tune
    .command('result')
    .description('what the experiments of a box came to')
    .argument('<bench>')
    .argument('<box>')
    .option('--as <form>', 'json, csv (runs), or runs (plan and runs as JSON)', 'json')
    .action(async (path: string, box: string, { as }: { as: string }) =>
      write(resultOutput(await readText(path), box, as), print),
    );
  tune
    .command('stand-in')
    .description('a run on the stand-in machine: what it gave, and what its truth is')
    .option('--limit <watts>', 'its power limit', '31')
    .option('--boost <state>', 'on or off', 'on')
    .option('--lines <count>', 'lines of the picture', '1080')
    .option('--cap <rate>', 'frames per second at most')
    .option('--paste <state>', 'old or fresh', 'old')
    .option('--seed <number>', 'what chance draws from', '1')
    .option('--place <number>', 'runs before it on this evening', '0')
    .option('--settle <seconds>', 'seconds before measuring', '900')
    .option('--measure <seconds>', 'seconds measured', '60')
    .option('--as <form>', 'json, frames (ms, one on a line) or csv (readings)', 'json')
    .action((asked: StandInAsked) => write(standInOutput(asked), print));
  tune
    .command('record')
    .description('print our recorder, a script for any POSIX shell that only reads')
    .action(() => void process.stdout.write(recorderScript));
}
