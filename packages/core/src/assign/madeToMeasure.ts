import type { MachineView } from '../system/view';
import type { Profile } from '../model/profile';
import type { Wish } from '../model/wish';
import type { Scene } from './scene';

/** A machine made to measure: all that the first release of the profile needs, and what the wish asks of the place. */
export function madeToMeasure(profile: Profile, wish: Wish): Scene['machines'][number] | undefined {
  const [release] = profile.releases;
  const [arch] = release?.archs ?? [];
  if (!release || arch === undefined) return undefined;
  const { needs } = profile;
  const drive = (name: string, bytes: number): MachineView['drives'][number] => ({
    name,
    bytes,
    transport: 'sata',
    removable: false,
    fate: 'may be lost',
  });
  return {
    id: `wanted-${wish.id}`,
    name: 'another machine',
    facts: {
      'cpu.arch': arch,
      'cpu.bits': arch === 'i686' || arch === 'armv7l' ? '32' : '64',
      'cpu.level': release.cpuLevel ?? 'v1',
      'cpu.cores': needs.cores,
      'cpu.year': release.newestYear ?? Math.max(release.oldestYear ?? 0, 2018),
      'cpu.virtualisation': true,
      'cpu.aes': true,
      'memory.bytes': needs.memoryBytes,
      'graphics.family': profile.variants[0]?.drivers[0] ?? 'in-kernel',
      'firmware.mode': needs.firmware[0] ?? 'uefi',
      'firmware.secureBoot': 'off',
      'network.wired': needs.wiredPorts,
      'network.wireless': 1,
      'ports.drives': needs.dataDrives + 1,
      'body.noise': 'silent',
      'power.idle': 4,
      'power.battery': true,
      'display.remote': true,
      'display.portrait': true,
    },
    drives: [
      drive('boot', needs.bootBytes),
      ...Array.from({ length: needs.dataDrives }, () => drive('data', 1e12)),
    ],
    parts: [],
  };
}
