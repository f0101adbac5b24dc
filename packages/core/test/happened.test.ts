import fc from 'fast-check';
import { agrees, happened, type Heard } from '@zb/core/starting/happened';
import { plainTerminal } from '@zb/core/units/terminal';
import { trialHappened } from '@zb/core/model/trial';
import { runs } from './runs';

const bios = (debug: string, screen: string | null, serial = ''): Heard => ({
  firmware: 'bios',
  debug,
  serial,
  screen,
});
const uefi = (serial: string): Heard => ({ firmware: 'uefi-x64', debug: '', serial, screen: null });
const HANDS = 'Booting from Hard Disk...\nBooting from 0000:7c00\n';
const entry = (did: string, name: string, why = ''): string =>
  `BdsDxe: ${did} Boot0001 "${name}" from PciRoot(0x0)/Pci(0x3,0x0)/USB(0x0,0x0)${why}\r\n`;
const MINE = 'UEFI USB HARDDRIVE 1';
const SHELL = 'EFI Internal Shell';

// Texts as the emulator’s firmware was seen to print them; each case is one that was started (tests/oracle/trials).
it.each<[string, Heard, (typeof trialHappened)[number]]>([
  ['BIOS at work', bios('SeaBIOS\n', 'SeaBIOS'), 'not seen'],
  [
    'BIOS found nothing',
    bios('Boot failed: not a bootable disk\nNo bootable device.\n', 'x'),
    'found nothing',
  ],
  ['nothing since it handed over', bios(HANDS, 'SeaBIOS\nBooting from Hard Disk...'), 'silent'],
  ['a line on the screen', bios(HANDS, 'Booting from Hard Disk...\n\nit speaks'), 'started'],
  ['a picture on the screen', bios(HANDS, null), 'started'],
  ['a line on the serial line', bios(HANDS, 'Booting from Hard Disk...', 'hello'), 'started'],
  ['boot code that gave up', bios(HANDS, 'Booting from Hard Disk...\nMissing operating system'), 'gave up'],
  [
    'boot code of a volume without a system',
    bios(
      HANDS,
      'Booting from Hard Disk...\nThis is not a bootable disk.  Please insert a bootable floppy and\npress any key to try again ...',
    ),
    'gave up',
  ],
  [
    'a first stage that is called for again and again',
    bios(HANDS, 'Booting from Hard Disk...\nGRUB GRUB GRUB GRUB'),
    'gave up',
  ],
  ['a first stage that gave its name alone', bios(HANDS, 'Booting from Hard Disk...\nGRUB '), 'silent'],
  [
    'a first stage and its second',
    bios(HANDS, 'Booting from Hard Disk...\nGRUB loading.\nWelcome to GRUB!'),
    'started',
  ],
  ['boot code that went back', bios(`${HANDS}No bootable device.\n`, 'x'), 'gave up'],
  ['a loader at its prompt', bios(HANDS, 'Booting from Hard Disk...\ngrub rescue> '), 'gave up'],
  [
    'modules that are wanting and not wanted',
    bios(HANDS, "Booting from Hard Disk...\nerror: file `/a.mod' not found."),
    'started',
  ],
  ['UEFI at work', uefi(''), 'not seen'],
  ['UEFI started it', uefi(entry('loading', MINE) + entry('starting', MINE)), 'started'],
  [
    'UEFI found no loader',
    uefi(entry('failed to load', MINE, ': Not Found') + entry('starting', SHELL)),
    'found nothing',
  ],
  ['Secure Boot refused it', uefi(entry('failed to load', MINE, ': Access Denied')), 'refused'],
  [
    'Secure Boot refused the shell alone',
    uefi(
      entry('failed to load', MINE, ': Not Found') + entry('failed to start', SHELL, ': Security Violation'),
    ),
    'found nothing',
  ],
  ['a program that went back', uefi(entry('starting', MINE) + entry('starting', SHELL)), 'gave up'],
  ['a loader at its prompt under UEFI', uefi(`${entry('starting', MINE)}grub> `), 'gave up'],
])('%s', (_, heard, what) => {
  expect(happened(heard)).toBe(what);
});

it('is not changed by a terminal’s movements', () => {
  const esc = String.fromCharCode(27);
  const moved = entry('starting', MINE).replace('starting', `${esc}[1mstarting${esc}[0m`);
  expect(plainTerminal(moved)).toBe(entry('starting', MINE));
  expect(happened(uefi(`${esc}[2J${esc}[01;01H${esc}[=3h${moved}`))).toBe('started');
});

it('takes whatever it hears', () => {
  fc.assert(
    fc.property(fc.string(), fc.string(), fc.option(fc.string()), (debug, serial, screen) => {
      expect(trialHappened).toContain(happened(bios(debug, screen, serial)));
      expect(trialHappened).toContain(happened(uefi(serial)));
    }),
    { numRuns: runs(200) },
  );
});

it('disagrees only where both say something', () => {
  expect(agrees('yes', 'started')).toBe(true);
  expect(agrees('no', 'started')).toBe(false);
  for (const h of ['found nothing', 'refused', 'gave up'] as const) {
    expect(agrees('yes', h)).toBe(false);
    expect(agrees('no', h)).toBe(true);
  }
  // What starts may be silent for long.
  expect([agrees('yes', 'silent'), agrees('no', 'silent')]).toEqual([null, true]);
  for (const f of ['yes', 'no', 'unknown', null] as const) expect(agrees(f, 'not seen')).toBe(null);
  expect(agrees('unknown', 'started')).toBe(null);
});
