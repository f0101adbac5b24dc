import { basename } from 'node:path';
import { algorithmsWanted, compareDigests } from '@zb/core/checksum/compare';
import { verdictWords } from '@zb/core/words/comparison';
import { signatureWords } from '@zb/core/words/signature';
import { baseName, ListReader, type ChecksumList } from '@zb/core/formats/checksumList';
import { checkListSignature, type SignatureCheck } from '@zb/core/checksum/signature';
import { readWhole, type Unpacked } from '@zb/core/starting/whole';
import { linesOf, OpenFile, readBytes } from './inputFile';
import { withinLimit } from './limit';
import { progressOf } from './progress';

/** Reads of a list, however long it is, what it says of these names. */
async function readList(path: string, names: ReadonlySet<string>): Promise<ChecksumList> {
  const reader = new ListReader((file) => names.has(baseName(file)));
  for await (const line of linesOf(path)) reader.line(line);
  return reader.finish();
}

const withoutEnding = (name: string): string => name.replace(/\.[^.]+$/, '');

/** The names under which a list may speak of a file before it is opened: its own, and that of what is packed in it. */
const namesOf = (path: string): string[] => [basename(path), withoutEnding(basename(path))];

async function checked(path: string, listPath: string, list: ChecksumList, limit: number) {
  const file = await OpenFile.open(path);
  try {
    const name = basename(path);
    const options = {
      algorithms: algorithmsWanted(list, name),
      onProgress: progressOf(path, file.size),
      limit,
    };
    const read: Unpacked | undefined = await withinLimit(path, limit, () => readWhole(file, options));
    const container = read?.inspection.container;
    const inner = container?.innerName;
    // What is in an archive may have a name that nobody could know before it was opened.
    const lists =
      inner && !namesOf(path).includes(inner)
        ? await readList(listPath, new Set([...namesOf(path), baseName(inner)]))
        : list;
    const compared =
      read &&
      compareDigests(
        { name, bytes: file.size, digests: read.digests, container },
        lists,
        basename(listPath),
        new Date().toISOString(),
      );
    return {
      file: path,
      bytes: file.size,
      code: compared?.verdict ?? 'not-listed',
      verdict: verdictWords[compared?.verdict ?? 'not-listed'],
      of: compared?.of ?? 'file',
      algorithm: compared?.algorithm ?? null,
      published: compared?.published ?? null,
      computed: compared?.computed ?? null,
      publishedBytes: compared?.publishedBytes ?? null,
      from: compared?.from ?? basename(listPath),
    };
  } finally {
    await file.close();
  }
}

const told = (check: SignatureCheck) => ({ ...check, ...signatureWords(check) });

/** What `zb check` prints: the list, its signature where a key is given, and each file's verdict in plain words. */
export async function checkOutput(
  listPath: string,
  paths: readonly string[],
  limit: number,
  signature?: string,
  key?: string,
) {
  const list = await readList(listPath, new Set(paths.flatMap(namesOf)));
  const files = [];
  for (const path of paths) files.push(await checked(path, listPath, list, limit));
  return {
    list: listPath,
    sums: list.sumCount,
    unreadLines: list.unread,
    unread: list.unreadCount,
    signature:
      key === undefined
        ? null
        : told(
            await checkListSignature(
              await readBytes(listPath),
              signature === undefined ? undefined : await readBytes(signature),
              await readBytes(key),
            ),
          ),
    files,
    allMatch: files.every((f) => f.code === 'same'),
  };
}
