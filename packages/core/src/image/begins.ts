import type { ByteSource } from '../formats/source';
import type { BootVolume } from './loaders';
import type { Candidate, ImageFacts } from './read';

/** What a firmware starts first, with what it takes to follow it. Offsets in bytes of the facts' source. */
export type Begins =
  | { by: 'efi'; volume: BootVolume; path: string }
  /** GRUB's second stage: its first sector, or the boot image of an optical volume. */
  | { by: 'grub'; facts: ImageFacts; at: number; optical: boolean }
  /** The second stage of SYSLINUX or EXTLINUX, on a part or on a volume that no table names. */
  | {
      by: 'stage file';
      facts: ImageFacts;
      base: number;
      candidate: Candidate | undefined;
      path: string;
      stage: ByteSource;
    }
  | { by: 'optical loader'; facts: ImageFacts; at: number }
  /** A kernel that boot code has read. */
  | { by: 'kernel'; source: ByteSource; at: number }
  /** What board loaders look for on the first FAT part. */
  | { by: 'board'; volume: BootVolume };
