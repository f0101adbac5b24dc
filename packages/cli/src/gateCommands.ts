import type { Command } from 'commander';
import { gateForms } from '@zb/core/rules/write/forms';
import { readText } from './inputFile';
import { write } from './printed';
import { askOutput, compareRulesOutput, readRulesOutput, rulesOutput } from './rules';

const maybe = async (path: string | undefined): Promise<string | undefined> =>
  path === undefined ? undefined : await readText(path);

/** Commands of a gate: its rules judged and written, packets asked, rulesets compared and read. */
export function gateCommands(zb: Command, print: (value: unknown) => void): void {
  const rules = zb
    .command('rules')
    .description('rules of a gate: which promises hold over every packet; ends with 1 where there is a Stop')
    .argument('[plan]', 'a plan, or with --box a bench')
    .option('--box <id>', 'the box of a bench')
    .option('--as <form>', `json, ${gateForms.join(', ')}`, 'json')
    .action(async (plan: string | undefined, asked: { box?: string; as: string }) => {
      if (plan === undefined) return rules.help({ error: true });
      const out = rulesOutput(await readText(plan), asked);
      write(out, print);
      if (typeof out !== 'string' && (out as { stops: number }).stops > 0) process.exitCode = 1;
    });
  rules
    .command('ask')
    .description('one packet, told rule by rule, with its answer')
    .argument('<packet>')
    .requiredOption('--plan <file>', 'a plan, or with --box a bench')
    .option('--box <id>', 'the box of a bench')
    .option('--rules <file>', 'what “nft -j list ruleset” printed, in place of the plan’s own rules')
    .action(
      async (packet: string, given: { plan: string; box?: string; rules?: string }, command: Command) => {
        const asked = { ...command.optsWithGlobals<{ box?: string }>(), ...given };
        print(
          askOutput(await readText(packet), await readText(asked.plan), {
            box: asked.box,
            rules: await maybe(asked.rules),
          }),
        );
      },
    );
  rules
    .command('compare')
    .description('which packets end otherwise; ends with 1 where any does')
    .argument('<a>', 'a plan, or what “nft -j list ruleset” printed')
    .argument('<b>')
    .option('--plan <file>', 'the plan that says what lies behind which port, where neither is one')
    .action(async (a: string, b: string, asked: { plan?: string }) => {
      const out = compareRulesOutput(await readText(a), await readText(b), await maybe(asked.plan));
      print(out);
      if (!out.same) process.exitCode = 1;
    });
  rules
    .command('read')
    .description('what “nft -j list ruleset” printed: what is understood of it, and what it promises')
    .argument('<file>')
    .option('--plan <file>', 'the plan with the promises, or with --box a bench')
    .option('--box <id>', 'the box of a bench')
    .action(async (file: string, given: { plan?: string; box?: string }, command: Command) => {
      const asked = { ...command.optsWithGlobals<{ box?: string }>(), ...given };
      print(readRulesOutput(await readText(file), await maybe(asked.plan), asked.box));
    });
}
