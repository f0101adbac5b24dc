import type { Command } from 'commander';
import { filesOutput, type FilesAsked } from './files';
import { buildSheetOutput, keepForms, keepOutput, retireOutput, sheetForms } from './handOver';
import { readText } from './inputFile';
import { write } from './printed';

/** Commands of a box that is handed over, kept going, and one day is no more. */
export function handOverCommands(zb: Command, print: (value: unknown) => void): void {
  zb.command('sheet')
    .description('the build sheet of a box: what it is, how it came and is set, what comes round')
    .argument('<bench>', 'a bench file; - for standard input')
    .argument('<box>', 'the box, by its id')
    .option('--as <form>', sheetForms.join(', '), 'md')
    .option('--today <day>', 'the day on which what comes round is judged')
    .action(async (bench: string, box: string, o: { as: string; today?: string }) =>
      write(buildSheetOutput(await readText(bench), box, o.as, o.today, new Date()), print),
    );

  zb.command('keep')
    .description(
      'what comes round for boxes, as JSON or as a calendar; settings as they came; a copy against doing it again',
    )
    .argument('<bench>', 'a bench file; - for standard input')
    .argument('[box...]', 'boxes, by their ids; without any, all')
    .option('--as <form>', keepForms.join(', '), 'json')
    .option('--today <day>', 'the day that is counted from')
    .action(async (bench: string, boxes: string[], o: { as: string; today?: string }) =>
      write(keepOutput(await readText(bench), boxes, o, new Date()), print),
    );

  zb.command('files')
    .description('every file that a bench is written to, for whoever reads them with other programs')
    .argument('<bench>', 'a bench file; - for standard input')
    .option('--box <id>', 'only what is of this box')
    .option('--writer <name>', 'only what this writer writes; without it the names are listed too')
    .option('--out <folder>', 'write them there, a folder for each writer; without it they are printed')
    .option('--today <day>', 'the day that is counted from')
    .action(async (bench: string, o: FilesAsked) =>
      print(await filesOutput(await readText(bench), o, new Date())),
    );

  zb.command('retire')
    .description('what is done before a box is no more: drives erased by their kind, in order')
    .argument('<bench>', 'a bench file; - for standard input')
    .argument('<box>', 'the box, by its id')
    .option('--to <where>', 'back to the shelf, given away, recycling', 'back to the shelf')
    .action(async (bench: string, box: string, o: { to: string }) =>
      print(retireOutput(await readText(bench), box, o.to)),
    );
}
