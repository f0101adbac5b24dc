import type { Sharing } from '../model/sharing';
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

/** Folders of the archive: the group writes its scans, the hall reads them, the reading room is for everybody who comes. */
export const archiveSharing = (): Sharing => ({
  name: null,
  workgroup: 'WORKGROUP',
  users: [
    { id: 'u-group', name: 'group', full: 'local-history group' },
    { id: 'u-warden', name: 'warden', full: 'warden of the hall' },
  ],
  folders: [
    {
      id: 'archive',
      name: 'archive',
      path: '/srv/pool/archive',
      protocols: ['smb', 'nfs'],
      read: ['u-warden'],
      write: ['u-group'],
      guests: 'none',
      oneCase: true,
      binDays: 30,
    },
    {
      id: 'scans',
      name: 'scans',
      path: '/srv/pool/scans',
      protocols: ['smb'],
      read: [],
      write: ['u-group', 'u-warden'],
      guests: 'none',
      oneCase: true,
      binDays: 30,
    },
    {
      id: 'reading-room',
      name: 'reading room',
      path: '/srv/pool/reading',
      protocols: ['smb', 'web'],
      read: [],
      write: ['u-group'],
      guests: 'read',
      oneCase: true,
      binDays: null,
    },
  ],
  from: ['10.44.8.0/24'],
  links: [{ id: 'l-maps', at: '/srv/pool/reading/maps', to: '/srv/pool/archive/maps', by: 'mount' }],
});
