import { noPool, type BoxPool, type KeptThing } from '../model/storage';
import { moment } from './make';

const day = (n: number): string => moment(n).slice(0, 10);

/** The pool of the archive: four drives of three sizes. */
export const archivePool = (): BoxPool => ({
  ...noPool(),
  drives: ['oak-a', 'oak-b', 'loose-2t', 'loose-1t'],
  way: { manner: 'groups', shape: 'copies', level: 2, spare: false },
  filled: 0.6,
});

/** What the archive must not lose: one thing still lacks a copy elsewhere. */
export const archiveThings = (): KeptThing[] => [
  {
    id: 'scans',
    what: 'Parish scans',
    bytes: 227_633_266_688,
    copies: [
      { where: 'this pool', name: '', at: null },
      { where: 'a drive apart', name: 'scans drive, in the cupboard', at: day(1) },
    ],
    everyDays: 365,
    restored: null,
  },
];
