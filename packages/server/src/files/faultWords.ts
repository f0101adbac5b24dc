import { PackedFault, UnreadableSource } from '@zb/core/container/fault';
import { packedFaultWords } from '@zb/core/words/packedFault';

const WORDS: Record<string, string> = {
  ENOSPC: 'there is no room left on the disk',
  EDQUOT: 'this user’s share of the disk is used up',
  EFBIG: 'the file system does not take a file of that size',
  EROFS: 'the disk may only be read',
  EACCES: 'this user may not read or write it',
  EPERM: 'this user may not read or write it',
  EISDIR: 'a folder stands where a file should be',
  ENOTEMPTY: 'a folder stands where a file should be',
  ENOTDIR: 'a file stands where a folder should be',
  EEXIST: 'something else stands where it should be',
  ELOOP: 'a link stands where a file should be, and links are not followed',
  ENOENT: 'it is not there any more',
  EIO: 'the disk failed to read or write it',
  EMFILE: 'too many files are open',
  ENFILE: 'too many files are open',
  ENXIO: 'something that is no file stands there',
};

/** The file system's code of a fault, where it has one ("ENOSPC"). */
export const faultCode = (error: unknown): string | undefined => {
  const code = (error as { code?: unknown } | null | undefined)?.code;
  return typeof code === 'string' ? code : undefined;
};

/** What a fault of the file system means, in words that follow a colon; no path of this machine in them. */
export function faultWords(error: unknown): string {
  // What a medium said under an unpacker is the fault, not that it was unpacked.
  if (error instanceof UnreadableSource) return faultWords(error.cause);
  const code = faultCode(error);
  if (code !== undefined) return WORDS[code] ?? `the file system answered ${code}`;
  if (error instanceof PackedFault) return packedFaultWords(error.reason);
  return error instanceof Error ? error.message : String(error);
}
