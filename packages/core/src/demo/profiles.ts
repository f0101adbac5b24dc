import { GIB } from '../units/bytes';
import { ANY, OPEN, profile, release } from './make';

const board = { archs: ['aarch64' as const], cpuLevel: null };
const v2 = { cpuLevel: 'v2' as const };

/** Ten invented systems over all purposes. */
export const demoProfiles = [
  profile(
    'lantern-arcade',
    'Lantern Arcade',
    'games',
    'Couch and handheld games, full screen, gamepad first.',
    [
      release('7.2', {
        ...v2,
        channel: 'newest',
        released: '2026-01-20',
        supportEnd: '2027-02-01',
        oldestYear: 2012,
      }),
      release('6.8', {
        ...v2,
        released: '2025-02-11',
        supportEnd: '2028-02-11',
        oldestYear: 2010,
        newestYear: 2023,
      }),
    ],
    { cores: 2, memoryBytes: 4 * GIB, bootBytes: 16e9, graphics: true },
    {
      variants: [OPEN, { id: 'closed', name: 'closed driver', drivers: ['in-kernel', 'out-of-tree'] }],
      installer: 'written straight to the final drive',
      installMinutes: [3, 9],
      login: 'no login',
      prefers: { cores: 4, memoryBytes: 8 * GIB },
    },
  ),
  profile(
    'foxglove-cabinet',
    'Foxglove Cabinet',
    'games',
    'Old consoles on old machines; also a 32-bit build.',
    [release('3', { archs: ['x86_64', 'i686'], supportEnd: '2027-10-01' })],
    { memoryBytes: GIB, graphics: true },
    {
      variants: [ANY],
      installer: 'takes the first drive unasked',
      manner: { lists: [], confirms: 0, screen: 'text' },
      installMinutes: [2, 6],
      swap: 'none',
    },
  ),
  profile(
    'curtain-player',
    'Curtain Player',
    'film',
    'Films and slides on a projector, remote control or phone.',
    [
      release('12', {
        ...v2,
        channel: 'newest',
        released: '2026-02-02',
        supportEnd: '2027-03-01',
        oldestYear: 2010,
      }),
      release('11', {
        ...v2,
        released: '2024-05-06',
        supportEnd: '2026-12-31',
        oldestYear: 2008,
        newestYear: 2019,
      }),
      release('13 preview', { ...v2, channel: 'development', oldestYear: 2014 }),
    ],
    { cores: 2, graphics: true },
    {
      installer: 'preselects the first drive',
      manner: { lists: ['size', 'model', 'serial'], confirms: 2 },
      installMinutes: [4, 10],
      prefers: { remoteLine: true, memoryBytes: 4 * GIB },
      login: 'shipped default',
    },
  ),
  profile(
    'curtain-board',
    'Curtain Player for boards',
    'film',
    'The same player for 64-bit boards, written to a card.',
    [release('12', { ...board, channel: 'newest', supportEnd: '2027-03-01' })],
    { cores: 4, memoryBytes: GIB, firmware: ['uefi', 'board'], graphics: true },
    {
      installer: 'written straight to the final drive',
      prefers: { remoteLine: true },
      login: 'shipped default',
    },
  ),
  profile(
    'millpond-tunes',
    'Millpond Tunes',
    'music',
    'Plays the tea room’s music; controlled from any phone.',
    [release('4', { supportEnd: '2029-06-30', newestYear: 2019 })],
    { memoryBytes: GIB, bootBytes: 4e9, firmware: ['bios'] },
    {
      installer: 'written straight to the final drive',
      admin: { scheme: 'http', port: 8090, path: '/' },
      installMinutes: [2, 5],
      stickBytes: 4e9,
      login: 'shipped default',
      prefers: { memoryBytes: 8 * GIB },
      swap: 'none',
    },
  ),
  profile(
    'tidegate',
    'Tidegate',
    'firewall',
    'Keeps guests apart from the office line.',
    [
      release('3', { ...v2, released: '2025-09-01', supportEnd: '2030-09-01' }),
      release('4', { ...v2, channel: 'newest', released: '2026-02-15', supportEnd: '2027-02-15' }),
    ],
    { cores: 2, wiredPorts: 2, firmware: ['uefi'] },
    {
      admin: { scheme: 'https', port: 8443, path: '/' },
      secureBoot: 'signed',
      prefers: { wiredMbps: 1000, aes: true },
      login: 'set at install',
    },
  ),
  profile(
    'tidegate-board',
    'Tidegate for boards',
    'firewall',
    'The same gate for boards with two wired ports.',
    [release('3', { ...board, supportEnd: '2030-09-01' })],
    { cores: 4, memoryBytes: GIB, firmware: ['uefi', 'board'], wiredPorts: 2 },
    {
      admin: { scheme: 'https', port: 8443, path: '/' },
      installer: 'written straight to the final drive',
      prefers: { wiredMbps: 1000, aes: true },
    },
  ),
  profile(
    'coldstore',
    'Coldstore',
    'file store',
    'Shared folders on mirrored drives.',
    [
      release('24', { ...v2, released: '2024-10-15', supportEnd: '2028-10-15' }),
      release('25', { ...v2, channel: 'newest', released: '2025-10-20', supportEnd: '2026-11-30' }),
    ],
    { cores: 2, memoryBytes: 8 * GIB, bootBytes: 16e9, dataDrives: 2, wiredPorts: 1 },
    {
      admin: { scheme: 'https', port: 443, path: '/' },
      secureBoot: 'signed',
      networkAtInstall: true,
      layout: 'its own',
      prefers: { memoryBytes: 16 * GIB, wiredMbps: 1000 },
    },
  ),
  profile(
    'quayside-host',
    'Quayside Host',
    'virtual machines',
    'Several small systems on one machine.',
    [
      release('9', { ...v2, released: '2025-08-05', supportEnd: '2028-08-31', oldestYear: 2011 }),
      release('8', { ...v2, released: '2023-06-22', supportEnd: '2026-08-31', oldestYear: 2008 }),
    ],
    { cores: 4, memoryBytes: 16 * GIB, bootBytes: 32e9, wiredPorts: 1, virtualisation: true },
    {
      admin: { scheme: 'https', port: 8447, path: '/' },
      secureBoot: 'signed',
      networkAtInstall: true,
      layout: 'its own',
      prefers: { cores: 8, memoryBytes: 32 * GIB, aes: true },
    },
  ),
  profile(
    'harbour-desk',
    'Harbour Desk',
    'desktop',
    'A plain desktop for the booking desk.',
    [
      release('26.04', { ...v2, channel: 'newest', released: '2026-04-20', supportEnd: '2027-01-20' }),
      release('24.04', { ...v2, released: '2024-04-22', supportEnd: '2029-04-30' }),
    ],
    { cores: 2, memoryBytes: 4 * GIB, bootBytes: 25e9, graphics: true },
    {
      variants: [ANY],
      secureBoot: 'signed',
      layout: 'separate /var and /home',
      prefers: { cores: 4, memoryBytes: 8 * GIB },
      drivers: ['graphics', 'network', 'card reader', 'Bluetooth', 'audio amplifier', 'audio codec'],
    },
  ),
];
