import type { Supply } from '../../machine/power';
import type { InstallerQuestion } from '../../model/installer';
import type { SettingName } from '../../runsheet/what';
import { STICK_OUT } from '../../write/after';
import { formatBoth } from '../../units/bytes';
import { layoutStepWords } from '../layout';
import { openingStepWords } from '../opening';
import { capital, list } from '../text';
import { quoted, serialLine, words, type Say } from './say';

/** Keys that open setup or the menu where nobody knows the one. Common practice, no source. */
const SETUP_KEYS = 'Delete, Esc, F1, F2 or F10';
const MENU_KEYS = 'Esc, F7, F8, F9, F11 or F12';
/** A handheld has no keyboard: its menu opens with a volume key held. Common practice, no source. */
const menuWay = (key: string | null, form: string): string =>
  form === 'handheld' ? (key ?? 'hold volume-down, then press power once') : `tap ${key ?? MENU_KEYS}`;

/** What an installer asks for, as it is said here. */
const QUESTION: Record<InstallerQuestion, string> = {
  language: 'Language',
  keyboard: 'Keyboard',
  zone: 'Time zone',
  edition: 'Edition or set of software',
  disk: 'Disk',
  'host name': 'Host name',
  user: 'User',
  password: 'Password',
  address: 'Network address',
};
const QUESTION_HINT: Partial<Record<InstallerQuestion, string>> = {
  keyboard: 'Type the signs of your password into a visible field first.',
  password: 'Write it on paper before you type it.',
  user: 'A local user; no account of a third party.',
};

/** What must be kept and is in, or was taken out, where something goes wrong. */
const keptWords = (kept: readonly string[], out: boolean): string =>
  kept.length > 0
    ? ` In the machine, and to be kept: ${kept.map((k) => `“${k}”`).join(', ')}.`
    : out
      ? ' The kept drives are out.'
      : '';

const WHY: Record<SettingName, string> = {
  'Secure Boot': 'What is started is not signed by a key this firmware knows.',
  'boot mode':
    'The image starts in this mode, and what is installed in one mode does not start in the other.',
  'boot order':
    'The stick is started by the order, not by the menu. Left in, it starts again at the restart.',
  'graphics memory': 'The system shares the memory out by itself.',
  'after a power cut': 'Without it the box stays off until somebody comes.',
  'halt on errors': 'Nobody will plug a keyboard into it for years.',
  virtualisation: 'Guests do not start without it.',
  'port of a drive': 'What the installer does not see it cannot take.',
};
const settingTitle = (setting: SettingName, of: string | null): string =>
  setting === 'port of a drive' ? `Port of “${of ?? ''}”` : setting;

const MODE = { uefi: 'UEFI', bios: 'BIOS', board: 'the board’s own loader' } as const;

/** How a machine is without power before a hand goes in, by what feeds it. */
const OFF: Record<Supply, string> = {
  inside: 'Off, mains out',
  external: 'Off, the supply’s plug out of the machine',
  battery: 'Off, charger out, and the battery’s plug out before anything else',
};

/** Steps with the machine in hand: opening, setup, installer. */
export const machineWords = {
  open: ({ what, machine }) => {
    const { title, because } = openingStepWords(what);
    return words(title, {
      why: because,
      see:
        what.code === 'look in setup'
          ? 'Each drive by its name and size.'
          : `${machine} before you, as you photographed it.`,
      wrong:
        what.code === 'look in setup'
          ? 'One is not listed: off, and look at its plug first. What is on it is unharmed.'
          : 'Anything you cannot name: stop, and look at the photo.',
    });
  },
  'enter setup': ({ machine, key, form }) =>
    words(
      form === 'handheld'
        ? `Into setup: ${key ?? 'hold volume-up, then press power once'}`
        : `Switch ${machine} on, and tap ${key ?? SETUP_KEYS}`,
      {
        lines: [
          form === 'handheld'
            ? 'Keep holding until the small menu appears, about six seconds. Choose setup, not the boot menu.'
            : 'Tap twice a second from the moment of power-on, until setup is there.',
          'Photograph every page before you change anything.',
        ],
        exact: key === null ? [] : [{ label: 'Setup key', text: key }],
        why: 'A setting that nobody wrote down cannot be put back.',
        see: `${machine}’s own setup, with its name or board number: if it is another machine’s, stop here.`,
        wrong:
          'The old system starts instead: the key was missed. Off, and once more, earlier. Nothing has changed.',
      },
    ),
  set: ({ setting, of, from, to }) =>
    words(`${capital(settingTitle(setting, of))}: ${to}`, {
      lines: ['Note how it reads now, then change it.'],
      change: { from: from ?? 'as it reads', to },
      why: WHY[setting],
      see: `It reads ${to}.`,
      wrong:
        setting === 'Secure Boot'
          ? 'It cannot be changed: set a firmware password first, or look for “other operating system”.'
          : 'It is not there: some firmware shows it under “advanced”, some not at all. Note that.',
    }),
  'save and leave': ({ form }) =>
    words('Save, and power off at the black screen', {
      lines: [
        form === 'handheld'
          ? 'Save and leave by its menu, then hold power until it is off.'
          : 'Save and leave, usually F10, then hold power until it is off.',
      ],
      exact: form === 'handheld' ? [] : [{ label: 'Key', text: 'F10' }],
      why: 'Left without saving, every setting is as before.',
      see: 'A question whether to save; then a restart.',
    }),
  'try the menu key': ({ key, form }) =>
    words(`Try the one-time menu once: ${form === 'handheld' ? menuWay(key, form) : (key ?? MENU_KEYS)}`, {
      lines: ['Switch on with the key, look at the menu, leave it again. Note the key that worked.'],
      exact: key === null ? [] : [{ label: 'Menu key', text: key }],
      why: 'A key that is missed with the stick in starts the old system.',
      see: 'A short list of what can be started.',
      wrong: 'The old system starts: another key, or earlier. Nothing has changed.',
    }),
  'put away': ({ drive, serial }) =>
    words(`Put “${drive}” away`, {
      lines: ['Out of its port and off the table.'],
      exact: serialLine(serial),
      why: 'The installer cannot take what is not there.',
      see: 'It is not on the bench any more.',
    }),
  'secure the power': ({ machine }) =>
    words(`Make the power of ${machine} certain`, {
      lines: ['Battery in and charged, or a buffered socket; tape over the switch.'],
      why: 'A cut in the middle leaves a drive half written.',
      see: 'A charged battery, or the lamp of the buffer.',
    }),
  'wire in': () =>
    words('Plug the network wire in', {
      why: 'The installer fetches what it needs.',
      see: 'The light at the socket.',
      wrong: 'No light: another wire, another socket.',
    }),
  'plug the medium in': ({ medium, serial, kind, dock }) =>
    words(kind === 'card' ? `Put “${medium}” into the card slot` : `Plug “${medium}” in`, {
      lines: [
        'The system runs from it: it stays in.',
        ...(kind === 'card'
          ? []
          : [dock ? 'It goes into the dock.' : 'Into a port on the board itself, not a hub.']),
      ],
      exact: serialLine(serial),
      see: 'It is the one whose serial or label you wrote down.',
    }),
  'stick in': ({ stick, serial, dock, others }) =>
    words(`${dock ? 'Dock on, ' : ''}${quoted(stick, dock ? 'stick' : 'Stick')} in`, {
      lines: [
        dock
          ? 'Power goes into the dock, the stick into its quickest port.'
          : 'Into a port on the board itself, not a hub.',
      ],
      exact: serialLine(serial),
      why:
        others.length === 0
          ? 'It is the only stick in the machine.'
          : `In the machine as well: ${others.map((o) => `“${o}”`).join(', ')}. Tell them apart by the serial.`,
      see: 'Its light, where it has one.',
    }),
  'start the stick': ({ by, key, form, mode, stick, basicGraphics }) =>
    words(
      by === 'menu' ? `Switch on, ${menuWay(key, form)}, take the stick` : 'Switch on: the stick goes first',
      {
        lines: [
          ...(by === 'menu'
            ? [
                mode === 'uefi'
                  ? 'Take the line of the stick that says UEFI, the first part of it.'
                  : mode === 'bios'
                    ? 'Take the line of the stick without UEFI.'
                    : 'Take the line of the stick.',
              ]
            : []),
          ...(basicGraphics ? ['Black for two minutes? Off, and take the entry with basic graphics.'] : []),
        ],
        exact: [
          ...(key !== null && by === 'menu' ? [{ label: 'Menu key', text: key }] : []),
          ...(mode === null ? [] : [{ label: 'Mode', text: MODE[mode] }]),
        ],
        why:
          by === 'menu'
            ? 'The order stays untouched, so nothing has to be set back.'
            : 'The order was set to it.',
        see: `The first screen of what is on ${quoted(stick, 'the stick')}.`,
        wrong: 'The old system starts: off at once, the key was missed. Nothing has been written.',
      },
    ),
  'chain stick in': ({ stick, serial }) =>
    words(`Plug “${stick}” in, and leave it in`, {
      lines: ['Into a port on the board itself, not a hub. It stays in for good.'],
      exact: serialLine(serial),
      why: 'The firmware boots it, and it goes on to the drive that the firmware cannot boot.',
      see: 'Its label, and its light where it has one.',
    }),
  'chain stick first': ({ stick }) =>
    words(`Put “${stick}” first in the boot order`, {
      lines: ['Into setup, boot order: the chain loader before all others. Save and leave.'],
      why: 'Every start goes over it.',
      see: 'Its menu for a few seconds, then the new system.',
      wrong: 'Another system boots: look at the order once more. Nothing has been written.',
    }),
  answer: ({ question, value }) =>
    words(`At “${QUESTION[question]}”: ${value ?? 'your answer'}`, {
      lines: [QUESTION_HINT[question] ?? ''].filter(Boolean),
      exact: value === null ? [] : [{ label: QUESTION[question], text: value }],
      why: 'The installer asks it here, and most systems do not ask again.',
      see: 'The next question.',
      wrong: 'You passed it: go back by the installer’s own control before it copies.',
    }),
  'enrol the key': () =>
    words('Stay at the blue screen, and enrol the key', {
      lines: [
        'Press a key before it counts down, then: enrol, continue, yes, the password you gave, restart.',
      ],
      why: 'It asks once, and goes away by itself. Without the key the new system is refused.',
      see: 'The new system starts afterwards.',
      wrong:
        'It was gone too soon: the new system asks again, or Secure Boot is switched off once. Nothing is lost.',
    }),
  'choose the drive': ({ choice, drive, serial, bytes, model, by, read, kept, alike }) =>
    words(
      choice === 'unasked'
        ? `It takes a drive by itself: only ${quoted(drive, 'the target')} may be in`
        : `Choose ${quoted(drive, 'the drive')}${by === 'serial' ? ', by its serial' : by === 'label' ? ', by its label' : ''}`,
      {
        lines: [
          ...(choice === 'unasked'
            ? ['Count what is plugged in before you go on: nobody asks again.']
            : choice === 'preselects'
              ? ['One is marked already. It need not be yours: look before yes.']
              : []),
          ...(kept.length > 0 ? [`Not this one: ${list(kept.map((k) => `“${k}”`))}.`] : []),
          ...(read ? ['Read its line aloud before yes.'] : []),
          ...(alike.length > 0 ? [`Looks the same in the list: ${list(alike.map((a) => `“${a}”`))}.`] : []),
        ],
        exact: [
          ...serialLine(serial),
          ...(bytes > 0 ? [{ label: 'Size', text: formatBoth(bytes) }] : []),
          ...(model === null ? [] : [{ label: 'Model', text: model }]),
        ],
        why: 'What is taken here is erased.',
        see: 'The size and the serial of this drive, and no other, on the line that is marked.',
        wrong: 'It is not in the list: go back, off, and look at its plug. Nothing has been written.',
      },
    ),
  'copy onto the drive': ({ drive, serial, bytes }) =>
    words(`Copy the started system onto “${drive}”`, {
      lines: [
        'In a shell of the started system, find the drive by its serial: lsblk -do NAME,SIZE,SERIAL.',
        'Copy the stick onto it, whole: dd, bs=4M, conv=fsync. Read both names once more before you press Enter.',
      ],
      exact: [...serialLine(serial), { label: 'Size', text: formatBoth(bytes) }],
      why: 'The stick was the way; the drive is where it stays. What is on the drive is lost.',
      see: 'As many bytes as the image has, then its end.',
      wrong: 'Another drive is named: do not press Enter. Nothing has been written.',
    }),
  'lay the drive out': ({ steps }) =>
    words('Lay the drive out', {
      lines: steps.map(layoutStepWords),
      why: 'Numbers typed in one unit come back in another: both stand here.',
      see: 'The same list on the screen as here.',
      wrong: 'A size is refused: a few MB smaller. Nothing is written before the last yes.',
    }),
  'say yes': ({ times, drive, serial, arch }) =>
    words(times > 1 ? `Say yes, ${times} times` : 'Say yes', {
      lines: [
        times > 1
          ? 'Read the drive’s name at each: the last one counts.'
          : 'Read the drive’s name once more.',
      ],
      exact: [
        { label: 'Drive', text: drive === '' ? 'the target' : drive },
        ...serialLine(serial),
        ...(arch === null ? [] : [{ label: 'Processor', text: arch }]),
      ],
      why: 'From here on what was on the drive is lost.',
      see: 'It begins to copy.',
      wrong: 'Another name stands there: no, and back. Nothing has been written.',
    }),
  'let it install': ({ system, staysWith, kept, out }) =>
    words(`Let ${system} install`, {
      lines: [
        staysWith
          ? 'Stay with it: it restarts by itself.'
          : 'It can be left alone until it asks for the restart. Do not switch it off.',
      ],
      why: 'It copies itself onto the drive.',
      see: 'A bar, or lines that go on.',
      wrong: `Nothing moves for ten minutes: look at its other screens (Alt F2), note the last line, then begin again.${keptWords(kept, out)}`,
    }),
  'stick out': ({ ends, stick }) =>
    words(
      ends === 'powers off'
        ? `Off: take ${quoted(stick, 'the stick')} out now`
        : `At the restart: take ${quoted(stick, 'the stick')} out`,
      {
        lines: [STICK_OUT[ends]],
        why: 'Left in it starts the installer again; pulled too early it leaves the system half written.',
        see: 'The new system starts by itself.',
        wrong: 'The installer is there again: stick out, off, on. Nothing is lost.',
      },
    ),
  'put back': ({ drives, ports, supply }) =>
    words(`Put back: ${list([...drives, ...ports].map((d) => `“${d}”`))}`, {
      lines: [
        ...(drives.length > 0 ? [`${OFF[supply]}; each into the place it came from.`] : []),
        ...(ports.length > 0 ? ['Their ports on again in setup.'] : []),
        'Then look in setup whether the new drive is still first.',
      ],
      why: 'They were away for the installation alone.',
      see: 'All drives listed, and the new system still starts.',
      wrong: 'The old system starts: the order forgot. Put the new drive first; nothing is lost.',
    }),
  'target first': ({ drive }) =>
    words(`Put “${drive}” first in the order`, {
      change: { from: 'as it reads', to: drive },
      why: 'Then whatever is plugged in later, the new system starts.',
      see: 'It stands at the top.',
    }),
  'order back': () =>
    words('Set the boot order back', {
      change: { from: 'the stick first', to: 'as it was noted' },
      why: 'The next stick that is left in would start.',
      see: 'The drive stands before every stick.',
    }),
} satisfies Partial<Say>;
