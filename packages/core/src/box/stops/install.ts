import { isWrittenStraight } from '../../layout/systemDrive';
import { contentTitle } from '../../model/content';
import type { Store } from '../../model/bench';
import { isStore } from '../../model/shelf';
import { claimAgainst } from '../../plan/claims';
import { holdsSystemOf } from '../../plan/medium';
import { formatIec } from '../../units/bytes';
import { laidBox } from '../../layout/forBox';
import { openingOf } from '../../opening/forBox';
import { predictInstall } from '../../write/install';
import { installLines } from '../trade/install';
import { hazard, type Hazard } from '../hazard';
import type { Scene } from '../scene';
import { plainStop, type StopModule } from '../stopModule';
import { heldHazard } from './held';

const plain = plainStop('install', [3, 6], [5, 20]);

/** Does the installer go for the first drive by itself? Undefined where it asks. */
const takes = ({ profile }: Scene): 'unasked' | 'preselected' | undefined =>
  profile?.installer === 'takes the first drive unasked'
    ? 'unasked'
    : profile?.installer === 'preselects the first drive'
      ? 'preselected'
      : undefined;

/** What the rehearsal found; undefined where there was nothing to rehearse. */
function rehearsed({ rehearsed: found, inside }: Scene): Hazard[] | undefined {
  if (!found) return undefined;
  const { tally, plan, loses, cause } = found;
  if (!tally) return [hazard('not rehearsed', 'check', 'install')];
  const { lost, again } = tally;
  const how = { cause: cause ?? '' };
  if (lost > 0) {
    const drive = plan.drives.find((d) => d.id === loses);
    const store = inside.find((s) => s.id === loses);
    return [
      hazard(
        'rehearsal loses a drive',
        'stop',
        'install',
        { ...how, drive: drive?.name ?? '', holds: store ? contentTitle(store) : '' },
        store ? { store: store.id } : {},
      ),
    ];
  }
  return again > 0 ? [hazard('rehearsal to be done again', 'note', 'install', how)] : [];
}

function hazards(scene: Scene): Hazard[] {
  const { machine, profile, inside } = scene;
  if (!machine) return [];
  const out: Hazard[] = [];
  const mine = (d: Store): boolean => holdsSystemOf(d, scene.box);
  const kept = inside.find((d) => d.fate === 'keep' && !mine(d));
  const way = takes(scene);
  // Before a system is chosen nothing could erase it yet; that it is open is said from the first moment.
  for (const d of inside.filter((x) => x.fate === 'not decided'))
    out.push(
      hazard(
        'drive not decided',
        profile ? 'stop' : 'check',
        'install',
        { drive: d.name, machine: machine.name, holds: contentTitle(d) },
        { store: d.id },
      ),
    );
  const chosen = scene.bench.items.find((i) => i.id === scene.box.layout?.driveId);
  const claim = chosen && claimAgainst(scene.bench, scene.box, chosen.id);
  if (chosen && isStore(chosen) && claim) out.push(heldHazard('install', chosen, claim));
  const { suggested, drive } = laidBox(scene.bench, scene.box);
  if (suggested && drive && profile && !isWrittenStraight(scene.bench, scene.box))
    out.push(hazard('system drive suggested', 'stop', 'install', { drive: drive.name }, { store: drive.id }));
  const found = rehearsed(scene);
  if (found) return [...out, ...found];
  if (way && kept)
    out.push(
      hazard(
        'installer takes a kept drive',
        'stop',
        'install',
        { way, drive: kept.name, machine: machine.name, holds: contentTitle(kept) },
        { store: kept.id },
      ),
    );
  else if (way && inside.length > 1)
    out.push(hazard('installer takes the first drive', 'check', 'install', { way }));
  const stopped = new Set(out.flatMap((h) => h.store ?? []));
  for (const s of inside)
    if (s.fate === 'keep' && !mine(s) && !stopped.has(s.id))
      out.push(
        hazard(
          'kept drive inside',
          'check',
          'install',
          { drive: s.name, machine: machine.name, holds: contentTitle(s) },
          { store: s.id },
        ),
      );
  return out;
}

const sum = (stores: readonly { bytes: number }[]): number => stores.reduce((n, s) => n + s.bytes, 0);

export const install: StopModule = {
  ...plain,
  // Precautions are a person's own work.
  hands: (scene) => {
    const taken = scene.rehearsed?.taken ?? [];
    const opening = openingOf(scene.bench, scene.box);
    // Where the machine is opened that is counted once, whatever is unplugged in it.
    const opened = 'code' in opening ? 0 : opening.left * 60;
    const apart = 'code' in opening ? taken : taken.filter((p) => p.kind !== 'unplug');
    const more = opened + apart.reduce((n, p) => n + p.minutes * 60, 0);
    const { low, high } = plain.hands(scene);
    return { low: low + more, high: high + more };
  },
  waiting: (scene) =>
    predictInstall(scene.bench, scene.box, laidBox(scene.bench, scene.box).drive ?? undefined)?.value ??
    plain.waiting(scene),
  hazards,
  lines: installLines,
  questions: (scene) => {
    const [open] = scene.inside.filter((s) => s.fate === 'not decided' && !s.removable);
    return open && !scene.signed('install')
      ? [`May what is on “${open.name}” be lost (${contentTitle(open) || 'empty, as far as known'})?`]
      : [];
  },
  bytesAtRisk: ({ machine, inside }) => {
    const free = inside.filter((s) => s.fate !== 'keep');
    const kept = inside.filter((s) => s.fate === 'keep');
    return [
      {
        label: machine ? `In ${machine.name}` : 'In the machine',
        value: formatIec(sum(free)),
        because: free.map((s) => `“${s.name}” ${formatIec(s.bytes)}`).join(', ') || 'no drive is known in it',
      },
      {
        label: 'Marked to keep',
        value: formatIec(sum(kept)),
        because:
          kept.map((s) => `“${s.name}”: ${contentTitle(s) || 'empty, as far as known'}`).join(', ') ||
          'nothing in the machine is marked to keep',
      },
    ];
  },
};
