import { BASIC_DATA_GUID, BIOS_BOOT_GUID, ESP_GUID } from '../formats/gpt/layout';
import { MIB } from '../units/bytes';
import { loadBootCode, mbrBootCode, sayKernel } from './bootCode';
import { composeMbrDisk } from '../formats/mbr/write';
import { composeGptDisk } from '../formats/gpt/write';
import { composeFat } from '../formats/fat/write';
import { composeIso } from '../formats/iso9660/write';
import { efiLoader } from './efiLoader';

/** One image the stand-in depot offers. All are made up and made by this code; each prints a line and stops. */
export interface DepotImage {
  file: string;
  title: string;
  says: string;
  about: string;
  /** The profile in the demo bench that this image belongs to. */
  profile: string;
  build(): Uint8Array;
}

const text = (s: string): Uint8Array => Uint8Array.from(s, (c) => c.charCodeAt(0));

/** Bytes that do not compress and do not repeat, so that a swapped block shows; a 32-bit xorshift. */
function filler(length: number, seed: number): Uint8Array {
  const out = new Uint8Array(length);
  let x = seed;
  for (let i = 0; i < length; i += 4) {
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    out[i] = x & 0xff;
    out[i + 1] = (x >>> 8) & 0xff;
    out[i + 2] = (x >>> 16) & 0xff;
    out[i + 3] = x >>> 24;
  }
  return out;
}

function lanternArcade(): Uint8Array {
  const says = 'Lantern Arcade 7.2 starts here';
  const bootArea = new Uint8Array(MIB);
  bootArea.set(sayKernel(says));
  const esp = composeFat({
    bytes: 16 * MIB,
    label: 'LANTERN',
    hiddenSectors: 4096,
    files: [
      { path: '/EFI/BOOT/BOOTX64.EFI', bytes: efiLoader(says) },
      {
        path: '/LANTERN.TXT',
        bytes: text('Lantern Arcade 7.2, long support.\r\nPlays games on one machine.\r\n'),
      },
      { path: '/SYSTEM/CORE.PAK', bytes: filler(11 * MIB, 72) },
    ],
  });
  const share = composeFat({
    bytes: 12 * MIB,
    label: 'SHARE',
    hiddenSectors: 36864,
    files: [{ path: '/GAMES/README.TXT', bytes: text('One folder for each system.\r\n') }],
  });
  return composeGptDisk({
    bytes: 32 * MIB,
    diskGuid: '6D0B1C52-7A0E-4C55-9B11-7C2000000001',
    bootCode: mbrBootCode(2048),
    parts: [
      {
        start: MIB,
        content: bootArea,
        typeGuid: BIOS_BOOT_GUID,
        guid: '6D0B1C52-7A0E-4C55-9B11-7C2000000002',
        name: 'bios',
      },
      {
        start: 2 * MIB,
        content: esp,
        typeGuid: ESP_GUID,
        guid: '6D0B1C52-7A0E-4C55-9B11-7C2000000003',
        name: 'start',
      },
      {
        start: 18 * MIB,
        content: share,
        typeGuid: BASIC_DATA_GUID,
        guid: '6D0B1C52-7A0E-4C55-9B11-7C2000000004',
        name: 'share',
      },
    ],
  });
}

function curtainPlayer(): Uint8Array {
  const says = 'Curtain Player 12 starts here';
  return composeIso({
    label: 'CURTAIN_12',
    biosImage: sayKernel(says),
    uefiImage: composeFat({
      bytes: 4 * MIB,
      label: 'CURTAINEFI',
      files: [{ path: '/EFI/BOOT/BOOTX64.EFI', bytes: efiLoader(says) }],
    }),
    files: [
      { name: 'CURTAIN.PAK', bytes: filler(9 * MIB, 12) },
      { name: 'README.TXT', bytes: text('Curtain Player 12: films and slides.\r\n') },
    ],
  });
}

function millpond(): Uint8Array {
  const says = 'Millpond Tunes 4 starts here';
  return composeMbrDisk({
    bytes: 20 * MIB,
    start: MIB,
    type: 0x0e,
    bootCode: mbrBootCode(),
    content: composeFat({
      bytes: 18 * MIB,
      label: 'MILLPOND',
      hiddenSectors: 2048,
      bootCode: loadBootCode(2049),
      reserved: sayKernel(says),
      files: [
        { path: '/MUSIC/README.TXT', bytes: text('Music for machines of before 2012.\r\n') },
        { path: '/CORE.PAK', bytes: filler(6 * MIB, 4) },
      ],
    }),
  });
}

function tidegate(): Uint8Array {
  return composeFat({
    bytes: 8 * MIB,
    label: 'TIDEGATE',
    files: [
      { path: '/EFI/BOOT/BOOTX64.EFI', bytes: efiLoader('Tidegate 3 starts here') },
      { path: '/GATE.PAK', bytes: filler(3 * MIB, 3) },
    ],
  });
}

export const depotImages: readonly DepotImage[] = [
  {
    file: 'lantern-arcade-7.2-x64.img',
    title: 'Lantern Arcade 7.2',
    says: 'Lantern Arcade 7.2 starts here',
    profile: 'lantern-arcade',
    about: 'Games. For sticks and drives; BIOS and UEFI x64.',
    build: lanternArcade,
  },
  {
    file: 'curtain-player-12-x64.iso',
    title: 'Curtain Player 12',
    says: 'Curtain Player 12 starts here',
    profile: 'curtain-player',
    about: 'Films and slides. Optical image; BIOS and UEFI x64.',
    build: curtainPlayer,
  },
  {
    file: 'millpond-tunes-4-legacy.img',
    title: 'Millpond Tunes 4, legacy build',
    says: 'Millpond Tunes 4 starts here',
    profile: 'millpond-tunes',
    about: 'Music. For old machines; BIOS only.',
    build: millpond,
  },
  {
    file: 'tidegate-3-x64.img',
    title: 'Tidegate 3',
    says: 'Tidegate 3 starts here',
    profile: 'tidegate',
    about: 'Firewall. One FAT volume without a table; UEFI x64 only.',
    build: tidegate,
  },
];

/** The file whose download went wrong: the list's sum is that of the whole image, the bytes end early. */
export const brokenDownload = {
  file: 'lantern-arcade-7.2-x64-again.img',
  title: 'Lantern Arcade 7.2, fetched on a bad line',
  about: 'The same image as published, but this copy did not arrive whole.',
  of: 'lantern-arcade-7.2-x64.img',
  /** Cut at 21 MiB and one byte turned, as a dropped and resumed line leaves it. */
  spoil(bytes: Uint8Array): Uint8Array {
    const out = bytes.slice(0, 21 * MIB);
    out[5 * MIB] = (out[5 * MIB] ?? 0) ^ 0x10;
    return out;
  },
} as const;
