import { knownFact } from '../model/known';
import { findMachine, findProfile, storesIn, type Bench, type Box, type Profile } from '../model/bench';
import type { Stop } from '../model/box';
import { formatBoth } from '../units/bytes';
import { contentTitle } from '../model/content';

export interface StopOutlook {
  headline: string;
  /** One honest sentence on what this stop does not do yet. */
  later: string;
  /** What is already known that matters here. */
  known: { what: string; is: string }[];
}

const LATER: Partial<Record<Stop, [headline: string, later: string]>> = {
  install: [
    'Which drive does the installer take?',
    'This stop will rehearse the plan over every order the drives may answer in; until then it shows who is in the machine.',
  ],
  'first-start': [
    'What does the first start ask?',
    'This stop will hold the first start’s checklist and its waiting time; until then, note here what you set.',
  ],
  network: [
    'Where will it answer?',
    'This stop will plan addresses and check that nobody else has them; until then, note the address you gave it.',
  ],
  load: [
    'What goes on it?',
    'This stop will lay out pools, shares and guests; until then, note what you loaded.',
  ],
  tune: [
    'Does one change at a time help?',
    'This stop will measure before and after each change; until then, note settings from and to.',
  ],
};

/** What a login policy asks of the first start. */
const LOGIN: Record<Profile['login'], string> = {
  'set at install': 'set at install: a real one, written down',
  'shipped default':
    'it comes with one everybody knows: replace it before it joins the network, and write it down',
  'no login': 'none; keep it off networks you do not trust',
};

/** What a stop that is not built yet can already say. */
export function stopOutlook(bench: Bench, box: Box, stop: Stop): StopOutlook {
  const [headline, later] = LATER[stop] ?? ['', ''];
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  const known: StopOutlook['known'] = [];
  const say = (what: string, is: string | undefined | null): void => void (is && known.push({ what, is }));
  const inside = machine ? storesIn(bench, machine.id) : [];
  if (stop === 'install') {
    say('Installer', profile?.installer);
    say('Layout', profile && `${profile.layout}; swap: ${profile.swap}`);
    if (profile?.growsAtFirstStart) say('Size', 'it grows to the whole drive at its first start');
    for (const s of inside)
      say(
        `In ${machine?.name}`,
        `${s.name}, ${formatBoth(s.bytes)}, …${s.serial?.slice(-4) ?? 'no serial'}: ${s.fate === 'may be lost' ? '' : `${s.fate.toUpperCase()}, `}${contentTitle(s) || 'empty'}`,
      );
  }
  if (stop === 'first-start' && machine) {
    say(
      'Panel',
      knownFact(machine, 'display.portrait')?.value === true
        ? 'upright: rotate it'
        : 'not upright, as far as known',
    );
    say('Graphics driver', knownFact(machine, 'graphics.driver')?.value as string | undefined);
    say('Updates', 'update, restart, and again until nothing is offered');
    say('Password', profile && LOGIN[profile.login]);
    say('Drivers, in this order', profile?.drivers.join(' → '));
  }
  if (stop === 'network') {
    say(
      'Administration page',
      profile?.admin
        ? `${profile.admin.scheme}, port ${profile.admin.port}${profile.admin.path === '/' ? '' : `, ${profile.admin.path}`}; the browser warns once about its own certificate`
        : null,
    );
    say('Address', 'fixed outside the router’s range, or a reservation on the router');
    for (const p of machine?.networkPorts ?? [])
      say('Port', `${p.name}, ${p.kind}${p.speedMbps ? `, ${p.speedMbps} Mb/s` : ''}`);
  }
  if (stop === 'load') {
    say('Purpose', box.purpose);
    for (const s of inside) say('Drive', `${s.name}, ${formatBoth(s.bytes)}`);
    if (profile?.needs.dataDrives === 2)
      say('Two equal drives', 'a mirror: half the space, survives one. It is not a backup.');
  }
  if (stop === 'tune') say('Rule', 'one change at a time, measured before and after');
  return { headline, later, known };
}
