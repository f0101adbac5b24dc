import { heldWords } from './claim';
import type { CopyFault, PoolFault } from '../model/storage';
import { formatIec } from '../units/bytes';
import { formatRate } from '../units/duration';
import { formatPercent } from '../units/number';
import { list, plural } from './text';

/** A share in per cent. */
export const shareWords = (share: number): string =>
  share < 0.0005 ? 'under 0.1 %' : share < 0.1 ? `${(share * 100).toFixed(1)} %` : formatPercent(share);
/** What is wrong with a pool, and what to do. */
export function poolFaultWords(f: PoolFault): string {
  switch (f.code) {
    case 'drives alike':
      return `${list(f.drives)} are of one model and one age: they may fail within days of each other. Mix them with others, or keep the backup fresh.`;
    case 'worn':
      return `“${f.drive}” is ${f.wear} % worn. It is read from end to end when another is made good.`;
    case 'bad sectors':
      return `“${f.drive}” gave up ${plural(f.sectors, 'sector')}. Replace it first, or leave it out.`;
    case 'old drive':
      return `“${f.drive}” has run about ${plural(f.years, 'year')}.`;
    case 'cannot mend':
      return 'Its sums tell when something is wrong; without a second copy nothing can be mended.';
    case 'survives none':
      return f.drives > 1
        ? `One drive that fails takes all with it, and with ${f.drives} of them one fails sooner.`
        : 'When the drive fails, all is gone.';
    case 'lost to smaller':
      return `${formatIec(f.bytes)} lie unused, because rows go by their smallest drive.`;
    case 'too many for ports':
      return `${f.drives} drives with the one it starts from, and ${plural(f.ports, 'SATA port')}. Leave one out, or add a card.`;
    case 'too many for bays':
      return `${f.drives} drives and ${plural(f.bays, 'bay')}: one has nowhere to sit.`;
    case 'too many leads':
      return `${f.drives} drives and ${plural(f.leads, 'power lead')}: one has no power.`;
    case 'boot drive in pool':
      return `“${f.drive}” carries the system: its port stays its own.`;
    case 'removable in pool':
      return `“${f.drive}” can be pulled out while it is running, and then the pool is broken.`;
    case 'claims more':
      return `“${f.drive}” claims ${formatIec(f.bytes)} and does not hold it.`;
    case 'sectors of two sizes':
      return `${list(f.drives)} write sectors of 512 bytes, the others of 4096: the pool takes 4096.`;
    case 'sector not known':
      return `Which sectors ${list(f.drives)} write is not known; 4096 bytes are taken.`;
    case 'read fault likely':
      return `By the rating of the drives, a sector is not readable during a rebuild with a chance of ${shareWords(f.chance)}. Most drives do better, worn ones worse. Take more copies or parity, or keep a fresh backup.`;
    case 'shingled':
      return `${list(f.drives)}: shingled (SMR). A rebuild on such a drive can take days, and some systems drop it for being slow. Use it for backups instead.`;
    case 'shingled not known':
      return `Whether these are shingled (SMR) is not known: ${list(f.drives)}. Look it up in the data sheet before the pool is made: a rebuild on a shingled drive can take days.`;
    case 'write hole':
      return f.closed === 'partial parity log'
        ? 'A power cut while it writes can leave parity that does not match. If a drive fails then too, data is lost (the write hole). Switch the partial parity log on (mdadm --consistency-policy=ppl), or buffer the power.'
        : 'A power cut while it writes can leave parity that does not match. If a drive fails then too, data is lost (the write hole). Add a journal device (mdadm --write-journal), or buffer the power.';
    case 'parity of groups':
      return 'Parity in block groups can lose data when the power goes while it writes. Take copies on any two, or another manner.';
    case 'little memory':
      return `It runs well with ${formatIec(f.wants)} of memory; the machine has ${formatIec(f.has)}.`;
    case 'kept drive in pool':
      return `“${f.drive}” must be kept: ${f.holds || 'nobody said what is on it'}. Making the pool erases it.`;
    case 'held drive in pool':
      return heldWords(f.drive, { as: f.as, boxName: f.box });
    case 'not decided in pool':
      return `Whether what is on “${f.drive}” may be lost is not decided: ${f.holds || 'not known'}.`;
    case 'not wiped':
      return `On “${f.drive}” lies: ${f.holds}. Wipe it before the pool is made.`;
    case 'slow drive':
      return `“${f.drive}” does ${formatRate(f.rate)} at most and holds the others up.`;
    case 'never read through':
      return 'It is never read through: sectors that went bad are found when it is too late.';
    case 'read through late':
      return `It was last read through ${plural(f.days, 'day')} ago; ${plural(f.every, 'day')} were decided.`;
  }
}

/** What is wanting in the copies of something. */
export function copyFaultWords(f: CopyFault): string {
  switch (f.code) {
    case 'nothing named':
      return 'Nobody has said what must not be lost. A pool that survives a drive is not a backup.';
    case 'no other copy':
      return `“${f.what}” has no copy at all.`;
    case 'pool is no copy':
      return `“${f.what}” lies on this pool alone. What a pool keeps twice is one copy: a slip, a bad supply or a fire takes both.`;
    case 'all in one house':
      return `All copies of “${f.what}” are in one house.`;
    case 'copy old':
      return `The copy of “${f.what}” (${f.where}) is ${plural(f.days, 'day')} old.`;
    case 'copy of no day':
      return `When the copy of “${f.what}” (${f.where}) was made, nobody wrote down.`;
    case 'never brought back':
      return `“${f.what}” was never brought back from a copy: nobody knows that it can be.`;
    case 'brought back long ago':
      return `“${f.what}” was last brought back ${plural(f.days, 'day')} ago. Try again.`;
    case 'fewer than three':
      return `“${f.what}” has ${f.copies} of three copies.`;
  }
}
