import fc from 'fast-check';
import { applySurvey, blankMachine } from '@zb/core/acts/shelf';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { readSurvey } from '@zb/core/machine/read';
import { arranged, emptyBench, findMachine, machinesOf } from '@zb/core/model/bench';
import { applyChanges } from '@zb/core/model/changes';
import { benchToText } from '@zb/core/model/file';
import { judge } from '@zb/core/system/judge';
import { machineView, type MachineView } from '@zb/core/system/view';
import { randomBench } from '../../core/test/shelves';
import { machineInput } from '../src/fitInput';
import { surveyOutput } from '../src/survey';
import { REPORT } from './report';

/** A view without what only names it. */
const plain = ({ id: _id, name: _name, form: _form, drives, assumed, ...rest }: MachineView): unknown => ({
  ...rest,
  assumed: [...(assumed ?? [])].sort(),
  drives: drives.map((d) => ({ ...d, id: '', in: '', content: null })),
});

const SIZES = { machines: 3, wishes: 3, parts: 8, offers: 3 };

it('the command line sees a machine of any bench as the page sees it, and judges it the same', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
      const bench = arranged(randomBench(seed, SIZES));
      const text = benchToText(bench);
      for (const machine of machinesOf(bench)) {
        const page = machineView(bench, machine);
        const line = machineInput(text, machine.id);
        expect(line).toEqual(page);
        for (const profile of bench.profiles) expect(judge(line, profile)).toEqual(judge(page, profile));
      }
    }),
    { numRuns: 25 },
  );
});

it('a report, its JSON and the page that it is pasted into give one view', () => {
  const stamp = { now: '2026-11-26T00:00:00.000Z', id: () => Math.random().toString(36) };
  const survey = readSurvey(REPORT);
  const blank = blankMachine('New machine', 'office desktop', stamp);
  const bare = { ...emptyBench(), items: [blank] };
  const pasted = applyChanges(bare, applySurvey(bare, blank, survey, stamp, null).changes);
  const machine = findMachine(pasted, blank.id);
  if (!machine) throw new Error('no machine');
  const page = machineView(pasted, machine);
  expect(plain(machineInput(REPORT))).toEqual(plain(page));
  expect(plain(machineInput(JSON.stringify(surveyOutput(survey))))).toEqual(plain(page));
  for (const profile of saltmarshHall().profiles)
    expect(judge(machineInput(REPORT), profile).verdict).toBe(judge(page, profile).verdict);
});
