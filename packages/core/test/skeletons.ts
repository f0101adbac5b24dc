/**
 * What a file is made of, without what its values say: lines, tokens, keys and elements in their order. Each reader is strict:
 * what its format does not have is thrown. Two benches that differ in names alone have files of one skeleton.
 */
import { JSDOM } from 'jsdom';
import { micromark } from 'micromark';
import { gfm, gfmHtml } from 'micromark-extension-gfm';
import Papa from 'papaparse';
import { parseDocument } from 'yaml';
import { readManifest } from '@zb/core/content/written';
import type { FileFormat } from '@zb/core/exports/file';

const fail = (format: string, what: string): never => {
  throw new Error(`no ${format}: ${JSON.stringify(what.slice(0, 200))}`);
};
const linesOf = (text: string): string[] => {
  if (text !== '' && !text.endsWith('\n')) fail('text file', text.slice(-80));
  // Whatever some reader takes for the end of a line.
  if (/[\r\v\f\u0085\u2028\u2029\0]/.test(text))
    fail('plain lines', /[^\n]*[\r\v\f\u0085\u2028\u2029\0][^\n]*/.exec(text)?.[0] ?? '');
  return text.split('\n').slice(0, -1);
};

/** A word of a shell: how it is put together, and what of it the shell would expand. */
interface Word {
  text: string;
  /** Unquoted text and expansions, which must never stem from a value. */
  bare: string;
}

/** Words and operators of a script for a POSIX shell (IEEE Std 1003.1, §2.3 “Token Recognition”), with what here-documents hold. */
export function shellTokens(text: string): { tokens: (Word | string)[]; documents: string[] } {
  const tokens: (Word | string)[] = [];
  const documents: string[] = [];
  const ends: string[] = [];
  let i = 0;
  const until = (close: string, from: number): number => {
    const found = text.indexOf(close, from);
    return found < 0 ? fail('shell script', text.slice(from - 1, from + 60)) : found;
  };
  while (i < text.length) {
    const c = text[i] ?? '';
    if (c === '\n') {
      tokens.push('\n');
      i += 1;
      for (const end of ends.splice(0)) {
        const stop = text.indexOf(`\n${end}\n`, i - 1);
        if (stop < 0) fail('here-document', end);
        documents.push(text.slice(i, stop + 1));
        i = stop + end.length + 2;
      }
    } else if (c === ' ' || c === '\t') i += 1;
    else if (c === '#' && (i === 0 || /[\s;&|(]/.test(text[i - 1] ?? ''))) {
      const end = text.indexOf('\n', i);
      i = end < 0 ? text.length : end;
    } else if (/[;&|<>(){}]/.test(c)) {
      const op = /^(?:;;|&&|\|\||<<-?|>>|>&|<&|[;&|<>(){}])/.exec(text.slice(i))?.[0] ?? c;
      tokens.push(op);
      i += op.length;
      if (op === '<<') {
        const [, end = ''] =
          /^'([A-Z_]+)'/.exec(text.slice(i)) ?? fail('here-document', text.slice(i, i + 40));
        ends.push(end);
        tokens.push({ text: end, bare: '' });
        i += end.length + 2;
      }
    } else {
      const word: Word = { text: '', bare: '' };
      while (i < text.length && !/[\s;&|<>(){}]/.test(text[i] ?? '')) {
        const d = text[i] ?? '';
        if (d === "'") {
          const end = until("'", i + 1);
          word.text += text.slice(i + 1, end);
          i = end + 1;
        } else if (d === '"') {
          let j = i + 1;
          while (text[j] !== '"') {
            if (j >= text.length) fail('quoted word', text.slice(i, i + 60));
            j += text[j] === '\\' ? 2 : 1;
          }
          const inner = text.slice(i + 1, j);
          word.text += inner;
          // Within double quotes a shell still expands.
          if (/[$`]/.test(inner)) word.bare += inner;
          i = j + 1;
        } else if (d === '\\') {
          word.text += text[i + 1] ?? '';
          i += 2;
        } else if (d === '$' && text[i + 1] === '{') {
          const end = until('}', i);
          word.bare += text.slice(i, end + 1);
          word.text += '$';
          i = end + 1;
        } else if (d === '`') fail('shell script of ours', text.slice(i, i + 40));
        else {
          word.text += d;
          word.bare += d;
          i += 1;
        }
      }
      tokens.push(word);
    }
  }
  return { tokens, documents };
}

/** Lines of a script, each once: options and commands as they stand, every other word as one of several kinds. */
function shell(text: string): unknown {
  const { tokens, documents } = shellTokens(text);
  const lines: string[][] = [[]];
  let first = true;
  for (const t of tokens) {
    if (typeof t === 'string') {
      first = true;
      if (t === '\n') lines.push([]);
      else lines.at(-1)?.push(t);
      continue;
    }
    const command = first;
    first = /^(?:then|else|do|if|while|!|[A-Za-z_]\w*=.*)$/.test(t.text);
    const expands = t.bare.match(/\$\w+|\$\{[^}]*\}|[*?[~]/g);
    lines
      .at(-1)
      ?.push(
        command
          ? `command ${t.bare === '' ? t.text : t.bare}`
          : expands
            ? `expands ${expands.join(' ')}`
            : t.text.startsWith('-')
              ? `option ${/^-+[A-Za-z-]*/.exec(t.text)?.[0] ?? ''}`
              : 'word',
      );
  }
  // How many lines of one kind there are, names decide as well: two that are alike are one.
  const kinds = [...new Set(lines.map((l) => l.join(' ')))].sort();
  return {
    kinds,
    documents: documents.map((d) =>
      d.split('\n').map((l) => l.replace(/"[^"]*"/g, '""').replace(/[^\s{}="]+/g, 'w')),
    ),
  };
}

/** `key = value` lines under heads in brackets. */
const sections =
  (format: string) =>
  (text: string): unknown =>
    linesOf(text).map((line) => {
      if (line === '' || line.startsWith('#')) return line.slice(0, 1);
      const head = /^\[([^\][]+)\]$/.exec(line)?.[1];
      if (head !== undefined) return format === 'smb.conf' && head !== 'global' ? '[share]' : `[${head}]`;
      const [, key] = /^\s*([A-Za-z][\w.: -]*?)\s*=\s*\S.*$/.exec(line) ?? fail(format, line);
      return key;
    });

const fields =
  (format: string, count: (n: number) => boolean) =>
  (text: string): unknown =>
    linesOf(text).map((line) => {
      if (line.startsWith('#')) return '#';
      const n = line.trim().split(/[ \t]+/).length;
      return count(n) && line.trim() !== '' ? n : fail(format, line);
    });

function dnsmasq(text: string): unknown {
  return linesOf(text).map((line) => {
    if (line.startsWith('#')) return '#';
    const [, key = '', value] = /^([a-z][a-z0-9-]*)(?:=([\w.:/,@-]*))?$/.exec(line) ?? fail('dnsmasq', line);
    return `${key} ${value === undefined ? '' : value.split(',').length}`;
  });
}

function tokensOf(format: string, comments: boolean) {
  return (text: string): unknown => {
    const out: string[] = [];
    for (const line of linesOf(text)) {
      if (comments && line.trim().startsWith('#')) continue;
      let rest = line;
      while (rest.trim() !== '') {
        rest = rest.trimStart();
        const token = /^(?:"(?:[^"\\]|\\.)*"|[{};,=]|[^\s{};,="]+)/.exec(rest)?.[0] ?? fail(format, line);
        out.push(token.startsWith('"') ? '""' : token);
        rest = rest.slice(token.length);
      }
      out.push('\n');
    }
    return out;
  };
}
/** Tokens of which those stay that a format knows; values are one to another. */
const masked =
  (format: string, known: RegExp) =>
  (text: string): unknown =>
    (tokensOf(format, true)(text) as string[]).map((t) => (known.test(t) ? t : 'v'));

const shape = (v: unknown): unknown =>
  Array.isArray(v)
    ? v.map(shape)
    : typeof v === 'object' && v !== null
      ? Object.entries(v).map(([k, x]) => [/^[\w-]+$/.test(k) ? k : 'key', shape(x)])
      : typeof v;

function elements(root: Element): unknown {
  const script = root.tagName.toLowerCase() === 'script' ? root.textContent : null;
  return [
    root.tagName,
    [...root.attributes].map((a) => a.name),
    // A script or a style is ours to the letter; a record that travels is of one shape.
    script === null
      ? null
      : root.getAttribute('type') === 'application/json'
        ? shape(JSON.parse(script))
        : script,
    [...root.children].map(elements),
  ];
}
const page = (text: string): unknown => elements(new JSDOM(text).window.document.documentElement);

function calendar(text: string): unknown {
  if (/[^\r]\n|\r[^\n]/.test(text)) fail('iCalendar', text);
  for (const line of text.split('\r\n'))
    if (new TextEncoder().encode(line).length > 75) fail('folded line', line);
  return text
    .replace(/\r\n[ \t]/g, '')
    .split('\r\n')
    .filter((l) => l !== '')
    .map((l) => {
      if (/[\p{Cc}]/u.test(l)) fail('iCalendar', l);
      const [, name = ''] = /^([A-Z-]+)[;:]/.exec(l) ?? fail('iCalendar', l);
      return name === 'BEGIN' || name === 'END' ? l : name;
    });
}

function csv(text: string): unknown {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { header: false });
  if (errors.some((e) => e.type === 'Quotes')) fail('CSV', text);
  for (const cell of data.flat())
    if (/^[=+\-@\t\r]/.test(cell) && !/^-?\d+(\.\d+)?$/.test(cell)) fail('table without formulas', cell);
  return data.map((r) => r.length);
}

function yaml(text: string): unknown {
  const document = parseDocument(text, { strict: true });
  if (document.errors.length > 0 || document.warnings.length > 0)
    fail('YAML', String(document.errors[0]?.message));
  return shape(document.toJS());
}

const SKELETONS: Record<FileFormat, (text: string) => unknown> = {
  shell,
  grub: shell,
  dnsmasq,
  'dhcpd.conf': masked(
    'dhcpd.conf',
    /^(?:[{};,\n]|""|subnet|netmask|range|option|routers|domain-.*|default-lease-time|max-lease-time|host|hardware|ethernet|fixed-address|host-name)$/,
  ),
  json: (t) => shape(JSON.parse(t)),
  hosts: fields('hosts', (n) => n >= 2 && n <= 3),
  csv,
  unit: sections('unit'),
  keyfile: sections('keyfile'),
  'smb.conf': sections('smb.conf'),
  sysctl: sections('sysctl'),
  yaml,
  interfaces: (t) =>
    linesOf(t).map(
      (l) =>
        /^(?:auto \S+|iface \S+ inet6? static| {4}(address|netmask|gateway|dns-nameservers|dns-search)( \S+)+)$/.exec(
          l,
        )?.[1] ?? (/^(?:auto|iface) /.test(l) ? l.split(' ')[0] : fail('interfaces', l)),
    ),
  known_hosts: fields('known_hosts', (n) => n === 3),
  exports: fields('exports', (n) => n >= 2),
  fstab: fields('fstab', (n) => n === 6),
  // Names of sets are made of names of address groups, of letters, digits and low lines alone.
  nftables: (t) =>
    (tokensOf('nftables', true)(t) as string[]).map((w) => w.replace(/^(@?)\w+_[46]$/, '$1set')),
  nginx: masked('nginx', /^(?:[{};\n]|""|[a-z_]+|[\d.:/a-f[\]]+)$/),
  sfdisk: (t) => linesOf(t).map((l) => l.replace(/"[^"]*"/g, '""').replace(/=[^,"]+/g, '=v')),
  xml: (t) => elements(new JSDOM(t, { contentType: 'text/xml' }).window.document.documentElement),
  html: page,
  markdown: (t) => page(micromark(t, { extensions: [gfm()], htmlExtensions: [gfmHtml()] })),
  icalendar: calendar,
  iso9660: () => 'volume',
  checksums: (t) =>
    readManifest(t).unread === 0 ? readManifest(t).lines.length : fail('list of checksums', t),
  paths: (t) => (t.endsWith('\0') ? 'paths' : fail('list of paths', t)),
};

/** The skeleton of a file. Throws where it is none of its format. */
export const skeletonOf = (format: FileFormat, content: string | Uint8Array): unknown =>
  SKELETONS[format](typeof content === 'string' ? content : '');
