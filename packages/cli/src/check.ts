import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { algorithmsWanted, compareDigests, verdictWords } from '@zb/core/checksum/compare';
import { parseChecksumList } from '@zb/core/checksum/list';
import { checkListSignature } from '@zb/core/checksum/signature';
import { readWhole } from '@zb/core/container/read';
import { textOf } from '@zb/core/units/text';
import { OpenFile } from './fileSource';

/** What `zb check` prints: the list, its signature where a key is given, and each file's verdict in plain words. */
export async function checkOutput(listPath: string, files: string[], signature?: string, key?: string) {
  const bytes = readFileSync(listPath);
  const list = parseChecksumList(textOf(bytes));
  const out = [];
  for (const path of files) {
    const file = await OpenFile.open(path);
    try {
      const name = basename(path);
      const read = await readWhole(file, { algorithms: algorithmsWanted(list, name) });
      const compared =
        read &&
        compareDigests(
          { name, bytes: file.size, digests: read.digests, container: read.inspection.container },
          list,
          basename(listPath),
          new Date().toISOString(),
        );
      out.push({
        file: path,
        bytes: file.size,
        verdict: compared ? verdictWords[compared.verdict] : 'not listed',
        of: compared?.of ?? 'file',
        algorithm: compared?.algorithm ?? null,
        published: compared?.published ?? null,
        computed: compared?.computed ?? null,
        publishedBytes: compared?.publishedBytes ?? null,
        from: compared?.from ?? basename(listPath),
      });
    } finally {
      await file.close();
    }
  }
  return {
    list: listPath,
    sums: list.sums.length,
    unreadLines: list.unread,
    signature:
      key === undefined
        ? null
        : await checkListSignature(
            bytes,
            signature === undefined ? undefined : readFileSync(signature),
            readFileSync(key),
          ),
    files: out,
    allMatch: out.every((f) => f.verdict === verdictWords.same),
  };
}
