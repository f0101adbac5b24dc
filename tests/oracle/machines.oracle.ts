/**
 * The survey against machines of other shapes: a real kernel in the emulator, whose command line is the truth. One in every
 * run; all of them in `npm run proof machines`, which writes their reports to the fixtures of the unit tests.
 */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readSurvey } from '@zb/core/machine/read';
import { inPairs } from './emulator';
import { prepareKernel, surveyOf } from './machines';
import { against, shapes } from './shapes';

jest.setTimeout(60_000);
const ALL = process.env.ZB_MACHINES === 'all';
const SELECTED = ['two-sockets'];
const FIXTURES = fileURLToPath(new URL('../../packages/core/test/fixtures/machines', import.meta.url));
const ONE = process.env.ZB_MACHINES;
const chosen = shapes.filter((s) => ALL || (ONE ? ONE === s.file : SELECTED.includes(s.file)));
/** Who made the parts is no part of what is read, and stays out of the fixtures. */
const neutral = (report: string): string =>
  report
    .replace(
      /("field": "(?:BIOS )?(?:Vendor ID|Model name|Virtualization):",\s*"data": )"[^"]*"/g,
      '$1"made up"',
    )
    .replace(/^(vendor_id|model name)(\s*: ).*$/gm, '$1$2made up')
    .replace(/("(?:model|vendor|model_name|model_family|product)": )"[^"]*"/g, '$1"made up"')
    .replace(/^(\s*Manufacturer: ).*$/gm, '$1made up');
let reports: PromiseSettledResult<string>[] = [];

beforeAll(async () => {
  const kernel = prepareKernel();
  reports = await inPairs(chosen.map((s) => () => surveyOf(s, kernel)));
  mkdirSync(FIXTURES, { recursive: true });
  reports.forEach((r, i) => {
    const shape = chosen[i];
    if (ALL && shape && r.status === 'fulfilled')
      writeFileSync(join(FIXTURES, `${shape.file}.txt`), neutral(r.value));
  });
}, 1_200_000);

it('are at least eight machines', () => expect(shapes.length).toBeGreaterThanOrEqual(8));

it.each(chosen.map((s, i) => [s.name, i] as const))(
  '%s: the survey finds what the command line made',
  (_name, i) => {
    const report = reports[i];
    const shape = chosen[i];
    if (report?.status === 'rejected') throw new Error(`not surveyed: ${String(report.reason)}`);
    if (!report || !shape) throw new Error('not surveyed');
    const { found, truth } = against(shape, readSurvey(report.value));
    expect(found).toEqual(truth);
  },
);
