import type { GuestFault } from '../model/guests';
import { formatIec } from '../units/bytes';
import { formatPercent } from '../units/number';
import { list, plural } from './text';

/** What is wrong with guests. */
export function guestFaultWords(f: GuestFault): string {
  switch (f.code) {
    case 'memory not known':
      return 'How much memory the machine has is not known, so nothing can be shared out.';
    case 'too little memory':
      return `Even at their least the guests want ${formatIec(f.wants)}, and ${formatIec(f.has)} are left for them: ${formatIec(f.wants - f.has)} are missing.`;
    case 'fits only given back':
      return `It fits only while guests give memory back: ${formatIec(f.short)} are promised more than there are. Without their driver they do not.`;
    case 'all at once do not fit':
      return `If all start at once, ${formatIec(f.short)} are missing: each begins with all of its memory. Let them start in turn.`;
    case 'in turn do not fit':
      return `When the turn comes to ${f.guest}, ${formatIec(f.short)} are missing for it to begin.`;
    case 'cores over-committed':
      return `${f.cores} cores are given away on ${f.threads} threads. When many work at once, all of them wait.`;
    case 'more cores than threads':
      return `${f.guest} has ${f.cores} cores, and the machine ${f.threads} threads.`;
    case 'pool too small':
      return `On ${f.pool} there is room for ${formatIec(f.has)}, and disks take ${formatIec(f.wants)}.`;
    case 'promised twice':
      return `On ${f.pool} disks are promised ${formatIec(f.promised)}, and there are ${formatIec(f.has)}: it is full before they are.`;
    case 'pool fills':
      return `${f.pool} is full in ${plural(f.days, 'day')} at this rate; then ${list(f.guests)} stop where they are.`;
    case 'used not known':
      return `What ${plural(f.disks, 'disk')} on ${f.pool} really ${f.disks === 1 ? 'takes' : 'take'} is not known: it is counted as nothing.`;
    case 'no thin disks there':
      return `${f.pool} has no thin disks: that of ${f.guest} takes all of its room at once.`;
    case 'name twice':
      return `Two guests are called ${f.name}.`;
    case 'not there':
      return `${f.guest} names “${f.missing}”, which is no longer there.`;
    case 'device twice':
      return `${f.device} is handed to ${list(f.guests)}, and can be held by one.`;
    case 'group parted':
      return `${list(f.devices)} cannot be parted (group ${f.group}), and ${list(f.guests)} want them.`;
    case 'device of the host':
      return `${f.device} is what the host itself works with: handed to ${f.guest}, the host loses it.`;
    case 'device of host group':
      return `${f.device} cannot be parted from ${f.with}, which the host works with: ${f.guest} does not get it.`;
    case 'group not known':
      return `With what ${f.device} goes together was not looked up.`;
    case 'handing not known':
      return 'Whether this machine can hand devices over is not known: look for the input-output memory unit in its setup.';
    case 'no handing':
      return 'This machine cannot hand devices over: its input-output memory unit is not there, or off in setup.';
    case 'gives nothing back':
      return `${f.guest} holds a device, and keeps all of its memory because of it.`;
    case 'no virtualisation':
      return 'The processor cannot run guests in hardware, or it is off in setup: they would be ten times slower at least.';
    case 'virtualisation not known':
      return 'Whether the processor can run guests in hardware is not known.';
    case 'nested':
      return `Guests run in ${f.guest}: it sees the processor as it is, and cannot move to another kind of host.`;
    case 'spans sockets':
      return `${f.guest} is larger than the memory of one socket (${formatIec(f.node)}): half of it is far away.`;
    case 'sockets do not fit':
      return `${list(f.guests)} would fit a socket, and no share-out leaves one free.`;
    case 'floor above memory':
      return `${f.guest} is to give memory back down to more than it has.`;
    case 'nobody signs in':
      return `Nobody could sign in to ${f.guest}: its seed has neither a key nor a hash.`;
    case 'address by itself':
      return `The address in the seed of ${f.guest} does not lie in ${f.prefix}.`;
    case 'hardware twice':
      return `${list(f.guests)} have the same hardware address, ${f.hardware}.`;
    case 'volume fills':
      return `The volume of the system is full in ${plural(f.days, 'day')} at this rate; then the host stops, and every guest with it.`;
    case 'volume nearly full':
      return `The volume of the system is ${formatPercent(f.share)} full.`;
    case 'one reading':
      return 'The volume of the system was read once; a second reading some weeks later foretells when it is full.';
    case 'image does not start':
      return `${f.guest} does not start from ${f.image} with its firmware.`;
    case 'image not read':
      return `What ${f.image} starts on was not read, so whether ${f.guest} starts is open.`;
    case 'no guest':
      return 'No guest is laid out.';
  }
}
