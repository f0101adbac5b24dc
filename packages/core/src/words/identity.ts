import type { ImageIdentity } from '../model/imageIdentity';
import { formatBoth } from '../units/bytes';
import { identitySourceWords } from './origin';

/** One thing an image says of itself, and where. */
export interface IdentityLine {
  title: string;
  value: string;
  from: string;
}

/** What an image says of itself, as lines to read; nothing where it says nothing. */
export function identityLines(identity: ImageIdentity): IdentityLine[] {
  const line = (title: string, said: ImageIdentity['name']): IdentityLine[] =>
    said ? [{ title, value: said.value, from: identitySourceWords(said.from) }] : [];
  return [
    ...line('Name', identity.name),
    ...line('Version', identity.version),
    ...line('Variant', identity.variant),
    ...identity.archs.flatMap((a) => line('Built for', a)),
    ...line('Lowest x86-64 level', identity.cpuLevel),
    ...identity.kernels.flatMap((k) => line('Kernel', k)),
    ...(identity.reaches > 0
      ? [
          {
            title: 'Smallest drive',
            value: formatBoth(identity.reaches),
            from: 'the end of what its tables name',
          },
        ]
      : []),
  ];
}
