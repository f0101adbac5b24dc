import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { inspectImage } from '@zb/core/image/inspect';
import { judge } from '@zb/core/fit/judge';
import { profilesFromText } from '@zb/core/profile/exchange';
import { readSurvey } from '@zb/core/survey/read';
import { SURVEY_SCRIPT } from '@zb/core/survey/script';
import { OpenFile } from './fileSource';
import { assignBench } from './assign';
import { InputError, machineInput } from './fitInput';
import { inspectOutput } from './inspectOutput';
import { surveyOutput } from './survey';

const USAGE = `zb survey --script                        print the survey script
zb survey FILE|-                          read a survey report
zb inspect FILE                           read a disk image
zb fit --machine FILE --profiles FILE     judge profiles for a machine
zb assign --bench FILE                    say which machine takes which wish`;

const print = (value: unknown): void => void process.stdout.write(JSON.stringify(value, null, 2) + '\n');
const readText = (path: string): string => readFileSync(path === '-' ? 0 : path, 'utf8');

function survey(args: string[]): void {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { script: { type: 'boolean' } },
  });
  if (values.script) {
    process.stdout.write(SURVEY_SCRIPT);
    return;
  }
  const [path] = positionals;
  if (path === undefined) throw new InputError('survey needs a FILE, or - for standard input');
  print(surveyOutput(readSurvey(readText(path))));
}

async function inspect(args: string[]): Promise<void> {
  const { positionals } = parseArgs({ args, allowPositionals: true, options: {} });
  const [path] = positionals;
  if (path === undefined) throw new InputError('inspect needs a FILE');
  const file = await OpenFile.open(path);
  try {
    const found = await inspectImage(file);
    print(inspectOutput(found, await file.sha256()));
  } finally {
    await file.close();
  }
}

function fit(args: string[]): void {
  const { values } = parseArgs({
    args,
    options: { machine: { type: 'string' }, profiles: { type: 'string' } },
  });
  if (values.machine === undefined || values.profiles === undefined)
    throw new InputError('fit needs --machine FILE and --profiles FILE');
  const machine = machineInput(readText(values.machine));
  const verdicts = profilesFromText(readText(values.profiles)).map((p) => {
    const { profileId, profile, verdict, binding, missing, release, variant, repairs, cost, likely } = judge(
      machine,
      p,
    );
    const reasons = binding.map(({ rule, outcome, because, repair, margin, soft }) => ({
      rule,
      outcome,
      because,
      ...(margin ? { margin } : {}),
      ...(soft ? { soft } : {}),
      ...(repair ? { repair } : {}),
    }));
    return {
      profileId,
      profile,
      verdict,
      likely,
      release: release.version,
      variant: variant.name,
      reasons,
      missing,
      repairs: repairs.map((r) => r.text),
      cost,
    };
  });
  print({ machine: machine.name, verdicts });
}

async function assign(args: string[]): Promise<void> {
  const { values } = parseArgs({ args, options: { bench: { type: 'string' } } });
  if (values.bench === undefined) throw new InputError('assign needs --bench FILE');
  print(await assignBench(readText(values.bench)));
}

const [command, ...rest] = process.argv.slice(2);
try {
  if (command === 'survey') survey(rest);
  else if (command === 'inspect') await inspect(rest);
  else if (command === 'fit') fit(rest);
  else if (command === 'assign') await assign(rest);
  else
    throw new InputError(
      command === undefined ? `a command is needed\n${USAGE}` : `“${command}” is not a command\n${USAGE}`,
    );
} catch (error) {
  const { code, path } = error as { code?: string; path?: string };
  const words =
    code === 'ENOENT' && path
      ? `there is no file ${path}`
      : error instanceof Error
        ? error.message
        : String(error);
  process.stderr.write(`zb: ${words}\n`);
  process.exitCode = 2;
}
