import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { compareImages } from '@zb/core/compare/images';
import { readWhole } from '@zb/core/container/read';
import { readTrustedKeys } from '@zb/core/image/trustedKeys';
import { judge } from '@zb/core/fit/judge';
import { profilesFromText } from '@zb/core/profile/exchange';
import { readSurvey } from '@zb/core/survey/read';
import { SURVEY_SCRIPT } from '@zb/core/survey/script';
import { OpenFile } from './fileSource';
import { assignBench } from './assign';
import { checkOutput } from './check';
import { InputError, machineInput } from './fitInput';
import { inspectOutput } from './inspectOutput';
import { surveyOutput } from './survey';

const USAGE = `zb survey --script                        print the survey script
zb survey FILE|-                          read a survey report
zb inspect [--keys CERTS] FILE            read a disk image, packed or not
zb compare IMAGE DUMP                     compare an image with a dump, or with another image
zb check [--key KEY [--signature SIG]] LIST FILE…
                                          hold files against a checksum list
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
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { keys: { type: 'string', multiple: true } },
  });
  const [path] = positionals;
  if (path === undefined) throw new InputError('inspect needs a FILE');
  const keys = values.keys?.flatMap((file) => readTrustedKeys(readFileSync(file)));
  const file = await OpenFile.open(path);
  try {
    const found = await readWhole(file, { algorithms: ['sha256'], keys });
    if (found) print(inspectOutput(found.inspection, found.digests.sha256 ?? ''));
  } finally {
    await file.close();
  }
}

/** Ends with 1 where any byte differs. */
async function compare(args: string[]): Promise<void> {
  const { positionals } = parseArgs({ args, allowPositionals: true, options: {} });
  const [imagePath, dumpPath] = positionals;
  if (imagePath === undefined || dumpPath === undefined)
    throw new InputError('compare needs an IMAGE and a DUMP');
  const image = await OpenFile.open(imagePath);
  const dump = await OpenFile.open(dumpPath).catch(async (error: unknown) => {
    await image.close();
    throw error;
  });
  try {
    const found = await compareImages(image, dump);
    if (!found) return;
    const { blocks, differences, trees } = found;
    print({ same: blocks.result === 'proven', ...blocks, differences, trees });
    if (blocks.result !== 'proven') process.exitCode = 1;
  } finally {
    await image.close();
    await dump.close();
  }
}

/** Ends with 1 where a file does not match or the signature is not good, so that a script can go by it. */
async function check(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { signature: { type: 'string' }, key: { type: 'string' } },
  });
  const [list, ...files] = positionals;
  if (list === undefined || files.length === 0)
    throw new InputError('check needs a LIST and at least one FILE');
  const found = await checkOutput(list, files, values.signature, values.key);
  print(found);
  if (!found.allMatch || (found.signature && found.signature.state !== 'good')) process.exitCode = 1;
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
  else if (command === 'compare') await compare(rest);
  else if (command === 'check') await check(rest);
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
