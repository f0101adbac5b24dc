import { isWrittenStraight } from '../../layout/systemDrive';
import { hasBattery } from '../../machine/power';
import { knownText } from '../../model/known';
import { fixedMode } from '../../rehearsal/precautions';
import { step, type StepDraft } from '../../runsheet/step';
import { factOfSetting, madeSetting } from '../../runsheet/settingFact';
import type { Effect } from '../../plan/effect';
import type { SettingName, StepWhat } from '../../runsheet/what';
import { serves } from '../../system/serves';
import type { Scene } from '../scene';
import { startChanges } from '../startChanges';
import { Chosen } from './precautions';

interface Change {
  setting: SettingName;
  of: string | null;
  /** Of which drive, by its id; names are long and change. */
  id: string | null;
  from: string | null;
  to: string;
}

/** Settings that the decisions want otherwise than they are, or than anybody knows them to be. */
function changesOf(scene: Scene, chosen: Chosen): Change[] {
  const { machine, profile, judged, rehearsed } = scene;
  if (!machine || !profile) return [];
  const out: Change[] = [];
  const add = (
    setting: SettingName,
    to: string,
    from: string | null,
    of: string | null = null,
    id: string | null = null,
  ): void => void out.push({ setting, of, id, from, to });
  const wants = (fact: string): boolean =>
    judged?.repairs.some((r) => r.kind === 'setting' && r.set === fact) ?? false;
  const changes = startChanges(scene);
  if (changes.secureBoot) add('Secure Boot', 'off', knownText(machine, 'firmware.secureBoot'));
  const mode = knownText(machine, 'firmware.mode');
  const repair = judged?.repairs.find((r) => r.kind === 'setting' && r.set === 'firmware.mode');
  if (changes.mode) {
    const to = repair?.kind === 'setting' ? repair.value : rehearsed && fixedMode(rehearsed.plan);
    add('boot mode', to === 'bios' ? 'BIOS' : 'UEFI', mode === null ? null : mode.toUpperCase());
  }
  if (scene.fact('firmware.graphicsMemory') === 'fixed' || wants('firmware.graphicsMemory'))
    add('graphics memory', 'automatic', knownText(machine, 'firmware.graphicsMemory'));
  if (profile.needs.virtualisation && scene.fact('cpu.virtualisation') !== true)
    add('virtualisation', 'on', null);
  if (serves(profile.purpose)) {
    const cut = knownText(machine, 'firmware.afterPowerCut');
    if (cut !== 'on') add('after a power cut', 'on', cut);
    const halts = knownText(machine, 'firmware.haltsOn');
    if (halts === 'missing keyboard or display') add('halt on errors', 'none', halts);
  }
  const straight = isWrittenStraight(scene.bench, scene.box);
  for (const p of straight ? [] : chosen.of('port off')) {
    const drive = rehearsed?.plan.drives.find((d) => d.id === p.drive);
    if (drive) add('port of a drive', 'off', 'on', drive.name, drive.id);
  }
  if (chosen.has('stick first')) {
    const order = scene.fact('firmware.order');
    add('boot order', 'the stick first', Array.isArray(order) ? order.join(', ') : null);
  }
  return out;
}

const SET = 'setup:set:';

/** Settings that were made already and are as they are wanted now: what is done stays on the sheet. */
function madeOf(
  { box }: Scene,
  open: readonly string[],
): { key: string; what: Extract<StepWhat, { code: 'set' }>; id: string | null }[] {
  return Object.entries(box.run?.steps ?? {}).flatMap(([key, { as, noted }]) => {
    const what = key.startsWith(SET) && !open.includes(key) ? madeSetting(as, noted) : null;
    return what ? [{ key, what, id: key.split(':')[3] ?? null }] : [];
  });
}

/** What is true of the hardware once a setting is made; `id` is of the drive whose port it is. */
function effectsOf(
  what: Extract<StepWhat, { code: 'set' }>,
  id: string | null,
  stick: string | null,
): Effect[] {
  if (what.setting === 'port of a drive')
    return id === null ? [] : [{ code: 'switch port', medium: id, on: false }];
  if (what.setting === 'boot order') return stick === null ? [] : [{ code: 'boot first', medium: stick }];
  const made = factOfSetting(what);
  return made ? [{ code: 'set fact', ...made }] : [];
}

const AFTER = ['gather:*', 'choose:*', 'save:*', 'open:*'];

/** Setup entered once, every setting written down before it is changed, and the key of the menu tried. */
export function firmwareSteps(scene: Scene): StepDraft[] {
  const { machine, profile } = scene;
  if (!machine || !profile || scene.fact('firmware.mode') === 'board') return [];
  const chosen = new Chosen(scene);
  const wanted = changesOf(scene, chosen).map(({ id, ...c }) => ({
    key: `${SET}${c.setting}${id === null ? '' : `:${id}`}`,
    what: { code: 'set' as const, ...c },
    id,
  }));
  const keys = wanted.map((w) => w.key);
  const setupKey = knownText(machine, 'firmware.setupKey');
  const battery = hasBattery(machine);
  return [
    step(
      'firmware',
      'setup:enter',
      { code: 'enter setup', machine: machine.name, key: setupKey, form: machine.form },
      { after: AFTER, must: battery ? [] : [{ code: 'machine is off', of: machine.name, id: machine.id }] },
    ),
    ...[...wanted, ...madeOf(scene, keys)].map(({ key, what, id }) =>
      step('firmware', key, what, {
        after: ['setup:enter'],
        effects: effectsOf(what, id, scene.target?.id ?? null),
        hurts:
          what.setting === 'boot mode' || what.setting === 'boot order'
            ? ['the old system may not start']
            : [],
      }),
    ),
    step(
      'firmware',
      'setup:save',
      { code: 'save and leave', form: machine.form },
      { after: ['setup:enter', 'setup:set:*'] },
    ),
    ...(chosen.has('key')
      ? [
          step(
            'firmware',
            'setup:key',
            { code: 'try the menu key', key: knownText(machine, 'firmware.menuKey'), form: machine.form },
            { after: ['setup:save'] },
          ),
        ]
      : []),
  ];
}
