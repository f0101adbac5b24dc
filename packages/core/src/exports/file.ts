import type { ContentEntry } from '../model/contentRules';
import type { Bench } from '../model/bench';

/** What a file is written in; one strict reader of each holds every file of it to its structure. */
export const fileFormats = [
  'shell',
  'dnsmasq',
  'dhcpd.conf',
  'json',
  'hosts',
  'csv',
  'unit',
  'yaml',
  'interfaces',
  'keyfile',
  'known_hosts',
  'nftables',
  'sysctl',
  'markdown',
  'smb.conf',
  'exports',
  'nginx',
  'xml',
  'fstab',
  'sfdisk',
  'grub',
  'html',
  'icalendar',
  'iso9660',
  'checksums',
  'paths',
] as const;
/** What a file is written in. */
export type FileFormat = (typeof fileFormats)[number];

/** A file that leaves the application: a name that tells it from others of the same writer, and what is in it. */
export interface ExportedFile {
  name: string;
  content: string | Uint8Array;
}

/** What files are made of. `at`: the moment they are written (ISO 8601, UTC). */
export interface ExportInput {
  bench: Bench;
  at: string;
  /** A folder that was looked through, for what copies and renames. */
  folder: readonly ContentEntry[];
}

/** One kind of file that leaves the application. */
export interface Writer<In> {
  id: string;
  format: FileFormat;
  files: (input: In) => ExportedFile[];
}
