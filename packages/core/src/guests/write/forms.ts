import { zipSync } from 'fflate';
import type { GuestPlan } from '../../model/guests';
import type { Pot } from '../pot';
import { domainXml } from './domain';
import { guestsMarkdown } from './markdown';
import { networkXml } from './network';
import { seedFiles, seedIso } from './seed';

/** A file that is written: its path within the whole, and what is in it. */
export interface WrittenFile {
  path: string;
  content: string | Uint8Array;
}

/** Everything a host is given: a file for each guest and network, seeds with what is in them, and a page to read. `imageOf`: where the installer of a guest lies. */
export function guestFiles(
  plan: GuestPlan,
  pot: Pot,
  imageOf: (guestId: string) => string | null = () => null,
): WrittenFile[] {
  return [
    { path: 'guests.md', content: guestsMarkdown(plan, pot) },
    ...plan.nets
      .filter((n) => n.mode !== 'bridge')
      .map((n) => ({ path: `networks/${n.name}.xml`, content: networkXml(n) })),
    ...plan.guests.flatMap((g): WrittenFile[] => [
      { path: `guests/${g.name}.xml`, content: domainXml(plan, pot, g, imageOf(g.id)) },
      ...(g.seed
        ? [
            { path: `seeds/${g.name}-seed.iso`, content: seedIso(g) },
            ...seedFiles(g).map((f) => ({ path: `seeds/${g.name}/${f.name}`, content: f.text })),
          ]
        : []),
    ]),
  ];
}

/** All of them in one archive. */
export const guestArchive = (files: readonly WrittenFile[]): Uint8Array =>
  zipSync(
    Object.fromEntries(
      files.map((f) => [
        f.path,
        typeof f.content === 'string' ? new TextEncoder().encode(f.content) : f.content,
      ]),
    ),
    { level: 6 },
  );
