/** The grammars that standards have for names, as patterns: a schema shows them, a reader and a writer ask them. */

const LABEL = '[A-Za-z\\d](?:[A-Za-z\\d-]{0,61}[A-Za-z\\d])?';
const GUID = '[\\da-fA-F]{8}(?:-[\\da-fA-F]{4}){3}-[\\da-fA-F]{12}';
const ATTRIBUTE = '(?:RequiredPartition|NoBlockIOProtocol|LegacyBIOSBootable|GUID:\\d{1,2}(?:,\\d{1,2})*)';

/** Patterns of names that go into files of other programs. */
export const grammar = {
  /** One host: letters, digits and hyphens, none of these at an end, at most 63 (RFC 1123 §2.1, RFC 1035 §2.3.4). */
  hostLabel: new RegExp(`^${LABEL}$`),
  /** A domain: such labels with dots between them, one more dot allowed at its end, at most 253 (RFC 1034 §3.1, RFC 1035 §2.3.4). */
  domain: new RegExp(`^(?=.{1,253}\\.?$)${LABEL}(?:\\.${LABEL})*\\.?$`),
  /** A network interface: at most 15 characters (Linux, dev_valid_name in net/core/dev.c), of these the plain ones alone; none that a command takes for an option. */
  interface: /^[A-Za-z\d_][\w.-]{0,14}$/,
  /** Where a file system may be mounted: an absolute path without empty, “.” and “..” parts and control characters (POSIX.1-2017 §3.271), the root among them. */
  mountPoint: /^(?:\/|(?:\/(?!\.{1,2}(?:\/|$))[^/\p{Cc}\p{Cs}\p{Zl}\p{Zp}]+)+)$/u,
  /** The type of a partition: a GUID (UEFI 2.10 §5.3.3), or a byte in hexadecimal as MBR tables have it. */
  partitionType: new RegExp(`^(?:${GUID}|(?:0x)?[\\da-fA-F]{1,2})$`),
  /** What udev and lsblk(8) know a partition by: a GUID, or on MBR the table's identity with the partition's number. */
  partitionId: new RegExp(`^(?:${GUID}|[\\da-fA-F]{8}-[\\da-fA-F]{2})$`),
  /** What a table is known by: a GUID (UEFI 2.10 §5.3.2), or the signature of an MBR in hexadecimal (§5.2.1). */
  tableId: new RegExp(`^(?:${GUID}|0x[\\da-fA-F]{1,8})$`),
  /** Attributes of a partition (UEFI 2.10 §5.3.3) by the names that sfdisk(8) has for them; empty where it has none. */
  attributes: new RegExp(`^(?:${ATTRIBUTE}(?:[ ,]${ATTRIBUTE})*)?$`),
  /** The kind of a key as known_hosts has it (OpenSSH sshd(8); RFC 4250 §4.6.1). */
  keyType: /^[a-zA-Z][a-zA-Z\d@.-]{0,59}$/,
  /** Base64 (RFC 4648 §4). */
  base64: /^(?=(?:.{4})+$)[A-Za-z\d+/]+={0,2}$/,
  /** A NetBIOS name or workgroup that every reader takes (RFC 1001 §14; at most 15 letters, of these the plain ones). */
  workgroup: /^[A-Za-z\d][\w.-]{0,14}$/,
  /** A share ([MS-FSCC] §2.1.6, from memory): no control character and none of these marks; % stands for something in smb.conf(5). No blank at an end. */
  shareName: /^(?!\s)[^"\\/[\]:|<>+=;,*?%\p{Cc}\p{Cs}\p{Zl}\p{Zp}]{1,80}(?<!\s)$/u,
  /** The serial of a drive as commands may name it: none that is an option, or so short that it names several. Common practice, no source. */
  driveSerial: /^\w[\w.-]{3,}$/,
  /** The path of a page: absolute, of the letters a URL may have there, with what may stand behind it (RFC 3986 §3.3–3.5). */
  urlPath: /^\/(?!\/)(?:[\w.~!$&'()*+,;=:@/?#-]|%[\da-fA-F]{2})*$/,
} as const;
/** A name of which the grammar is known. */
export type Grammar = keyof typeof grammar;

/** Whether a text follows the grammar of a name. */
export const follows = (name: Grammar, text: string): boolean => grammar[name].test(text);

/** A text that follows the grammar of a name; null where it does not, or where there is none. */
export const following = (name: Grammar, text: string | null | undefined): string | null =>
  text != null && follows(name, text) ? text : null;
