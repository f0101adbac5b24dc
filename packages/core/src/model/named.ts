import { z } from 'zod';
import { grammar, type Grammar } from '../units/grammar';

/** A name that goes into files of other programs: checked by the grammar of its standard where it enters. */
const named = (name: Grammar, most: number, what: string) => z.string().max(most).regex(grammar[name], what);

/** The name of a host without its domain. */
export const hostLabelSchema = named(
  'hostLabel',
  63,
  'takes letters, digits and hyphens, none of these at an end',
);
/** The domain behind the names of a network. */
export const domainSchema = named('domain', 254, 'is a domain name such as home.arpa');
/** The name of a network interface. */
export const interfaceSchema = named('interface', 15, 'is the name of an interface such as enp1s0');
/** Where a file system is mounted. */
export const mountPointSchema = named('mountPoint', 200, 'is a whole path such as /srv/data');
/** The type of a partition as its table has it; empty where the table has none. */
export const partitionTypeSchema = z.union([
  z.literal(''),
  named('partitionType', 60, 'is a GUID or two hexadecimal digits'),
]);
/** The identity of a partition. */
export const partitionIdSchema = named(
  'partitionId',
  60,
  'is a GUID, or eight hexadecimal digits with a number',
);
/** The identity of a table. */
export const tableIdSchema = named('tableId', 60, 'is a GUID, or a number such as 0x1a2b3c4d');
/** Attributes of a partition by the names that sfdisk(8) has for them; empty where it has none. */
export const attributesSchema = named('attributes', 200, 'is a list such as RequiredPartition GUID:63');
/** The kind of a key of a remote shell. */
export const keyTypeSchema = named('keyType', 60, 'is a kind such as ssh-ed25519');
/** The bytes of a key. */
export const keyBytesSchema = named('base64', 2000, 'is Base64');
/** The workgroup of a file server. */
export const workgroupSchema = named('workgroup', 15, 'takes letters, digits, dots, hyphens and underscores');
/** The name of a share. */
export const shareNameSchema = named(
  'shareName',
  80,
  'takes none of " \\ / [ ] : | < > + = ; , * ? %, and no blank at an end',
);
/** The path of a page on its machine. */
export const urlPathSchema = named('urlPath', 200, 'is a path such as /admin');
