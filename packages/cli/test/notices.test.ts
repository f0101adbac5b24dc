/** What ships is named with its licence, and with the text of it. */
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';

interface Shipped {
  name: string;
  licence: string;
  texts: string[];
}
const root = join(__dirname, '../../..');
const asked = (what: string): string =>
  execFileSync(
    process.execPath,
    [
      '--input-type=module',
      '-e',
      `import { shipped, notices } from './tools/notices.mjs'; console.log(${what});`,
    ],
    { cwd: root, encoding: 'utf8', maxBuffer: 16 * 1024 * 1024 },
  );

describe('third-party notices', () => {
  const list = JSON.parse(asked('JSON.stringify(shipped())')) as Shipped[];
  it('name every package with a licence that may be shipped', () => {
    expect(list.length).toBeGreaterThan(100);
    expect(
      list.filter((p) => !/MIT|Apache|ISC|BSD|OFL|LGPL-3|CC0/.test(p.licence)).map((p) => p.name),
    ).toEqual([]);
  });
  it('hold the text of every licence that asks for it, of LGPL with the GPL it refers to', () => {
    const text = asked('notices()');
    const lgpl = list.filter((p) => /LGPL/.test(p.licence));
    expect(lgpl.map((p) => p.name)).toEqual(['openpgp']);
    for (const { texts } of lgpl) expect(texts.join()).toMatch(/LESSER GENERAL PUBLIC LICENSE/);
    expect(text).toMatch(/GNU GENERAL PUBLIC LICENSE\s+Version 3/);
    // Nearly all packages bring their text; a few name their licence alone.
    expect(list.filter((p) => p.texts.length === 0).length).toBeLessThan(list.length / 5);
  });
});
