import type { ImageReading, Starts } from '../model/inspection';
import type { Trial, TrialFirmware, TrialHappened } from '../model/trial';
import { plainTerminal } from '../units/terminal';
import { startOn } from './forMachine';

/** What an emulated machine was heard and seen to say. */
export interface Heard {
  firmware: TrialFirmware;
  /** What BIOS tells its debug port; empty under UEFI. */
  debug: string;
  serial: string;
  /** The screen where it shows text; null where it shows a picture. */
  screen: string | null;
}

/** Texts of the emulator’s BIOS (SeaBIOS) and UEFI (EDK II BdsDxe): common practice, seen with Debian’s builds. */
const BIOS_NONE =
  /No bootable device|Boot failed: not a bootable disk|Boot failed: could not read the boot disk/;
const BIOS_HANDS = /Booting from [0-9a-f]{4}:[0-9a-f]{4}/i;
const BIOS_OWN = /Booting from [^\n]*\.\.\./g;
const UEFI_ENTRY =
  /BdsDxe: (loading|starting|failed to load|failed to start) Boot[0-9A-F]{4} "([^"]*)"[^\n]*?(?:from [^\n]*?)?(?:: ([A-Z][A-Za-z ]+))?\s*$/gm;
/** Entries of firmware’s own: none of them is the image. */
const UEFI_OWN = /Shell|PXE|HTTP/;
const UEFI_NONE = /No bootable option or device|Interactive Shell|Start PXE over IP|Start HTTP Boot/;
/**
 * What loaders and boot code say before they wait for a key or end: GNU GRUB, SYSLINUX, the boot record’s own, and that of a
 * FAT volume without a system (mkfs.fat’s own code: seen; the older form: from memory). From memory where nothing else is said.
 */
const GAVE_UP =
  /grub rescue>|grub>|Entering rescue mode|Press any key to continue|Missing operating system|not a bootable disk|Non-System disk|press any key to (?:try again|restart)|Missing OS|Operating system load error|Error loading|No DEFAULT or UI|Could not find kernel image|Failed to load|Failed to open|Failed to start|Not a kernel|No loader found|Invalid partition table|Disk error|kernel panic/i;

/** The name that GNU GRUB’s boot record (boot.S, notification_string) prints before its second stage says a word. */
const FIRST_STAGE = /^(?:GRUB\s*)+$/;
const oftenNamed = (text: string): boolean => (text.match(/GRUB/g)?.length ?? 0) >= 3;

/** Text that came after BIOS named what it starts from: the started code’s own. */
function afterHandOver(screen: string): string {
  const last = [...screen.matchAll(BIOS_OWN)].at(-1);
  return last ? screen.slice(last.index + last[0].length).trim() : screen.trim();
}

function underBios(debug: string, serial: string, screen: string | null): TrialHappened {
  const at = debug.search(BIOS_HANDS);
  if (at < 0) return BIOS_NONE.test(debug) ? 'found nothing' : 'not seen';
  // A boot record that gives control back: firmware goes on to the next, and in the end finds nothing.
  if (BIOS_NONE.test(debug.slice(at))) return 'gave up';
  if (GAVE_UP.test(`${serial}\n${screen ?? ''}`)) return 'gave up';
  // BIOS itself draws no picture and says nothing over the serial line.
  const said = screen === null ? '' : afterHandOver(screen);
  // A first stage that names itself again and again runs in a ring; one that named itself once may have more to say.
  if (FIRST_STAGE.test(said)) return oftenNamed(said) ? 'gave up' : 'silent';
  const alive = screen === null || serial.trim() !== '' || said !== '';
  return alive ? 'started' : 'silent';
}

function underUefi(heard: string): TrialHappened {
  const said = [...heard.matchAll(UEFI_ENTRY)].map(([, did = '', name = '', why = '']) => ({
    did,
    name,
    why,
  }));
  const mine = said.filter((e) => !UEFI_OWN.test(e.name));
  if (mine.some((e) => /Access Denied|Security Violation/.test(e.why))) return 'refused';
  const last = mine.at(-1);
  const goneOn = said.length > 0 && last !== said.at(-1) && UEFI_OWN.test(said.at(-1)?.name ?? '');
  if (last?.did === 'starting') {
    const since = heard.slice(heard.lastIndexOf(`starting Boot`));
    // A program that returns lets firmware go on to what is its own.
    return goneOn || UEFI_NONE.test(since) || GAVE_UP.test(since) ? 'gave up' : 'started';
  }
  return last?.did.startsWith('failed') || goneOn || UEFI_NONE.test(heard) ? 'found nothing' : 'not seen';
}

/** What became of a start, by what was heard until now. */
export const happened = ({ firmware, debug, serial, screen }: Heard): TrialHappened =>
  firmware === 'bios' ? underBios(debug, plainTerminal(serial), screen) : underUefi(plainTerminal(serial));

/** What is foretold of a trial; null where the bytes were not read. A signature whose key nobody compared tells nothing certain. */
export function foretoldOf(
  reading: ImageReading | undefined,
  { firmware, attached }: Pick<Trial, 'firmware' | 'attached'>,
): Starts | null {
  const secure = firmware === 'uefi-x64-secure';
  const start = startOn(reading, secure ? 'uefi-x64' : firmware, secure, attached);
  if (!start) return null;
  return start.trustAssumed ? 'unknown' : start.starts;
}

/** Whether what happened is what was foretold; null where one of them says nothing. */
export function agrees(foretold: 'yes' | 'no' | 'unknown' | null, what: TrialHappened): boolean | null {
  if (foretold === null || foretold === 'unknown' || what === 'not seen') return null;
  // Something that starts may be silent for long; what does not start is.
  if (what === 'silent') return foretold === 'no' ? true : null;
  return (foretold === 'yes') === (what === 'started');
}
