import { laidBox } from '../../layout/forBox';
import { innerDriveOf, isWrittenStraight, straightWay, systemDriveOf } from '../../layout/systemDrive';
import { needsDock } from '../../machine/dock';
import { layoutSteps } from '../../layout/steps';
import { storesOf, type Store } from '../../model/bench';
import { knownText } from '../../model/known';
import { placeBefore } from '../../model/opening';
import { movesOf, storesBefore } from '../../opening/moves';
import { looksAlike } from '../../rehearsal/alike';
import { fixedMode, mayEnrol } from '../../rehearsal/precautions';
import { step, type StepDraft } from '../../runsheet/step';
import type { Effect } from '../../plan/effect';
import { predictInstall } from '../../write/install';
import type { Scene } from '../scene';
import { afterwards, chainIn } from './afterwards';
import { openingSteps } from './opening';
import { aroundSteps, Chosen } from './precautions';
import { questions } from './questions';

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
  const onto = final && final.id === target?.id ? undefined : (final ?? innerDriveOf(bench, box));
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
    out.push(
      step(
        'install',
        'back:enrol',
        { code: 'enrol the key' },
        { after: ['back:stick'], effects: [{ code: 'enrol key', system: profile.id }] },
      ),
    );
  return out;
}

/** Opening, starting the stick, the installer, and what is put back afterwards. */
export function installSteps(scene: Scene): StepDraft[] {
  const { machine, profile } = scene;
  const opening = openingSteps(scene);
  if (!machine || !profile) return opening;
  const chosen = new Chosen(scene);
  return isWrittenStraight(scene.bench, scene.box)
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
