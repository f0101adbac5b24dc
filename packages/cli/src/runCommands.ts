import type { Command } from 'commander';
import { diagnoseOutput, diagnoseTables, type DiagnoseAsked } from './diagnose';
import { InputError, readText } from './inputFile';
import { exerciseList, practiceOutput } from './practice';
import { write } from './printed';
import { scheduleForms, scheduleOutput, type ScheduleAsked } from './schedule';
import { secondOutput, timesOutput } from './times';
import { planExportOutput, planOutput, runSheetForms, runSheetOutput, tickedOutput } from './runSheet';

/** Commands of the work itself: its steps. */
export function runCommands(zb: Command, print: (value: unknown) => void): void {
  zb.command('runsheet')
    .description('the steps of a box in their order, or with --read the ticks of a sheet that travelled')
    .argument('<bench>', 'a bench file; - for standard input')
    .argument('<box>', 'the box, by its id')
    .option('--as <form>', runSheetForms.join(', '), 'json')
    .option('--read <sheet>', 'a sheet that was saved: prints the bench with its ticks')
    .action(async (bench: string, box: string, { as, read }: { as: string; read?: string }) => {
      const text = await readText(bench);
      write(
        read === undefined
          ? runSheetOutput(text, box, as, new Date().toISOString())
          : tickedOutput(text, box, await readText(read)),
        print,
      );
    });

  zb.command('plan')
    .description(
      'the plan of a box: its operations with conditions and effects, and whether it reaches its end',
    )
    .argument('<bench>', 'a bench file; - for standard input')
    .argument('<box>', 'the box, by its id')
    .option('--export', 'the state and the operations, without what they lead to, for another program')
    .action(async (bench: string, box: string, o: { export?: boolean }) => {
      const text = await readText(bench);
      print(o.export ? planExportOutput(text, box) : planOutput(text, box));
    });

  zb.command('diagnose')
    .description('what is behind something that looks different: causes by their shares, and the next look')
    .argument('<bench>', 'a bench file; - for standard input')
    .argument('<box>', 'the box, by its id')
    .option('--seen <symptom...>', 'what is seen; several are seen together')
    .option('--at <moment>', 'when it is seen, where that is not plain')
    .option('--answer <look=answer...>', 'what looks found; nothing behind the sign: it could not be told')
    .option('--tables', 'print all that the shares are worked out from')
    .action(async (bench: string, box: string, o: Partial<DiagnoseAsked> & { tables?: boolean }) => {
      const text = await readText(bench);
      if (o.tables) print(diagnoseTables(text, box));
      else if (!o.seen) throw new InputError('diagnose needs --seen SYMPTOM');
      else print(diagnoseOutput(text, box, { ...o, seen: o.seen }));
    });

  zb.command('schedule')
    .description('several boxes and one pair of hands: the order that gets most done, proven or with its gap')
    .argument('<bench>', 'a bench file; - for standard input')
    .option('--until <time>', 'done by then, such as 21:30')
    .option('--from <time>', 'it begins then; without it, now')
    .option('--box <id...>', 'these boxes; without it, those in work that have a machine')
    .option('--pin <step=time...>', 'a step is to begin then: “BOX STEP=20:15”')
    .option('--as <form>', scheduleForms.join(', '), 'json')
    .option('--seed <n>', 'for the chance', '1')
    .action(async (bench: string, o: ScheduleAsked) =>
      write(scheduleOutput(await readText(bench), o, new Date()), print),
    );

  zb.command('times')
    .description('what steps took beside what was foretold of them, and how often that held')
    .argument('<bench>', 'a bench file; - for standard input')
    .argument('[box]', 'a box, by its id: what is foretold of its steps as well')
    .action(async (bench: string, box: string | undefined) => print(timesOutput(await readText(bench), box)));

  zb.command('second')
    .description('a box made after another: what it takes over, what it asks again, how long it should take')
    .argument('<bench>', 'a bench file; - for standard input')
    .argument('<box>', 'the box it is made after, by its id')
    .option('--name <name>', 'its name')
    .option('--machine <id>', 'its machine')
    .option('--as <form>', 'json, bench', 'json')
    .action(async (bench: string, box: string, o: { name?: string; machine?: string; as: string }) =>
      write(secondOutput(await readText(bench), box, o, new Date().toISOString()), print),
    );

  zb.command('practice')
    .description('exercises on made-up machines: all of them, or how one stands after some acts')
    .argument('[exercise]', 'an exercise by its id; without one, all are listed')
    .option('--seed <number>', 'what is drawn', '1')
    .option('--acts <file>', 'what was done, as a JSON list; - for standard input')
    .option('--bench <file>', 'a bench file, for an exercise made from one of its boxes')
    .option('--box <id>', 'that box')
    .action(
      async (id: string | undefined, o: { seed: string; acts?: string; bench?: string; box?: string }) => {
        const own =
          o.bench === undefined || o.box === undefined
            ? undefined
            : { bench: await readText(o.bench), box: o.box };
        if (id === undefined && !own) return print(exerciseList());
        const acts = o.acts === undefined ? undefined : await readText(o.acts);
        print(practiceOutput(id, { seed: o.seed, acts, own }));
      },
    );
}
