import { laidBox } from '../../layout/forBox';
import { innerDriveOf, straightWay, systemDriveOf } from '../../layout/systemDrive';
import { needsDock } from '../../machine/dock';
import { layoutSteps } from '../../layout/steps';
import { hostsOfBox, storesOf, type Store } from '../../model/bench';
import { knownText } from '../../model/known';
import { openingOf } from '../../opening/forBox';
import { movesOf, placeBefore, storesBefore } from '../../opening/moves';
import { looksAlike } from '../../rehearsal/alike';
import { fixedMode, mayEnrol } from '../../rehearsal/precautions';
import type { InstallerQuestion } from '../../model/installer';
import { step, type Must, type StepDraft } from '../../runsheet/step';
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

/** What hangs on USB of the machine beside the installer's stick when it is started: what is in, and what is plugged in before. */
function besideStick({ bench, box, machine, target }: Scene): string[] {
  if (!machine) return [];
  const final = systemDriveOf(bench, box);
  const on = storesBefore(bench, box, machine.id);
  const all = [
    ...on,
    ...(final ? [final] : []),
    ...storesOf(bench).filter((s) => s.id === box.chain?.stickId),
  ];
  return [...new Set(all)]
    .filter((s) => s.id !== target?.id && (s.kind === 'stick' || s.transport === 'usb'))
    .map((s) => s.name);
}

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
        dock: machine !== undefined && needsDock(machine),
        others: besideStick(scene),
      },
      {
        after: [
          ...['write:*', 'setup:*', 'label:*', 'save:*', 'choose:*', 'open:*'],
          ...['start:away:*', 'start:power', 'start:wire', 'start:target'],
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
        form: machine?.form ?? '',
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

/**
 * A whole system that is written to a stick: started from it, and copied onto the drive inside where there is one. One that is
 * written to its final medium boots from there.
 */
function wholeSystem(scene: Scene, chosen: Chosen): StepDraft[] {
  const { bench, box, target } = scene;
  const way = straightWay(bench, box);
  if (way === 'card' || way === 'external drive') return plugIn(scene, systemDriveOf(bench, box));
  if (way !== 'stick') return [];
  const final = systemDriveOf(bench, box);
  const onto = final?.id === target?.id && final ? undefined : (final ?? innerDriveOf(bench, box));
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
              effects: final ? [{ code: 'install', medium: final.id }] : [],
            },
          ),
          step(
            'install',
            'back:stick',
            { code: 'stick out', ends: 'asks for a restart', stick: target?.name ?? '' },
            { after: ['inst:copy'], effects: stickOut(scene) },
          ),
        ]
      : []),
  ];
}

/** A medium that hangs on a port or sits in a card slot, and that the system runs from, is plugged into the machine. */
function plugIn({ box, machine }: Scene, medium: Store | undefined): StepDraft[] {
  if (!medium || !machine || (medium.kind === 'drive' && medium.transport !== 'usb')) return [];
  if (placeBefore(box, medium) === machine.id) return [];
  return [
    step(
      'install',
      'start:target',
      {
        code: 'plug the medium in',
        medium: medium.name,
        serial: medium.serial,
        kind: medium.kind,
        dock: needsDock(machine),
      },
      {
        after: ['write:*', 'setup:*', 'label:*', 'save:*', 'choose:*', 'open:*'],
        effects: [{ code: 'move', item: medium.id, to: machine.id }],
      },
    ),
  ];
}

/** What is to be typed at a question of the installer, as far as it is decided; null where nobody has said. */
function answerTo({ bench, box }: Scene, question: InstallerQuestion): string | null {
  const [host] = hostsOfBox(bench, box.id);
  switch (question) {
    case 'address':
      return host?.address ?? null;
    case 'host name':
      return host?.label ?? null;
    case 'edition':
      return box.first?.set['set of software'] ?? null;
    // It is never kept here.
    case 'password':
    case 'disk':
      return null;
    default:
      return box.first?.set[question] ?? null;
  }
}

/** The questions of this installer as steps, at the moment it asks them: before its list of drives, and after it. */
function questions(scene: Scene): { before: StepDraft[]; after: StepDraft[] } {
  const asks = scene.profile?.manner.asks ?? [];
  const disk = asks.indexOf('disk');
  let previous = 'start:go';
  const all = asks.map((question, i): StepDraft | null => {
    if (question === 'disk') {
      previous = 'inst:drive';
      return null;
    }
    const key = `inst:ask:${question}`;
    const after = [
      previous,
      ...(disk >= 0 && i > disk ? ['inst:layout'] : []),
      ...(question === 'address' ? ['net:free:*'] : []),
    ];
    previous = key;
    const must: Must[] =
      question === 'address' ? [{ code: 'address is settled', of: scene.box.name, id: scene.box.id }] : [];
    return step(
      'install',
      key,
      { code: 'answer', question, value: answerTo(scene, question) },
      { after, must, asks: question === 'password' ? null : 'words' },
    );
  });
  const steps = (from: number, to: number): StepDraft[] => all.slice(from, to).filter((s) => s !== null);
  return disk < 0
    ? { before: steps(0, all.length), after: [] }
    : { before: steps(0, disk), after: steps(disk, all.length) };
}

/** Drives that must be kept: those that are in the machine while it is installed, and whether others were taken out for it. */
function keptAround(
  { bench, box, machine }: Scene,
  target: Store | undefined,
): { kept: string[]; out: boolean } {
  if (!machine) return { kept: [], out: false };
  const { comesOut, makesRoom } = movesOf(bench, box);
  const matter = storesBefore(bench, box, machine.id).filter(
    (s) => s.id !== target?.id && s.fate !== 'may be lost',
  );
  const gone = new Set([...comesOut, ...makesRoom].map((s) => s.id));
  return {
    kept: matter.filter((s) => !gone.has(s.id)).map((s) => s.name),
    out: matter.some((s) => gone.has(s.id)),
  };
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
  const asked = questions(scene);
  const out: StepDraft[] = [
    ...startSteps(scene, chosen),
    ...asked.before,
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
        kept: keptAround(scene, drive).kept,
        alike:
          plan && goesTo
            ? looksAlike(plan)
                .filter((d) => d.id !== goesTo.id)
                .map((d) => d.name)
            : [],
      },
      {
        after: ['start:go', ...asked.before.map((s) => s.key)],
        must: [
          {
            code: 'medium is chosen',
            of: 'the drive that takes the system',
            id: systemDriveOf(bench, box)?.id ?? null,
          },
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
  out.push(...asked.after);
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
      {
        code: 'let it install',
        system: profile.name,
        staysWith: manner.ends === 'restarts by itself',
        ...keptAround(scene, drive),
      },
      {
        after: ['inst:drive', 'inst:layout', 'inst:yes', 'inst:ask:*'],
        effects: drive && !laid.suggested ? [{ code: 'install', medium: drive.id }] : [],
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
    ...(chosen.has('target first') && box.chain === null
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

/** A chain loader's stick goes in once the system is on, stays in, and stands first in the boot order. */
function chainIn({ bench, box, machine }: Scene): StepDraft[] {
  const stick = storesOf(bench).find((s) => s.id === box.chain?.stickId);
  if (!stick || !machine) return [];
  return [
    step(
      'install',
      'back:chain',
      { code: 'chain stick in', stick: stick.name, serial: stick.serial },
      {
        after: ['write:chain', 'back:stick', 'back:in'],
        effects: [{ code: 'move', item: stick.id, to: machine.id }],
      },
    ),
    step(
      'install',
      'back:chain first',
      { code: 'chain stick first', stick: stick.name },
      { after: ['back:chain'], effects: [{ code: 'boot first', medium: stick.id }] },
    ),
  ];
}

/** Opening, starting the stick, the installer, and what is put back afterwards. */
export function installSteps(scene: Scene): StepDraft[] {
  const { machine, profile } = scene;
  const opening = openingSteps(scene);
  if (!machine || !profile) return opening;
  const chosen = new Chosen(scene);
  return profile.installer === 'written straight to the final drive'
    ? [...opening, ...wholeSystem(scene, chosen), ...afterwards(scene, chosen), ...chainIn(scene)]
    : [
        ...opening,
        ...plugIn(scene, systemDriveOf(scene.bench, scene.box)),
        ...ready(scene, chosen),
        ...atInstaller(scene, chosen),
        ...afterwards(scene, chosen),
        ...chainIn(scene),
      ];
}
