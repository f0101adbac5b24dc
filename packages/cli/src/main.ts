import { Command, CommanderError } from 'commander';
import { shownOnTerminal } from '@zb/core/units/terminal';
import { register } from './groups';

// What JSON leaves as it is and a terminal would act on is escaped: it is the same JSON.
const print = (value: unknown): void =>
  void process.stdout.write(shownOnTerminal(JSON.stringify(value, null, 2)) + '\n');

const zb = new Command('zb')
  .description('Zealous Box on the command line: JSON on standard output, words on standard error.')
  .helpCommand('help [command]', 'how a command is used')
  .helpOption('-h, --help', 'how this is used')
  .exitOverride()
  .configureOutput({ writeErr: () => undefined });

function words(error: unknown): string {
  const { code, path } = error as { code?: string; path?: string };
  if (code === 'ENOENT' && path) return `there is no file ${path}`;
  if (code === 'EACCES' && path) return `${path} may not be read by this user`;
  return error instanceof Error ? error.message.replace(/^error: /, '') : String(error);
}

// Whoever reads may have had enough.
process.stdout.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : 2));

try {
  await register(zb, print, process.argv[2]);
  await zb.parseAsync();
} catch (error) {
  const asked =
    error instanceof CommanderError && /^commander\.(helpDisplayed|help|version)$/.test(error.code);
  // Asked for, help is an answer; shown because nothing was asked for, it is not.
  if (!(asked && error.exitCode === 0)) {
    const said = asked ? `a command is needed\n${zb.helpInformation()}` : words(error);
    process.stderr.write(`zb: ${shownOnTerminal(said.trimEnd())}\n`);
    process.exitCode = 2;
  }
}
