import { factDefinition } from '../../model/facts';
import { formatBoth } from '../../units/bytes';
import { repairWords } from '../fit/repairs';
import { thingWords } from '../gather';
import { list, plural } from '../text';
import { quoted, serialLine, words, type Say } from './say';

/** Steps before anything is written. */
export const beforeWords = {
  'read the machine': ({ machine }) =>
    words(`Read what ${machine} is`, {
      lines: [
        'Start the system that is on it, or any stick with a shell.',
        'Run the survey script from the Survey sheet, and paste what it prints there.',
      ],
      why: 'Everything after this is judged by what the machine says of itself.',
      see: 'A page of text that ends by itself; it changes nothing.',
      wrong: 'Nothing starts on it: enter by hand what stands on the case. Nothing is lost.',
    }),
  'look a fact up': ({ fact }) =>
    words(factDefinition(fact).ask, {
      lines: ['Look, then answer it on the Survey sheet.'],
      why: 'A rule of the chosen system waits for it.',
      see: `${factDefinition(fact).label} on the sheet, with you as its source.`,
      wrong: 'Nobody knows: the bench goes on with what such machines usually have, and says so.',
    }),
  'choose a system': ({ machine }) =>
    words(`Choose what goes on ${machine}`, {
      lines: ['Open Choose; the reasons stand beside each system.'],
      why: 'The image, the stick and the settings follow from it.',
      see: 'One system with its release on the sheet.',
      wrong: 'None fits: each says what is missing, and what would mend it.',
    }),
  'decide a drive': ({ drive, serial, holds }) =>
    words(`May what is on “${drive}” be lost?`, {
      lines: ['Look at what lies on it, or ask whose it is. Then say it on the shelf.'],
      exact: serialLine(serial),
      why: holds === '' ? 'Nobody has looked yet.' : `On it: ${holds}.`,
      see: 'The drive is marked “keep” or “may be lost”.',
      wrong: 'Nobody can say: it counts as kept, and nothing is written to it.',
    }),
  'say which drive': ({ drives }) =>
    words('Say which drive takes the system', {
      lines: ['Open Install, and choose one.'],
      why: `There is more than one: ${list(drives.map((d) => `“${d}”`))}.`,
      see: 'One drive before and after on the sheet.',
    }),
  'lay out': ({ group, things }) =>
    words(`On the bench: ${group.toLowerCase()}`, {
      lines: things.map((t) => thingWords(t).what),
      why: 'What is missing is missed in the middle of the work.',
      see: `${plural(things.length, 'thing')} before you.`,
      wrong: 'Something is not there: Gather says where it is, or what it would cost.',
    }),
  mend: ({ repair }) =>
    words(repairWords(repair).replace(/\.$/, ''), {
      lines: ['Choose has it, with the reason.'],
      why: 'As it is now, the system does not fit the machine.',
      see: 'The verdict on Choose says that it fits.',
    }),
  'fetch drivers': ({ drivers, stick }) =>
    words('Fetch the drivers beforehand', {
      lines: drivers.map((d, i) => `${i + 1}. ${d}`),
      exact: stick === null ? [] : [{ label: 'Onto', text: stick }],
      why: 'There may be no network on the machine without them.',
      see: 'A file for each on the second stick.',
      wrong: 'One is not to be had: bring a wire or an adapter whose driver is in the kernel.',
    }),
  'fetch the image': ({ system, version, variant }) =>
    words(`Fetch ${system} ${version}`, {
      lines: ['Fetch the file and the list of its sums from the same place.', 'Open it on Verify.'],
      exact: variant === null ? [] : [{ label: 'Variant', text: variant }],
      why: 'The right variant is seen before the download, not after it.',
      see: 'Its parts, and what it starts on.',
      wrong:
        'It opens as 0 bytes or as something else: it was unpacked or renamed on the way. Fetch it again.',
    }),
  'compare the sum': ({ image, sha256 }) =>
    words('Compare its sum with the published one', {
      exact: sha256 === null ? [] : [{ label: 'SHA-256', text: sha256 }],
      why: `A download that went wrong is blamed on the machine for an evening. File: ${image}.`,
      see: 'Every digit the same.',
      wrong: 'They differ: do not write it. Fetch it again; nothing was touched.',
    }),
  'copy away': ({ drive, bytes, serial }) =>
    words(`Copy “${drive}” away`, {
      lines: [
        'Copy all of it to another drive, and compare the copy with what it was made from.',
        'Note where the copy lies.',
      ],
      exact: [{ label: 'Size', text: formatBoth(bytes) }, ...serialLine(serial)],
      why: 'After this no order in which drives answer can lose what is on it.',
      see: 'As many files and bytes there as here, and the same sums.',
      wrong: 'The copy breaks off: do not go on. What is on the drive is as it was.',
    }),
  'label the target': ({ drive, serial }) =>
    words(`Give “${drive}” a label that nothing else has`, {
      lines: ['Rename its file system, or stick a label on the drive itself, and note the name.'],
      exact: serialLine(serial),
      why: 'In the installer’s list it can then be taken for nothing else.',
      see: 'The new name in any list of drives.',
    }),
  'unplug at the writer': ({ drives }) =>
    words('Unplug at the writing machine what stays', {
      lines: drives.map((d) => `“${d}”`),
      why: 'What is not plugged in cannot be overwritten.',
      see: 'None of them in the list of drives.',
    }),
  write: ({ image, bytes, onto, serial, as, read, inPlace }) =>
    words(`Write the ${as === 'drive' ? 'final drive' : as}: ${quoted(onto, 'choose it on Write')}`, {
      lines: [
        'Hold the serial against the one printed or shown.',
        ...(read ? ['Read the line of the list aloud before yes.'] : []),
        inPlace
          ? 'Write it on its machine, by the system that runs there now from another drive; read it back and compare.'
          : 'Write on the Write sheet, let it read back, and leave it plugged in until it says proven.',
      ],
      exact: [
        ...serialLine(serial),
        { label: 'Image', text: image },
        ...(bytes > 0 ? [{ label: 'Bytes', text: bytes.toLocaleString('en') }] : []),
      ],
      why: 'Everything on it is lost; so it is named three times.',
      see: 'Proven: what was read back is what was written.',
      wrong: 'It failed: another stick first, then another port. The image is unharmed.',
    }),
  'make the chain stick': ({ stick, drive, seconds }) =>
    words(`Make “${stick}” the one that goes on to “${drive}”`, {
      lines: ['The Firmware sheet has its files and its menu.'],
      exact: [{ label: 'Its menu waits', text: `${seconds} s` }],
      why: 'The firmware does not start from that drive by itself.',
      see: 'A FAT part with the loader, and its driver in both folders.',
      wrong: seconds === 0 ? 'At 0 s its menu is never seen again: take five.' : '',
    }),
} satisfies Partial<Say>;
