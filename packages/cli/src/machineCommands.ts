import type { Command } from 'commander';
import { readSurvey } from '@zb/core/machine/read';
import { SURVEY_SCRIPT } from '@zb/core/machine/script';
import { assignBench } from './assign';
import { linesOutput } from './benchOutput';
import { fitOutput } from './fit';
import { InputError, readText } from './inputFile';
import { surveyOutput } from './survey';

/** Commands of machines and what goes on them. */
export function machineCommands(zb: Command, print: (value: unknown) => void): void {
  zb.command('survey')
    .description('read a survey report, or print the script that makes one')
    .argument('[file]', 'the report; - for standard input')
    .option('--script', 'print the survey script')
    .action(async (path: string | undefined, { script }: { script?: boolean }) => {
      if (script) process.stdout.write(SURVEY_SCRIPT);
      else if (path === undefined) throw new InputError('survey needs a FILE, or - for standard input');
      else print(surveyOutput(readSurvey(await readText(path))));
    });

  zb.command('fit')
    .description('judge systems for a machine, with reasons and repairs')
    .requiredOption('--machine <file>', 'a survey report, its JSON, a machine record, or a bench')
    .option('--id <machine>', 'which machine of a bench')
    .requiredOption('--profiles <file>', 'systems, or a bench that holds them')
    .action(async ({ machine, profiles, id }: { machine: string; profiles: string; id?: string }) =>
      print(fitOutput(await readText(machine), await readText(profiles), id)),
    );

  zb.command('assign')
    .description('say which machine takes which wish, proven best')
    .requiredOption('--bench <file>', 'a bench file')
    .action(async ({ bench }: { bench: string }) => print(await assignBench(await readText(bench))));

  zb.command('lines')
    .description('what people who do this often look at, at a stop of a box')
    .requiredOption('--bench <file>', 'a bench file')
    .requiredOption('--box <id>', 'the box')
    .option('--stop <stop>', 'one stop alone')
    .action(async ({ bench, box, stop }: { bench: string; box: string; stop?: string }) =>
      print(linesOutput(await readText(bench), box, stop)),
    );
}
