import { isImage } from '../../model/shelf';
import { contentOf } from '../../model/inspection';
import { consoleSpeed } from '../../system/consoleClass';
import { optionOf } from '../../system/options';
import { Reader } from '../../system/places';
import { machineView } from '../../system/view';
import type { Scene } from '../scene';
import type { TradeLine } from './line';

/** Console emulation is judged by the core and its graphics before a system is chosen. */
function consoles({ bench, machine, box }: Scene): TradeLine[] {
  if (!machine || box.purpose !== 'games') return [];
  const speed = consoleSpeed(new Reader(machineView(bench, machine), 'trust'));
  return [{ code: 'console speed', machine: machine.name, speed }];
}

/** New releases of hosts drop old CPUs: the one before is kept at hand. Common practice, no source. */
function earlier({ bench, profile, box }: Scene): TradeLine[] {
  if (profile?.purpose !== 'virtual machines') return [];
  const { release } = optionOf(profile, box);
  const before = profile.releases
    .filter((r) => r.id !== release.id && (r.released ?? '') < (release.released ?? '9'))
    .sort((a, b) => ((a.released ?? '') < (b.released ?? '') ? 1 : -1))[0];
  if (!before) return [];
  const image = bench.items.filter(isImage).find((i) => {
    const said = i.inspection && contentOf(i.inspection).identity;
    return said?.version?.value === before.version && profile.calls.includes(said.name?.value ?? '');
  });
  return [
    { code: 'earlier release', system: profile.name, version: before.version, image: image?.name ?? null },
  ];
}

/** Lines of the trade where a system is chosen. */
export const chooseLines = (scene: Scene): TradeLine[] => [...consoles(scene), ...earlier(scene)];
