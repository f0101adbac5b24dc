import type { Profile } from '../schema/profile';
import { GIB } from '../units/bytes';
import { profile } from './make';

/** What both systems for boards need. */
const BOARD: Partial<Profile['needs']> = {
  archs: ['aarch64'],
  firmware: ['uefi', 'board'],
  cpuLevel: null,
  cores: 4,
  memoryBytes: GIB,
  bootBytes: 8e9,
};

/** Ten invented systems over all purposes. */
export const demoProfiles = [
  profile(
    'lantern-arcade',
    'Lantern Arcade',
    '7.2',
    'games',
    'Couch and handheld games, full screen, gamepad first.',
    { cpuLevel: 'v2', cores: 2, memoryBytes: 4 * GIB, bootBytes: 16e9, graphics: 'in-kernel' },
    { installer: 'written straight to the final drive', installMinutes: [3, 9] },
  ),
  profile(
    'foxglove-cabinet',
    'Foxglove Cabinet',
    '3',
    'games',
    'Old consoles on old machines; also a 32-bit build.',
    { archs: ['x86_64', 'i686'], memoryBytes: GIB, bootBytes: 8e9, graphics: 'any driver' },
    { installer: 'takes the first drive unasked', installMinutes: [2, 6] },
  ),
  profile(
    'curtain-player',
    'Curtain Player',
    '12',
    'film',
    'Films and slides on a projector, remote control or phone.',
    { cpuLevel: 'v2', cores: 2, memoryBytes: 2 * GIB, bootBytes: 8e9, graphics: 'in-kernel' },
    {
      channel: 'development',
      installer: 'preselects the first drive',
      installMinutes: [4, 10],
      signedLoader: false,
    },
  ),
  profile(
    'curtain-board',
    'Curtain Player for boards',
    '12',
    'film',
    'The same player for 64-bit boards, written to a card.',
    { ...BOARD, graphics: 'in-kernel' },
    { installer: 'written straight to the final drive' },
  ),
  profile(
    'millpond-tunes',
    'Millpond Tunes',
    '4',
    'music',
    'Plays the tea room’s music; controlled from any phone.',
    { memoryBytes: GIB, bootBytes: 4e9, firmware: ['bios'] },
    { installer: 'written straight to the final drive', adminPort: 8090, installMinutes: [2, 5] },
  ),
  profile(
    'tidegate',
    'Tidegate',
    '3',
    'firewall',
    'Keeps guests apart from the office line.',
    { cpuLevel: 'v2', cores: 2, memoryBytes: 2 * GIB, bootBytes: 8e9, wiredPorts: 2, firmware: ['uefi'] },
    { adminPort: 8443, signedLoader: true },
  ),
  profile(
    'tidegate-board',
    'Tidegate for boards',
    '3',
    'firewall',
    'The same gate for boards with two wired ports.',
    { ...BOARD, wiredPorts: 2 },
    { adminPort: 8443, installer: 'written straight to the final drive' },
  ),
  profile(
    'coldstore',
    'Coldstore',
    '24',
    'file store',
    'Shared folders on mirrored drives.',
    { cpuLevel: 'v2', cores: 2, memoryBytes: 8 * GIB, bootBytes: 16e9, dataDrives: 2, wiredPorts: 1 },
    { adminPort: 443, signedLoader: true, networkAtInstall: true },
  ),
  profile(
    'quayside-host',
    'Quayside Host',
    '9',
    'virtual machines',
    'Several small systems on one machine.',
    { cpuLevel: 'v2', cores: 4, memoryBytes: 16 * GIB, bootBytes: 32e9, wiredPorts: 1, virtualisation: true },
    { adminPort: 8006, signedLoader: true, networkAtInstall: true },
  ),
  profile(
    'harbour-desk',
    'Harbour Desk',
    '26.04',
    'desktop',
    'A plain desktop for the booking desk.',
    { cpuLevel: 'v2', cores: 2, memoryBytes: 4 * GIB, bootBytes: 25e9, graphics: 'any driver' },
    { channel: 'newest', signedLoader: true, installer: 'asks for the drive' },
  ),
];
