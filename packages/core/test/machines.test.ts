import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readSurvey } from '../src/machine/read';
import { against, shapes } from '../../../tests/oracle/shapes';

/*
 * Reports of machines of other shapes, printed by the survey script under a real kernel in the emulator, and what the
 * command lines that made them say. `npm run proof machines` makes them anew.
 */
const dir = join(__dirname, 'fixtures/machines');

it('every machine has its report', () =>
  expect(readdirSync(dir).sort()).toEqual(shapes.map((s) => `${s.file}.txt`).sort()));

it.each(shapes.map((s) => [s.name, s] as const))('%s', (_name, shape) => {
  const { found, truth } = against(shape, readSurvey(readFileSync(join(dir, `${shape.file}.txt`), 'utf8')));
  expect(found).toEqual(truth);
});
