import type { CauseCode } from '../../diagnose/causes';

/** A cause as it is read: what it is, what mends it, and what is unharmed meanwhile. */
export interface CauseWords {
  title: string;
  because: string;
  cure: string[];
  unharmed: string;
}

const NOTHING = 'Nothing has been written: every drive is as it was.';
const STANDS = 'The new system is on its drive, whole.';
const say = (title: string, because: string, cure: string[], unharmed: string): CauseWords => ({
  title,
  because,
  cure,
  unharmed,
});

const CAUSES: Record<CauseCode, CauseWords> = {
  'key missed': say(
    'The key was missed',
    'It counts from power-on for a second or two.',
    ['Off, wait five seconds.', 'Tap the key twice a second from the moment you press power.'],
    NOTHING,
  ),
  'keyboard wakes too late': say(
    'The keyboard wakes too late',
    'Wireless ones, and some behind a hub, are not there yet.',
    [
      'A keyboard on a wire, into a port on the board.',
      'Switch quick start off in setup, or start setup from the old system.',
    ],
    NOTHING,
  ),
  'line of another part': say(
    'Another line of the stick was taken',
    'Firmware shows one stick several times; only one of its parts starts.',
    ['Open the menu again.', 'Take the line that says UEFI and names the whole stick, or its first part.'],
    NOTHING,
  ),
  'stick not first': say(
    'The order goes to another drive first',
    'The stick was left to the order, and does not stand first.',
    ['Take its line in the one-time menu, or put it first in setup.'],
    NOTHING,
  ),
  'Secure Boot refuses the stick': say(
    'Secure Boot refuses it',
    'What is on the stick is not signed by a key that this firmware knows.',
    ['Setup: Secure Boot off, note how it read.', 'Save, and start the stick again.'],
    NOTHING,
  ),
  'other boot mode': say(
    'The firmware is in the other boot mode',
    'The image starts in one mode, the machine is set to the other.',
    ['Setup: the other boot mode, note how it read.', 'Save, and start the stick again.'],
    NOTHING,
  ),
  'BIOS tries one drive alone': say(
    'BIOS tries the first drive alone',
    'Where nothing starts from it, it gives up.',
    ['Take the stick in the one-time menu.'],
    NOTHING,
  ),
  'port asleep': say(
    'The port is not looked at that early',
    'Hubs, and ports of a second controller, wake after the firmware has looked.',
    ['The stick into a port on the board itself, a USB 2 one first.'],
    NOTHING,
  ),
  'stick badly written': say(
    'The stick is not what the image is',
    'It was written badly, or it lies about its size.',
    ['Read it back at the writing machine.', 'Write it again, on another stick if it differs once more.'],
    NOTHING,
  ),
  'image for another processor': say(
    'The image is built for another processor',
    'It starts on other machines, and not on this.',
    ['Look at the image on Verify: what it is built for.', 'Fetch the build for this machine.'],
    NOTHING,
  ),
  'graphics newer than the release': say(
    'The graphics are newer than the release',
    'Its kernel does not know them: the picture stays black, the system runs.',
    [
      'Off, and take the entry with basic graphics.',
      'If that works: update at once, or take the newest release.',
    ],
    'Nothing is lost by it.',
  ),
  'machine older than the release': say(
    'The machine is too old for the release',
    'It was dropped: width, CPU level, or a driver that is gone.',
    ['Take the release before, or another system on Choose.'],
    'Nothing is lost by it.',
  ),
  'picture on another output': say(
    'The picture is on another output',
    'With two outputs the one that is not plugged in may be first.',
    [
      'The cable into the other output, or the monitor on its other input.',
      'Off and on with the cable plugged in.',
    ],
    'Nothing is lost by it.',
  ),
  'memory at fault': say(
    'The memory is at fault',
    'It stops at another place each time.',
    ['Let the memory test run once.', 'Take the modules out one by one until it passes.'],
    'Kept drives are as they were; what was being written is not to be trusted.',
  ),
  'drive not plugged well': say(
    'The drive is not plugged in well',
    'Setup does not list it.',
    [
      'Off, mains out. Plug and power lead off and on again.',
      'Look in setup before you start the installer.',
    ],
    NOTHING,
  ),
  'controller hides the drive': say(
    'The controller hides the drive',
    'In RAID mode the installer sees a controller and no drive.',
    [
      'Setup: the controller to AHCI, note how it read.',
      'An old system on another drive may not start until it is set back.',
    ],
    NOTHING,
  ),
  'driver of the drive is missing': say(
    'The installer has no driver for the drive',
    'Setup lists it, the installer does not.',
    ['Take a newer release, or load the driver from the second stick.'],
    NOTHING,
  ),
  'drives answer in another order': say(
    'The drives answered in another order',
    'No bus gives its drives a fixed order.',
    [
      'Stop before yes; if it was said, stop and do not restart.',
      'Take every other drive out, and choose by serial.',
    ],
    'Drives that are out of the machine are as they were. What was taken is erased.',
  ),
  'list not read': say(
    'The first line was taken unread',
    'A mark stood on another drive than yours.',
    ['Stop before yes; if it was said, stop and do not restart.', 'Choose by serial, and read it aloud.'],
    'Drives that are out of the machine are as they were. What was taken is erased.',
  ),
  'look-alike taken': say(
    'One that looks the same was taken',
    'Two lines of the list show the same.',
    ['Stop before yes; if it was said, stop and do not restart.', 'Label the target, or take the other out.'],
    'Drives that are out of the machine are as they were. What was taken is erased.',
  ),
  'drive at fault': say(
    'The drive is at fault',
    'Writing to it fails.',
    ['Look at its health on the shelf.', 'Another drive, and install again.'],
    'Other drives are as they were.',
  ),
  'drive too small': say(
    'There is no room on the drive',
    'Parts and units took more than there was.',
    ['Lay it out again on Install, a few MB smaller.'],
    'Other drives are as they were.',
  ),
  'power failed': say(
    'The power failed in between',
    'What was being written is half there.',
    ['Battery in, or a buffered socket.', 'Start the stick, and install again.'],
    'Kept drives are as they were.',
  ),
  'stick left in': say(
    'The stick is still in',
    'It is tried before the drive.',
    ['Off, stick out, on.'],
    STANDS,
  ),
  'stick first in the order': say(
    'The order still goes to the stick first',
    'It was set so for the installation.',
    ['Stick out, then setup: the drive first.'],
    STANDS,
  ),
  'stick out too early': say(
    'The stick came out too early',
    'The installer was not done.',
    ['Stick in, start it, and install again.', 'Take it out when it asks for the restart.'],
    'Kept drives are as they were; the new system is half there.',
  ),
  'order forgot the new drive': say(
    'The order has forgotten the new drive',
    'Firmware drops what is unplugged, and takes what it finds.',
    ['Setup: the new drive first.'],
    STANDS,
  ),
  'loader on another drive': say(
    'Its start went to another drive',
    'Some installers put the loader on the first drive they find.',
    ['Put that drive first in the order for now.', 'Install once more with the other drives out.'],
    'The new system is whole; the start of the other drive was changed.',
  ),
  'key not enrolled': say(
    'Its key was not enrolled',
    'The blue screen asks once and goes away.',
    ['Restart, stay, enrol the key.', 'Or Secure Boot off, noted.'],
    STANDS,
  ),
  'installed in the other mode': say(
    'It was installed in the other boot mode',
    'What is installed in one mode does not start in the other.',
    ['Setup: the mode it was installed in.', 'Or install again in the mode that stays.'],
    STANDS,
  ),
  'firmware cannot start that drive': say(
    'This firmware does not start from that drive',
    'Old firmware knows no NVMe.',
    ['A small stick with a chain loader stays inside: see Firmware.', 'Or install onto a SATA drive.'],
    STANDS,
  ),
  'start mark missing': say(
    'The drive has no start mark or no start code',
    'MBR: the active mark, the boot code and the system files are three things.',
    ['Start the stick, and let its repair put them there.', 'Or install again, and mark the system part.'],
    STANDS,
  ),
  'first start takes its time': say(
    'The first start takes its time',
    'It grows its part; black for minutes is normal.',
    ['Wait as long as is normal, then Enter once.'],
    STANDS,
  ),
  'panel stands upright': say(
    'The panel stands upright',
    'Its native picture is higher than wide.',
    ['Turn the picture a quarter in the display settings.'],
    'Nothing is lost by it.',
  ),
  overscan: say(
    'The screen cuts the edges off',
    'Televisions do, unless they are told.',
    ['On the screen: picture “as sent”, “just scan” or 1:1.'],
    'Nothing is lost by it.',
  ),
  'sound goes to another output': say(
    'The sound goes to another output',
    '“Automatic” takes the wrong one.',
    ['Choose the output by its name.'],
    'Nothing is lost by it.',
  ),
  'sound driver is missing': say(
    'The sound has no driver',
    'The amplifier’s goes in before the codec’s.',
    ['Amplifier, then codec, from the second stick; restart.'],
    'Nothing is lost by it.',
  ),
  'pad not paired': say(
    'The pad is not paired',
    'Its light says that it is looking.',
    ['Pair it again, close to the machine.'],
    'Nothing is lost by it.',
  ),
  'pad with the wrong driver': say(
    'The pad has the wrong driver',
    'It is connected and does nothing.',
    ['Switch its driver, pair it, map every button once.'],
    'Nothing is lost by it.',
  ),
  'another keyboard layout': say(
    'The keyboard is another one than when it was typed',
    'The same keys give other letters.',
    ['Type it where it can be seen.', 'Choose the layout, or set the password anew on it.'],
    'The password is as it was.',
  ),
  'capitals are locked': say(
    'Capitals are locked',
    'Every letter came out as a capital.',
    ['Caps Lock off, and once more.'],
    'The password is as it was.',
  ),
  'another password': say(
    'It is another password',
    'It comes out as typed, and is refused.',
    ['Look where it is kept.', 'Else set a new one from the stick or its own keyboard.'],
    'Nothing is lost by it.',
  ),
  'wire or socket': say(
    'The wire or the socket',
    'No light: nothing is connected.',
    ['Another wire, another socket, another port.'],
    'Nothing is lost by it.',
  ),
  'network driver is missing': say(
    'The network card has no driver',
    'The system does not list the card.',
    ['Its driver from the second stick, or an adapter whose driver is in the kernel.'],
    'Nothing is lost by it.',
  ),
  'nobody gives it an address': say(
    'Nobody gives it an address',
    'The wire is on, and nobody answers.',
    ['Look whether the router gives addresses on this wire.', 'Or set it by hand.'],
    'Nothing is lost by it.',
  ),
  'names are not found': say(
    'Names are not found',
    'By number it goes, by name it does not.',
    ['Set the name server as Network has it.'],
    'Nothing is lost by it.',
  ),
  'it has another address': say(
    'It has another address',
    'Unreserved, it came back somewhere else.',
    ['Read it at its screen or in the router’s list.', 'Reserve it on Network.'],
    'Nothing is lost by it.',
  ),
  'another machine has its address': say(
    'Another machine has its address',
    'Two of them are there now and then, neither for sure.',
    ['Take the other off, or give one of them another address.'],
    'Nothing is lost by it.',
  ),
  'it is off': say(
    'It is off',
    'After a power cut it stays off unless setup says otherwise.',
    ['Switch it on.', 'Setup: after a power cut, on.'],
    'Nothing is lost by it.',
  ),
  'it halts at power-on': say(
    'It halts at power-on',
    'It misses a keyboard or a display.',
    ['Plug one in, and go on.', 'Setup: halt on no errors.'],
    'Nothing is lost by it.',
  ),
  'rules lock you out': say(
    'The rules lock you out',
    'It is up, and does not let you in.',
    ['Wait: unconfirmed rules go back by themselves.', 'Else from its own keyboard: load the rules before.'],
    'Nothing is lost by it.',
  ),
  'other port or scheme': say(
    'The page is at another port',
    'http and https are two doors, and many pages have a port of their own.',
    ['Open it as Network writes it, with https and its port.'],
    'Nothing is lost by it.',
  ),
};

/** A cause in words. */
export const causeWords = (c: CauseCode): CauseWords => CAUSES[c];
