import { judge } from '../system/judge';
import { knownFact } from '../model/known';
import { machineView } from '../system/view';
import { serialTail } from '../write/guard';
import { targetOf, targetSerial } from '../write/target';
import { route } from './route';
import { findMachine, findProfile, storesIn, type Bench, type Box } from '../model/bench';
import { factDefinition } from '../model/facts';
import { formatIec } from '../units/bytes';
import { addSpans, formatSpan, type Span } from '../units/duration';
import { hazards, type Hazard } from './hazards';
import { contentTitle } from '../model/content';

export interface LedgerLine {
  label: string;
  value: string;
  because: string;
}

export interface Ledger {
  hazards: Hazard[];
  hands: Span;
  waiting: Span;
  times: LedgerLine[];
  bytesAtRisk: LedgerLine[];
  questions: string[];
}

/** The running consequences of a box's decisions, for the margin of every sheet. */
export function ledger(bench: Bench, box: Box): Ledger {
  const left = route(bench, box).filter((s) => s.state !== 'signed');
  const hands = addSpans(left.map((s) => s.hands));
  const waiting = addSpans(left.map((s) => s.waiting));
  const list = (key: 'hands' | 'waiting'): string =>
    left
      .filter((s) => s[key].high > 0)
      .map((s) => `${s.title} ${formatSpan(s[key])}`)
      .join(', ');
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  const inside = machine ? storesIn(bench, machine.id) : [];
  const sum = (stores: { bytes: number }[]): number => stores.reduce((n, s) => n + s.bytes, 0);
  const kept = inside.filter((s) => s.fate === 'keep');
  const serial = targetSerial(box);
  const target = targetOf(bench, box);

  const questions: string[] = [];
  if (!machine) questions.push('Which machine is it to be?');
  if (machine && !profile) questions.push(`Which system goes on ${machine.name}?`);
  if (machine && profile)
    questions.push(...judge(machineView(bench, machine), profile, box).missing.map((m) => m.ask));
  if (machine && !knownFact(machine, 'firmware.mode')) questions.push(factDefinition('firmware.mode').ask);
  const undecided = inside.filter((s) => s.fate === 'not decided' && !s.removable);
  if (undecided.length > 0 && machine && !box.signoffs.some((s) => s.stop === 'install')) {
    questions.push(
      `May what is on “${undecided[0]?.name}” be lost (${undecided[0] ? contentTitle(undecided[0]) || 'empty, as far as known' : ''})?`,
    );
  }
  return {
    hazards: hazards(bench, box),
    hands,
    waiting,
    times: [
      { label: 'Your hands', value: formatSpan(hands), because: list('hands') || 'every stop is signed off' },
      {
        label: 'Waiting',
        value: formatSpan(waiting),
        because: list('waiting') || 'nothing left to wait for',
      },
    ],
    bytesAtRisk: [
      {
        label: serial === null ? 'On the stick' : `On the stick …${serialTail(serial)}`,
        value: target ? formatIec(target.bytes) : serial === null ? 'none chosen' : 'not on the shelf',
        because: target
          ? `“${target.name}” holds ${contentTitle(target) || 'nothing'}; a write overwrites all of it`
          : serial === null
            ? 'a stick is chosen at stop 5'
            : 'the shelf has no record of this stick; put it there to see what is at risk',
      },
      {
        label: machine ? `In ${machine.name}` : 'In the machine',
        value: formatIec(sum(inside.filter((s) => s.fate !== 'keep'))),
        because:
          inside
            .filter((s) => s.fate !== 'keep')
            .map((s) => `“${s.name}” ${formatIec(s.bytes)}`)
            .join(', ') || 'no drive is known in it',
      },
      {
        label: 'Marked to keep',
        value: formatIec(sum(kept)),
        because:
          kept.map((s) => `“${s.name}”: ${contentTitle(s)}`).join(', ') ||
          'nothing in the machine is marked to keep',
      },
    ],
    questions: [...new Set(questions)],
  };
}
