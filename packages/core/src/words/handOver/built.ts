import { guestsOf, isHost } from '../../guests/forBox';
import { guestsMarkdown } from '../../guests/write/markdown';
import { laidBox } from '../../layout/forBox';
import { findNetwork, hostsOfBox, findProfile, type Bench, type Box } from '../../model/bench';
import { pageOf } from '../../network/forBox';
import { gateMarkdown } from '../../rules/write/markdown';
import { storageOf } from '../../storage/forBox';
import { formatBoth, formatIec } from '../../units/bytes';
import { codeSpan, markdownTable, markdownText as safe, md } from '../../formats/writer/markdown';
import { filesystemWords, useWords } from '../layout';
import { dash } from './dash';
import { copiesWords, wayTitle } from '../storage';
import { protocolWords } from '../sharing';

/** A page that stands by itself, one level lower and without its own title. */
const lower = (page: string): string[] =>
  page
    .split('\n')
    .slice(1)
    .map((l) => l.replace(/^#/, '##'));

/** How the drive of its system is laid out. */
export function layoutLines(bench: Bench, box: Box): string[] {
  const { drive, sheet } = laidBox(bench, box);
  if (!drive || !sheet) return [];
  return [
    '',
    '## Layout',
    '',
    md`${drive.name}, ${formatBoth(drive.bytes)}, serial ${dash(drive.serial)}.`.text,
    '',
    ...markdownTable(
      ['Part', 'For', 'Size', 'File system', 'Mounted at', 'Free in it'],
      sheet.rows.map(({ part, space }) => [
        String(part.number),
        part.use ? useWords[part.use] : part.kind,
        formatBoth(part.bytes),
        part.filesystem ? filesystemWords[part.filesystem] : '–',
        dash(part.mount),
        space ? formatIec(space.toUsers) : '–',
      ]),
    ),
  ];
}

/** Where it is reached. */
export function addressLines(bench: Bench, box: Box): string[] {
  const hosts = hostsOfBox(bench, box.id);
  if (hosts.length === 0) return [];
  const profile = findProfile(bench, box.profileId);
  const pages = hosts.flatMap((h) => {
    const page = pageOf(profile, h, findNetwork(bench, h.networkId ?? ''));
    return page ? [page.byName ?? page.byAddress] : [];
  });
  return [
    '',
    '## Addresses',
    '',
    ...markdownTable(
      ['Host', 'Network', 'Address', 'IPv6', 'How', 'Hardware address', 'Name'],
      hosts.map((h) => [
        h.name,
        dash(findNetwork(bench, h.networkId ?? '')?.name),
        dash(h.address),
        dash(h.address6),
        h.manner,
        dash(h.hardware),
        dash(h.label),
      ]),
    ),
    ...(pages.length > 0 ? ['', `Its page: ${pages.map(safe).join(', ')}.`] : []),
    ...(box.reach?.page
      ? [
          '',
          md`Its certificate shows ${codeSpan(box.reach.page.fingerprint)}${box.reach.page.expires ? `, to ${box.reach.page.expires}` : ''}.`
            .text,
        ]
      : []),
    ...(box.reach?.shell ? ['', `Remote shell: ${box.reach.shell}.`] : []),
  ];
}

function poolLines(bench: Bench, box: Box): string[] {
  if (!box.pool) return [];
  const { chosen, drives } = storageOf(bench, box);
  return [
    '',
    '## Pool',
    '',
    chosen
      ? md`${box.pool.name}: ${wayTitle(chosen.pool.way)}, ${formatBoth(chosen.room.usable)} to use.`.text
      : md`${box.pool.name}: no way was taken.`.text,
    '',
    ...drives.map((d) => md`- ${d.name}, ${formatBoth(d.bytes)}, serial ${dash(d.serial)}`.text),
    ...(box.pool.scrubDays === null ? [] : ['', `Read through every ${box.pool.scrubDays} days.`]),
  ];
}

function shareLines({ sharing }: Box): string[] {
  if (!sharing || sharing.folders.length === 0) return [];
  const who = (ids: readonly string[]): string =>
    ids.map((id) => sharing.users.find((u) => u.id === id)?.name ?? id).join(', ') || '–';
  return [
    '',
    '## Shares',
    '',
    ...markdownTable(
      ['Folder', 'Path', 'Over', 'Read by', 'Written by', 'Without a name'],
      sharing.folders.map((f) => [
        f.name,
        f.path,
        f.protocols.map(protocolWords).join(', '),
        who(f.read),
        who(f.write),
        f.guests,
      ]),
    ),
  ];
}

const copyLines = ({ things }: Box): string[] =>
  things.length === 0
    ? []
    : ['', '## What must not be lost', '', ...things.map((t) => md`- **${t.what}**: ${copiesWords(t)}`.text)];

/** What it carries: pool, shares, copies, rules, guests. */
export const loadLines = (bench: Bench, box: Box): string[] => [
  ...poolLines(bench, box),
  ...shareLines(box),
  ...copyLines(box),
  ...(box.gate ? ['', '## Rules', ...lower(gateMarkdown(box.gate, bench.networks))] : []),
  ...(isHost(box) && box.guests
    ? ['', '## Guests', ...lower(guestsMarkdown(box.guests, guestsOf(bench, box).pot))]
    : []),
];
