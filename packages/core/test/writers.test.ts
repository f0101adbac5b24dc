/** Writers of single formats: what they quote, and what they refuse. */
import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { micromark } from 'micromark';
import { gfm, gfmHtml } from 'micromark-extension-gfm';
import { parse as parseYaml } from 'yaml';
import { JSDOM } from 'jsdom';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { exportedFiles } from '@zb/core/exports/writers';
import { SHEET_SCRIPT, SHEET_SCRIPT_HASH } from '@zb/core/firststart/sheetScript';
import { attributeBits, attributesOf } from '@zb/core/formats/gpt/attributes';
import { csvOf } from '@zb/core/formats/writer/csv';
import { html } from '@zb/core/formats/writer/html';
import { plainTemplate } from '@zb/core/formats/writer/lines';
import { codeSpan, markdownTable, markdownText } from '@zb/core/formats/writer/markdown';
import { nginx } from '@zb/core/formats/writer/nginx';
import { fstabLine } from '@zb/core/formats/writer/octal';
import { fixedShell, sh, shellComment, shellWord } from '@zb/core/formats/writer/shell';
import { smb, smbSection } from '@zb/core/formats/writer/smbConf';
import { UnwritableError } from '@zb/core/formats/writer/template';
import { yamlOf } from '@zb/core/formats/writer/yaml';
import { follows, type Grammar } from '@zb/core/units/grammar';
import { shownOnTerminal } from '@zb/core/units/terminal';
import { TRAVEL_SCRIPT, TRAVEL_SCRIPT_HASH } from '@zb/core/words/runsheet/travelScript';
import { shellTokens } from './skeletons';
import { runs } from './runs';

const any = fc.string({ unit: 'binary', maxLength: 40 });

describe('the shell', () => {
  it('a value is one word, to the letter (IEEE Std 1003.1, “Quoting”)', () => {
    fc.assert(
      fc.property(any, (text) => {
        if (text.includes('\0')) return expect(() => shellWord(text)).toThrow(UnwritableError);
        const { tokens } = shellTokens(`echo ${shellWord(text)}\n`);
        expect(tokens).toHaveLength(3);
      }),
      { numRuns: runs(500) },
    );
  });
  it('nothing that moves a cursor stands in a script, and the shell makes it again', () => {
    expect(shellWord('a\u001b[31mb')).toBe(`'a'"$(printf '\\033')"'[31mb'`);
  });
  it('a value within quotes would end them: it is refused', () => {
    expect(() => sh`echo "${'x'}"`).toThrow(UnwritableError);
    expect(() => sh`echo '${'x'}'`).toThrow(UnwritableError);
    expect(sh`echo "a b" ${'c d'}`.text).toBe(`echo "a b" 'c d'`);
    expect(sh`x=${fixedShell('"$d1"')} ${['a', 'b c']}`.text).toBe(`x="$d1" a 'b c'`);
  });
  it('a comment stays one line', () => {
    expect(shellComment('a\nrm -rf /\u2028b').text).toBe('# a rm -rf / b');
  });
});

describe('formats that know no quoting', () => {
  const line = plainTemplate('dnsmasq', ',');
  it.each(['a b', 'a\nb', 'a#b', 'a"b', '', 'a;b', "a'b", '$x', 'a,b', 'a\\'])('%j is refused', (text) => {
    expect(() => line`domain=${text}`).toThrow(UnwritableError);
  });
  it('a list is joined, a number stands as it is', () => {
    expect(line`x=${['a', 1, line`b${2}`]}`.text).toBe('x=a,1,b2');
  });
});

describe('smb.conf and nginx', () => {
  it.each(['a%Ub', 'a\nb', ' a', 'a ', 'a\\', ''])('%j is no value of smb.conf(5)', (text) => {
    expect(() => smb`path = ${text}`).toThrow(UnwritableError);
  });
  it.each(['a]b', 'a/b', '[x', 'a%b'])('%j is no name of a share', (text) => {
    expect(() => smbSection(text)).toThrow(UnwritableError);
  });
  it('a value of nginx is in quotes; $ begins a variable that no quoting takes back', () => {
    expect(nginx`alias ${'/srv/a"b\\c'};`.text).toBe('alias "/srv/a\\"b\\\\c";');
    expect(() => nginx`alias ${'/srv/$x'};`).toThrow(UnwritableError);
  });
});

describe('tables, pages and sheets', () => {
  it('a field of fstab(5) ends nowhere', () => {
    expect(fstabLine`${'/a b\n#"\\ü'} none`.text).toBe('/a\\040b\\012\\043\\042\\134\\303\\274 none');
  });
  it('no cell is a formula, whatever it holds behind its first letter', () => {
    for (const text of ['=1', '+1', '-x', '@a', '\t=1', '=a\nb'])
      expect(csvOf(['h'], [[text]])).toContain(`'${text}`);
    expect(csvOf(['h'], [[-5]])).toBe('h\r\n-5');
  });
  it('any text is one paragraph of text (CommonMark 0.31, GFM 0.29)', () => {
    const page = (text: string): string =>
      micromark(text, { extensions: [gfm()], htmlExtensions: [gfmHtml()] });
    fc.assert(
      fc.property(
        fc.oneof(
          any,
          fc.stringMatching(/^[-+*#>=_~`!|.()[\]<&:/@w\d\s]{1,30}$/),
          fc.constantFrom(
            '1. a',
            '---',
            '===',
            'www.a.bc',
            'http://a.bc',
            'a@b.cd',
            '![a](http://x)',
            '&lt;',
          ),
        ),
        (text) => {
          const found = page(markdownText(text));
          expect(found.replace(/^<p>|<\/p>$/g, '')).not.toMatch(/<[a-z]/);
          expect(page(codeSpan(text).text).match(/<[a-z]+/g) ?? []).toEqual(['<p', '<code']);
          const table = page(markdownTable(['a', 'b'], [[text, codeSpan(text)]]).join('\n'));
          expect(table.match(/<td/g)).toHaveLength(2);
        },
      ),
      { numRuns: runs(800) },
    );
  });
  it('a value is text in an element and in an attribute (HTML Living Standard §13.1.4)', () => {
    expect(html`<p title="${`"'`}">${'<b>'}${[html`<i>`, '&']}</p>`.text).toBe(
      '<p title="&quot;&#39;">&lt;b&gt;<i>&amp;</p>',
    );
  });
  it('a page allows its own script by what it is: another character, and it does not run', () => {
    const hash = (text: string): string => createHash('sha256').update(text).digest('base64');
    expect(TRAVEL_SCRIPT_HASH).toBe(hash(TRAVEL_SCRIPT));
    expect(SHEET_SCRIPT_HASH).toBe(hash(SHEET_SCRIPT));
    const hall = saltmarshHall();
    const pages = exportedFiles(
      { bench: hall, at: '2026-03-05T18:00:00.000Z', folder: [] },
      { box: 'archive' },
    );
    for (const { content } of pages.filter((f) => f.format === 'html')) {
      const { document } = new JSDOM(String(content)).window;
      const policy = document.querySelector('meta[http-equiv]')?.getAttribute('content') ?? '';
      expect(policy).toContain("default-src 'none'");
      for (const script of document.querySelectorAll('script:not([type])'))
        expect(policy).toContain(`'sha256-${hash(script.textContent)}'`);
    }
  });
  it('any value of YAML is read again as it was', () => {
    fc.assert(
      fc.property(
        fc.jsonValue({ noNullPrototype: true, depthSize: 'small' } as never),
        any,
        (value, text) => {
          const plain = JSON.parse(
            JSON.stringify({ value, [`k${text}`]: text }, (_, v: unknown) => v ?? 'null'),
          ) as object;
          expect(parseYaml(yamlOf(plain as never))).toEqual(plain);
        },
      ),
      { numRuns: runs(300) },
    );
  });
  it('a terminal is told of its controls, not given them', () => {
    expect(shownOnTerminal('a\u001b[2Jb\u009b1m\u202e\n')).toBe('a\\u001b[2Jb\\u009b1m\\u202e\n');
  });
});

describe('names that go into files', () => {
  it.each([
    [
      'hostLabel',
      ['a', 'film-night', 'A1', '0', 'a'.repeat(63)],
      ['', '-a', 'a-', 'a.b', 'ä', 'a_b', 'a'.repeat(64), 'a\n'],
    ],
    [
      'domain',
      ['home.arpa', 'a', 'a.b.', 'x'.repeat(63)],
      ['', '.', 'a..b', 'a b', 'a\nb', '-a.b', 'a/b', `${'a.'.repeat(130)}a`],
    ],
    [
      'interface',
      ['eth0', 'enp1s0.20', 'a'.repeat(15)],
      ['', '.', '..', '-a', 'a/b', 'a b', 'a:b', 'a'.repeat(16)],
    ],
    ['mountPoint', ['/', '/srv/a b', '/srv/ü'], ['', 'srv', '/a/', '/a//b', '/a/../b', '/.', '/a\nb']],
    ['partitionType', ['83', '0x7', 'ef', 'c12a7328-f81f-11d2-ba4b-00a0c93ec93b'], ['', '83,', 'xyz', '123']],
    ['tableId', ['0x1a2b3c4d', 'C12A7328-F81F-11D2-BA4B-00A0C93EC93B'], ['1a2b3c4d', '0x', '0x123456789']],
    [
      'attributes',
      ['', 'RequiredPartition', 'LegacyBIOSBootable GUID:48,63'],
      [' ', 'GUID:', 'a', 'GUID:1"'],
    ],
    ['keyType', ['ssh-ed25519', 'sk-ecdsa-sha2-nistp256@openssh.com'], ['', 'a b', 'a\nb', '-a', 'a,b']],
    ['base64', ['QUJD', 'QUI=', 'QQ=='], ['', 'QUJ', 'QUJ D', 'QUJD\n', '====']],
    ['shareName', ['Films 2', 'ü', 'a$'], ['', ' a', 'a ', 'a]b', 'a%b', 'a\nb', 'a'.repeat(81)]],
    ['urlPath', ['/', '/admin?x=1#a', '/a%20b'], ['', 'a', '//a.bc', '@a.bc', '/a b', '/a"', '/%']],
    ['driveSerial', ['SN-0000', '7C20', '_abc'], ['abc', '--abc', 'a b c d', '$(x)x']],
  ] as [Grammar, string[], string[]][])('%s', (name, good, bad) => {
    expect(good.filter((t) => !follows(name, t))).toEqual([]);
    expect(bad.filter((t) => follows(name, t))).toEqual([]);
  });
  it('attributes of a partition are bits, and bits attributes (UEFI 2.10 table 5.8)', () => {
    expect(attributesOf(0n)).toBe('');
    expect(attributesOf(0x8001000000000005n)).toBe('RequiredPartition LegacyBIOSBootable GUID:48,63');
    expect(attributeBits('RequiredPartition LegacyBIOSBootable GUID:48,63')).toEqual([0, 2, 48, 63]);
  });
});
