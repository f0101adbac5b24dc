import type { SchoolWay, TradeLine } from '../box/trade/line';
import type { ChainCheck, ChainEnd, ChainLoaderPlan, ChainMistake } from '../system/chainLoader';
import type { ConsoleSpeed } from '../system/consoleClass';
import { formatBoth, formatIec } from '../units/bytes';
import { formatDay } from '../units/date';
import { formatDuration, formatSpan } from '../units/duration';
import { capital, list } from './text';

/** A line of the trade as it is read: a head, why, and where it has them the things to do, one by one. */
export interface TradeWords {
  title: string;
  because: string;
  steps: string[];
}

const WAYS: Record<SchoolWay['way'], { title: string; because: string }> = {
  adapter: {
    title: 'the final drive in an adapter',
    because:
      'Fewer steps and no installer. The drive is then unreadable to the desktop machine, and is put in its place once it is compared.',
  },
  'running system': {
    title: 'the final drive in place, by the system that runs now',
    because:
      'Nothing is opened and no stick is wanted. The machine must run from another drive, and every drive in it is within reach of the writer.',
  },
  'installer stick': {
    title: 'a stick, started in the machine and copied from there',
    because:
      'Nothing is opened and no adapter is wanted; the machine shows at once whether it starts the image at all.',
  },
};
/** One way of writing a whole system. */
export const wayWords = (way: SchoolWay['way']): { title: string; because: string } => WAYS[way];

/** A way with its minutes and what it lacks. */
export function schoolWayWords({ way, seconds, lacks, usual }: SchoolWay): string {
  const more = [
    seconds ? `about ${formatSpan(seconds)}` : '',
    lacks === 'adapter' ? 'no adapter from a drive to USB is on the shelf' : '',
    lacks === 'running system' ? 'no other drive in the machine boots a system' : '',
    lacks === 'stick' ? 'no free stick is large enough' : '',
    usual ? 'our default' : '',
  ].filter(Boolean);
  return `${WAYS[way].because} ${capital(more.join('; '))}.`;
}

const CONSOLES: Record<ConsoleSpeed['class'], string> = {
  'before 3D': 'consoles from before 3D',
  'first 3D': 'consoles up to the first with 3D',
  'early 2000s': 'consoles up to those of the early 2000s',
  later: 'also consoles later than those of the early 2000s',
};

function speedWords(machine: string, speed: ConsoleSpeed | undefined): TradeWords {
  if (!speed)
    return {
      title: `Which consoles ${machine} plays is not known`,
      because: 'Say the year of its CPU, or measure one core.',
      steps: [],
    };
  const from =
    speed.by === 'year' ? `its CPU is of ${speed.value}` : `one core measures ${speed.value} points`;
  const held = speed.heldBy === null ? '' : `, held back by ${speed.heldBy}`;
  return {
    title: `At full speed on ${machine}: ${CONSOLES[speed.class]}`,
    because: `By common practice: ${from}${held}.${speed.by === 'year' ? ' A measured core tells more than a year.' : ''}`,
    steps: [],
  };
}

const CHECK: Record<ChainCheck, string> = {
  'starts from USB': 'The firmware starts from USB.',
  'stick for it': 'A free stick can stay inside for good.',
  'part large enough': 'It has room for a FAT part of 100 MB; the loader takes about 10 MB.',
  'driver in both folders':
    'The NVMe driver lies in both of the loader’s driver folders, for BIOS and for UEFI.',
  'countdown above 0': 'The countdown is above 0, five seconds are usual: at 0 the menu is never seen again.',
  'port fast enough': 'The port inside is fast enough, USB 2 as well.',
  'one drive per slot': 'One drive sits in each slot, or setup splits the slot’s lanes.',
};
const STATE = { holds: 'holds', fails: 'FAILS', look: 'look' } as const;

const MISTAKE: Record<ChainMistake, string> = {
  'stick not started': 'The stick is not first in the order',
  'part not FAT': 'Its part is not FAT',
  'loader missing': 'The loader’s file is not there',
  'driver missing': 'The driver is in neither folder',
  'driver in one folder alone': 'The driver is in the other folder alone',
  'countdown 0': 'The countdown is 0',
  'several drives in one slot': 'Two drives sit in a slot that is not split',
  'system not installed': 'The system is not on the drive yet',
};
const END: Record<ChainEnd, string> = {
  'system starts': 'the system starts',
  'firmware finds nothing': 'the firmware finds nothing to start',
  'loader not found': 'the firmware enters the stick and stops',
  'loader shows no drive': 'the loader’s menu shows no drive',
  'loader shows one drive of several': 'the menu shows one drive only',
  'loader finds no system': 'the menu shows the drive and nothing to start on it',
};

function chainWords(machine: string, plan: ChainLoaderPlan): TradeWords {
  return {
    title: `${machine} does not start from “${plan.drive}”: a small loader on a stick inside can go on to it`,
    because: `The loader holds the driver that the firmware lacks, and is read in ${formatDuration(plan.loadSeconds)} over USB 2.${plan.stick === null ? ' No free stick is on the shelf.' : ` “${plan.stick}” can stay inside.`}`,
    steps: [
      ...plan.checks.map((c) => `${STATE[c.state]}: ${CHECK[c.check]}`),
      ...plan.rehearsed.map(
        (r) =>
          `${MISTAKE[r.mistake]}: ${END[r.end]}${r.end === 'system starts' && !r.menu ? ', and its menu cannot be reached any more' : ''}.`,
      ),
    ],
  };
}

const WHY = {
  card: 'it is a card',
  turning: 'it is a turning disk',
  worn: 'it is worn',
} as const;
const line = (title: string, because: string, steps: string[] = []): TradeWords => ({
  title,
  because,
  steps,
});
const MODE = { uefi: 'UEFI', bios: 'BIOS' } as const;

/** A line of the trade in words. */
export function tradeWords(l: TradeLine): TradeWords {
  switch (l.code) {
    case 'console speed':
      return speedWords(l.machine, l.speed);
    case 'earlier release':
      return line(
        `Keep ${l.system} ${l.version} on the shelf as well`,
        l.image === null
          ? 'A new release may have dropped this CPU: the one before is then wanted at once. Fetch it and open it in the image room.'
          : `A new release may have dropped this CPU. It is there: ${l.image}.`,
      );
    case 'new drive is quicker':
      return line(
        `A new SSD beats “${l.drive}”: ${WHY[l.why]}`,
        `The same copy takes about ${formatSpan(l.fresh)} on a cheap new one and ${formatSpan(l.old)} on this.`,
      );
    case 'bays not counted':
      return line(
        `Count the free bays and power leads of ${l.machine}`,
        `${l.drives === 1 ? 'A drive is' : `${l.drives} drives are`} to go in: each wants a place and a plug. Say both on the machine’s sheet.`,
      );
    case 'name the target':
      return line(
        `Rename “${l.stick}” to ${l.label} before it is written`,
        'Then no list of drives can show it under a name that something else has as well.',
      );
    case 'unplug what stays':
      return line(
        `Unplug ${list(l.drives.map((d) => `“${d}”`))}`,
        'What is not plugged in cannot be overwritten.',
      );
    case 'target is large':
      return line(
        `“${l.stick}” is large: ${formatBoth(l.bytes)}`,
        l.needs > 0
          ? `The image needs ${formatIec(l.needs)}. Sticks for images are smaller: is it really this one?`
          : 'Sticks for images are smaller: is it really this one?',
      );
    case 'school: stick or adapter':
      return line(
        `How does the system come onto “${l.drive}”?`,
        'Two schools: put the final drive in an adapter and write straight onto it, or write a stick, start it in the machine and copy from there.',
      );
    case 'write settings down':
      return line(
        `Write down every setting of ${l.machine} before it is changed`,
        'A photo of each page of setup does.',
      );
    case 'two sticks':
      return line(
        'Two sticks: one is started, the other is written',
        `“${l.from}” holds the installer, “${l.to}” takes the system; what is inside keeps its own, and the box is chosen at each start. Started from one and installing inside it, look twice which is which.`,
      );
    case 'erases unasked':
      return line(
        `${l.system} erases without asking`,
        'Between its start and the first byte lost nobody is asked anything: what must stay is out before it is started.',
      );
    case 'asks several times':
      return line(
        `${l.system} asks ${l.times} times before it erases`,
        'It is the last of them that counts: read the drive’s name and serial at each, the first yes wears the others out.',
      );
    case 'network while installing':
      return line(
        `${l.system} wants the network while it installs`,
        l.wired === 0
          ? 'The machine has no wired port: bring an adapter whose driver is in the kernel, or know the way round beforehand.'
          : 'A wire is enough: have it plugged in before the start.',
      );
    case 'processor asked again':
      return line(
        `${l.system} asks for the processor once more`,
        l.arch === null
          ? 'A wrong answer makes a drive that does not start; the machine’s is not known yet.'
          : `A wrong answer makes a drive that does not start. This machine: ${l.arch}.`,
      );
    case 'basic graphics':
      return line(
        'Screen black for more than two minutes?',
        `${l.system} has an entry with basic graphics in its start menu, often under troubleshooting: take that before anything else is blamed.`,
      );
    case 'works over a console':
      return line(
        `${l.system} installs in text`,
        `It can be done over a remote console or a serial line: ${l.machine} needs no monitor for it.`,
      );
    case 'restarts by itself':
      return line(
        `${l.system} restarts by itself`,
        'Nobody is asked to take the stick out: stay with it, or put the stick behind the drive in the order.',
      );
    case 'loader not seen':
      return line(
        `Where ${l.system} puts its loader nobody has seen`,
        'The rehearsal takes all three ways; after the first install note which it was, in its profile.',
      );
    case 'firmware update':
      return line(
        'An update of the firmware: first, or not at all',
        `${l.date === null ? 'Its date is not known.' : `Its firmware is of ${formatDay(l.date)}.`} An update can take settings and start options away or lock a password; without need it is left.`,
      );
    case 'graphics memory':
      return line(
        'Set the graphics memory from fixed to automatic',
        'Before a system goes on that shares it out itself.',
      );
    case 'lanes not split':
      return line(
        `${l.drives} NVMe drives sit on cards in ${l.machine}: one is seen per slot`,
        l.known
          ? 'Its firmware does not split a slot’s lanes: give each drive a slot of its own.'
          : 'Whether its firmware splits a slot’s lanes is not known: look in setup.',
      );
    case 'installed in another mode':
      return line(
        `${l.title} on “${l.drive}” was installed for ${MODE[l.installed]}`,
        `The machine starts by ${MODE[l.present]} now, which does not start it: switch the mode back, or install again.`,
      );
    case 'one wire at a time':
      return line(
        'Move one wire at a time',
        `${l.machine} has ${l.ports} sockets that look alike: plug one in, see which port wakes (its name and its light), write it at the socket, then the next.`,
      );
    case 'cable and port':
      return line(
        `A ${l.cable} cable, and a switch that does ${l.wants} Mb/s`,
        `What it is for wants ${l.wants} Mb/s over up to 100 m${l.port === null ? '; what its port does is not known' : `; its port does ${l.port}`}. The slowest of port, cable and switch decides.`,
      );
    case 'chain loader':
      return chainWords(l.machine, l.plan);
  }
}
