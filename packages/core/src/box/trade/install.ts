import { laidBox } from '../../layout/forBox';
import type { Scene } from '../scene';
import type { TradeLine } from './line';

/** Lines of the trade at the installer, by what its profile says of it. */
export function installLines(scene: Scene): TradeLine[] {
  const { bench, box, machine, profile, target } = scene;
  if (!machine || !profile || profile.installer === 'written straight to the final drive') return [];
  const { manner } = profile;
  const system = profile.name;
  const goesTo = laidBox(bench, box).drive;
  const wired = scene.fact('network.wired');
  const arch = scene.fact('cpu.arch');
  return [
    ...(goesTo?.removable && target && goesTo.id !== target.id
      ? [{ code: 'two sticks' as const, from: target.name, to: goesTo.name }]
      : []),
    ...(manner.confirms === 0 ? [{ code: 'erases unasked' as const, system }] : []),
    ...(manner.confirms > 1 ? [{ code: 'asks several times' as const, system, times: manner.confirms }] : []),
    ...(profile.networkAtInstall
      ? [
          {
            code: 'network while installing' as const,
            system,
            wired: typeof wired === 'number' ? wired : null,
          },
        ]
      : []),
    ...(manner.asksArchitecture
      ? [{ code: 'processor asked again' as const, system, arch: typeof arch === 'string' ? arch : null }]
      : []),
    ...(manner.basicGraphics ? [{ code: 'basic graphics' as const, system }] : []),
    ...(manner.screen === 'text'
      ? [{ code: 'works over a console' as const, system, machine: machine.name }]
      : []),
    ...(manner.ends === 'restarts by itself' ? [{ code: 'restarts by itself' as const, system }] : []),
    ...(manner.loader === null ? [{ code: 'loader not seen' as const, system }] : []),
  ];
}
