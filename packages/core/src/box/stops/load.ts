import { formatBoth } from '../../units/bytes';
import { knownLine, plainStop, type StopModule } from '../stopModule';

export const load: StopModule = {
  ...plainStop('load', [8, 15], [5, 60]),
  known: ({ box, inside, profile }) => [
    ...knownLine('Purpose', box.purpose),
    ...inside.flatMap((s) => knownLine('Drive', `${s.name}, ${formatBoth(s.bytes)}`)),
    ...knownLine(
      'Two equal drives',
      profile?.needs.dataDrives === 2 && 'a mirror: half the space, survives one. It is not a backup.',
    ),
  ],
  later: {
    headline: 'What goes on it?',
    words: 'This stop will lay out pools, shares and guests; until then, note what you loaded.',
  },
};
