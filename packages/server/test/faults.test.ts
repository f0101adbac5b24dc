/** What the file system says, in words for the user: no code and no path is told. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { UnreadableSource } from '@zb/core/container/fault';
import { faultWords } from '@zb/server/files/faultWords';
import { makeFolder, makeFolderNow } from '@zb/server/files/makeFolder';

const root = mkdtempSync(join(tmpdir(), 'zb-faults-'));
afterAll(() => rmSync(root, { recursive: true, force: true }));
const of = (code: string): Error => Object.assign(new Error(`${code}: i/o error, read`), { code });

it('a medium that failed under an unpacker is told as what it said', () => {
  expect(faultWords(new UnreadableSource(of('EIO')))).toBe('the disk failed to read or write it');
  expect(faultWords(new UnreadableSource(new UnreadableSource(of('ENOSPC'))))).toMatch(/no room/);
});

describe('a folder', () => {
  it('is made with all above it, and again', async () => {
    for (let i = 0; i < 2; i += 1) {
      await makeFolder(join(root, 'a/b/c'));
      makeFolderNow(join(root, 'd/e'));
    }
    writeFileSync(join(root, 'a/b/c/f'), '');
    writeFileSync(join(root, 'd/e/f'), '');
  });
  it('that cannot be made is told with the reason', async () => {
    writeFileSync(join(root, 'file'), '');
    await expect(makeFolder(join(root, 'file/x/y'))).rejects.toMatchObject({ code: 'ENOTDIR' });
    expect(() => makeFolderNow(join(root, 'file/x/y'))).toThrow(
      expect.objectContaining({ code: 'ENOTDIR' }) as Error,
    );
  });
});
