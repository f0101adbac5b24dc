import type { DriveThere } from '../../model/layout';
import type { Layout } from '../laid';
import { shellWord } from './shell';

/**
 * The layout as commands of `sgdisk` (its manual): parts that go are deleted and new ones made, so that those that stay
 * are not touched. Empty where the table is not GPT.
 */
export function sgdiskCommands(layout: Layout, drive: DriveThere, device: string): string[] {
  if (layout.table !== 'gpt') return [];
  const { sectorSize } = layout;
  const stays = layout.parts.filter((p) => p.fate !== 'new');
  const anew = stays.length === 0;
  const gone = anew ? [] : drive.parts.filter((p) => !stays.some((s) => s.number === p.number));
  const options = [
    ...(anew ? ['--zap-all'] : []),
    ...gone.map((p) => `--delete=${p.number}`),
    ...layout.parts.flatMap((p) => {
      if (p.fate === 'kept') return [];
      const end = (p.start + p.bytes) / sectorSize - 1;
      const make = [
        ...(p.fate === 'made smaller' ? [`--delete=${p.number}`] : []),
        `--new=${p.number}:${p.start / sectorSize}:${end}`,
        `--typecode=${p.number}:${p.type}`,
        ...(p.name === '' ? [] : [`--change-name=${p.number}:${p.name}`]),
        ...(p.uuid ? [`--partition-guid=${p.number}:${p.uuid}`] : []),
      ];
      return make;
    }),
  ];
  const [first = '', ...rest] = options;
  // Clearing an old table is an act of its own: the drive is read anew after it.
  return anew
    ? [
        `sgdisk ${first} ${shellWord(device)}`,
        `sgdisk --clear --set-alignment=1 ${rest.map(shellWord).join(' ')} ${shellWord(device)}`,
      ]
    : [`sgdisk --set-alignment=1 ${options.map(shellWord).join(' ')} ${shellWord(device)}`];
}
