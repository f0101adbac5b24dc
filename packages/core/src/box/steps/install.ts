import { laidBox } from '../../layout/forBox';
import { systemDriveOf } from '../../layout/systemDrive';
import { layoutSteps } from '../../layout/steps';
import { knownText } from '../../model/known';
import { openingOf } from '../../opening/forBox';
import { movesOf, placeBefore } from '../../opening/moves';
import { looksAlike } from '../../rehearsal/alike';
import { fixedMode, mayEnrol } from '../../rehearsal/precautions';
import { step, type StepDraft } from '../../runsheet/step';
import type { StepWhat } from '../../runsheet/what';
import { span } from '../../units/duration';
import type { Effect } from '../../plan/effect';
import { predictInstall } from '../../write/install';
import type { Scene } from '../scene';
import { aroundSteps, Chosen } from './precautions';

/** The steps of opening, each behind the one before it. */
function openingSteps(scene: Scene): StepDraft[] {
  const { bench, box, machine, profile } = scene;
  const opening = openingOf(bench, box);
  if ('code' in opening || !machine) return [];
  // A drive that is written in an adapter is written before it goes in.
  const straight = profile?.installer === 'written straight to the final drive';
  // What a precaution keeps out goes in when the system is on.
  const later = new Set(new Chosen(scene).of('unplug').map((p) => `in:${p.drive ?? ''}`));
  let before: string | undefined;
  return opening.steps
    .filter((s) => !later.has(s.key))
    .map((s) => {
      const after = [
        'gather:*',
        'choose:*',
        'save:*',
        ...(straight && s.what.code === 'put in' ? ['write:*'] : []),
        ...(before ? [before] : []),
      ];
      before = `open:${s.key}`;
      return step(
        'install',
        before,
        { code: 'open', what: s.what, machine: machine.name },
        {
          after,
          hands: span(s.minutes * 40, s.minutes * 80),
          seen: s.done,
          effects: s.effects,
          needs: s.what.code === 'look in setup' ? ['monitor', 'keyboard'] : ['tools'],
          hurts: hurtsOf(s.what.code, opening.effort.ribbons),
          asks: s.what.code === 'photograph' ? 'photo' : null,
          pauses: s.what.code !== 'erase first',
        },
      );
    });
}

type OpenCode = Extract<StepWhat, { code: 'open' }>['what']['code'];
const hurtsOf = (code: OpenCode, ribbons: boolean): StepDraft['hurts'] =>
  code === 'erase first'
    ? ['what is on the drive is lost']
    : code === 'unplug the mains'
      ? ['mains']
      : code === 'look at the cells' || code === 'unplug the battery'
        ? ['lithium cells']
        : code === 'take the cover off' && ribbons
          ? ['ribbon cables']
          : [];

const CHOICE = {
  'asks for the drive': 'asks',
  'preselects the first drive': 'preselects',
  'takes the first drive unasked': 'unasked',
  'takes the largest drive unasked': 'unasked',
} as const;

/** Before the stick is started: what stays away, power, wire, stick. */
function ready(scene: Scene, chosen: Chosen): StepDraft[] {
  const { profile, target, machine } = scene;
  return [
    ...aroundSteps(scene, chosen, 'install'),
    ...(profile?.networkAtInstall
      ? [step('install', 'start:wire', { code: 'wire in' }, { after: ['setup:*', 'choose:*'] })]
      : []),
    step(
      'install',
      'start:stick',
      {
        code: 'stick in',
        stick: target?.name ?? '',
        serial: target?.serial ?? null,
        dock: scene.fact('ports.usb') === 1,
      },
      {
        after: [
          ...['write:*', 'setup:*', 'label:*', 'save:*', 'choose:*', 'open:*'],
          ...['start:away:*', 'start:power', 'start:wire'],
        ],
        must: [{ code: 'stick is proven', of: target?.name ?? '', id: target?.id ?? null }],
        effects: target && machine ? [{ code: 'move', item: target.id, to: machine.id }] : [],
      },
    ),
  ];
}

/** Switching on with the stick in. */
function startSteps(scene: Scene, chosen: Chosen): StepDraft[] {
  const { box, machine, profile, rehearsed, target } = scene;
  const plan = rehearsed?.plan;
  const mode = plan?.machine.mode === 'both' ? fixedMode(plan) : (plan?.machine.mode ?? null);
  return [
    step(
      'install',
      'start:go',
      {
        code: 'start the stick',
        by: (box.startBy === 'order' && !chosen.has('menu')) || chosen.has('stick first') ? 'order' : 'menu',
        key: knownText(machine, 'firmware.menuKey'),
        mode: scene.fact('firmware.mode') === 'board' ? 'board' : mode,
        stick: target?.name ?? '',
        basicGraphics: profile?.manner.basicGraphics ?? false,
      },
      {
        after: ['start:stick'],
        must: [{ code: 'stick starts', of: machine?.name ?? '', id: machine?.id ?? null }],
      },
    ),
  ];
}

/** The installer's stick is out of the machine again. */
const stickOut = ({ target, box }: Scene): Effect[] =>
  target ? [{ code: 'move back', item: target.id, to: placeBefore(box, target) }] : [];

/** A whole system that is written to a stick: started from it, and copied onto the drive where that was decided. */
function wholeSystem(scene: Scene, chosen: Chosen): StepDraft[] {
  const { target } = scene;
  if (target?.kind !== 'stick') return [];
  const final = systemDriveOf(scene.bench, scene.box);
  const onto = final?.id === target.id ? undefined : final;
  return [
    ...ready(scene, chosen),
    ...startSteps(scene, chosen),
    ...(onto
      ? [
          step(
            'install',
            'inst:copy',
            { code: 'copy onto the drive', drive: onto.name, serial: onto.serial, bytes: onto.bytes },
            {
              after: ['start:go'],
              must: [
                { code: 'drive may be lost', of: onto.name, id: onto.id },
                { code: 'drive is in the machine', of: onto.name, id: onto.id },
              ],
              effects: [{ code: 'install', medium: onto.id }],
            },
          ),
          step(
            'install',
            'back:stick',
            { code: 'stick out', ends: 'asks for a restart', stick: target.name },
            { after: ['inst:copy'], effects: stickOut(scene) },
          ),
        ]
      : []),
  ];
}

/** At the installer: the drive, the parts, the last yes. */
function atInstaller(scene: Scene, chosen: Chosen): StepDraft[] {
  const { bench, box, machine, profile, rehearsed, target } = scene;
  if (!profile || profile.installer === 'written straight to the final drive') return [];
  const laid = laidBox(bench, box);
  const plan = rehearsed?.plan;
  const goesTo = plan?.drives.find((d) => d.role === 'target');
  const drive = laid.drive ?? undefined;
  const choice = CHOICE[profile.installer];
  const by = chosen.has('serial') ? 'serial' : chosen.has('label') ? 'label' : 'what the list shows';
  const enrols = plan !== undefined && mayEnrol(plan) && !chosen.has('secure off');
  const { manner } = profile;
  const out: StepDraft[] = [
    ...startSteps(scene, chosen),
    step(
      'install',
      'inst:drive',
      {
        code: 'choose the drive',
        choice,
        drive: goesTo?.name ?? drive?.name ?? '',
        serial: goesTo?.serial ?? drive?.serial ?? null,
        bytes: goesTo?.bytes ?? drive?.bytes ?? 0,
        model: drive?.model ?? null,
        by,
        read: chosen.has('read'),
        alike:
          plan && goesTo
            ? looksAlike(plan)
                .filter((d) => d.id !== goesTo.id)
                .map((d) => d.name)
            : [],
      },
      {
        after: ['start:go'],
        must: [
          { code: 'drive may be lost', of: drive?.name ?? '', id: drive?.id ?? null },
          { code: 'drive is in the machine', of: drive?.name ?? '', id: drive?.id ?? null },
        ],
        // Nobody is asked: starting it is the yes.
        ...(choice === 'unasked'
          ? { hurts: ['what is on the drive is lost'] as const, back: 'from a copy alone' as const }
          : {}),
      },
    ),
  ];
  if (laid.plan && laid.why === null)
    out.push(
      step(
        'install',
        'inst:layout',
        { code: 'lay the drive out', steps: layoutSteps(laid.plan, 'asks part after part') },
        { after: ['inst:drive'] },
      ),
    );
  if (choice !== 'unasked')
    out.push(
      step(
        'install',
        'inst:yes',
        {
          code: 'say yes',
          times: manner.confirms,
          drive: goesTo?.name ?? drive?.name ?? '',
          serial: goesTo?.serial ?? drive?.serial ?? null,
          arch: manner.asksArchitecture ? knownText(machine, 'cpu.arch') : null,
        },
        { after: ['inst:drive', 'inst:layout'] },
      ),
    );
  const waiting = predictInstall(bench, box, drive)?.value;
  out.push(
    step(
      'install',
      'inst:run',
      { code: 'let it install', system: profile.name, staysWith: manner.ends === 'restarts by itself' },
      {
        after: ['inst:drive', 'inst:layout', 'inst:yes'],
        effects: drive ? [{ code: 'install', medium: drive.id }] : [],
        ...(waiting ? { alone: waiting } : {}),
      },
    ),
    step(
      'install',
      'back:stick',
      { code: 'stick out', ends: manner.ends, stick: target?.name ?? '' },
      { after: ['inst:run'], effects: stickOut(scene) },
    ),
  );
  if (enrols || chosen.has('enrol'))
    out.push(step('install', 'back:enrol', { code: 'enrol the key' }, { after: ['back:stick'] }));
  return out;
}

/** What was changed for the installation alone is as it was again. */
function afterwards(scene: Scene, chosen: Chosen): StepDraft[] {
  const drives = scene.rehearsed?.plan.drives ?? [];
  const nameOf = (id: string | null): string => drives.find((d) => d.id === id)?.name ?? '';
  const straight = scene.profile?.installer === 'written straight to the final drive';
  const named = (kind: 'unplug' | 'port off'): string[] => chosen.of(kind).map((p) => nameOf(p.drive));
  const out = [...new Set([...named('unplug'), ...(straight ? named('port off') : [])])];
  const ports = straight ? [] : named('port off');
  const target = drives.find((d) => d.role === 'target');
  const { bench, box } = scene;
  const effects: Effect[] = [
    ...movesOf(bench, box).comesOut.map((s): Effect => ({
      code: 'move back',
      item: s.id,
      to: placeBefore(box, s),
    })),
    ...chosen
      .of('port off')
      .flatMap((p): Effect[] =>
        straight || p.drive === null ? [] : [{ code: 'switch port', medium: p.drive, on: true }],
      ),
  ];
  return [
    ...(out.length + ports.length > 0
      ? [
          step(
            'install',
            'back:in',
            { code: 'put back', drives: out, ports },
            { after: ['back:stick', 'back:enrol', 'write:*', 'open:*'], effects },
          ),
        ]
      : []),
    ...(chosen.has('target first')
      ? [
          step(
            'install',
            'back:first',
            { code: 'target first', drive: target?.name ?? '' },
            {
              after: ['back:stick', 'back:in'],
              effects: target ? [{ code: 'boot first', medium: target.id }] : [],
            },
          ),
        ]
      : []),
    ...(chosen.has('stick first') && !chosen.has('target first')
      ? [
          step(
            'install',
            'back:order',
            { code: 'order back' },
            {
              after: ['back:stick', 'back:in'],
              effects: [{ code: 'boot first', medium: null }],
            },
          ),
        ]
      : []),
  ];
}

/** Opening, starting the stick, the installer, and what is put back afterwards. */
export function installSteps(scene: Scene): StepDraft[] {
  const { machine, profile } = scene;
  const opening = openingSteps(scene);
  if (!machine || !profile) return opening;
  const chosen = new Chosen(scene);
  return profile.installer === 'written straight to the final drive'
    ? [...opening, ...wholeSystem(scene, chosen), ...afterwards(scene, chosen)]
    : [...opening, ...ready(scene, chosen), ...atInstaller(scene, chosen), ...afterwards(scene, chosen)];
}
