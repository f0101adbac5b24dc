import type { SharedFolder, Sharing } from '../../model/sharing';
import { labelFault } from '../../network/names';
import { follows } from '../../units/grammar';
import { checkLinks, follow } from './links';
import { shareFinding, type ShareFinding } from './finding';
import { grants, liesIn, type Asker } from './rights';

/** What makes a name none of a share. */
const ODD = /["\\/[\]:|<>+=;,*?%\p{Cc}\p{Zl}\p{Zp}]/u;
/** Sections of smb.conf that mean something of their own (smb.conf(5), “Special sections”), and shares of the protocol itself. */
const SET_ASIDE = new Set(['global', 'homes', 'printers', 'ipc$', 'admin$', 'print$']);
/** Folders that are the system’s own (Filesystem Hierarchy Standard 3.0, chapter 3). */
const SYSTEM = /^\/(bin|boot|dev|etc|lib|lib32|lib64|proc|root|run|sbin|sys|tmp|usr|var)(\/|$)/;
/** Accounts of the system itself. */
const ACCOUNTS = new Set(['root', 'daemon', 'bin', 'sys', 'nobody', 'www-data', 'mail', 'backup']);
/** The most letters of a name that older machines find it by (RFC 1001 §14.1: 16 octets, the last one its kind). */
const NETBIOS = 15;

/** Everybody who could ask. */
const askers = (sharing: Sharing): { who: Asker; name: string }[] => [
  { who: 'guest', name: 'guests' },
  ...sharing.users.map((u) => ({ who: { user: u.id }, name: u.name })),
];

/** Who gets more in a folder by way of another one. */
function opened(sharing: Sharing, by: SharedFolder, of: SharedFolder): string[] {
  return askers(sharing)
    .filter(({ who }) =>
      (['read', 'write'] as const).some((what) => grants(by, who, what) && !grants(of, who, what)),
    )
    .map((a) => a.name);
}

/** What of a text a way in gives a meaning of its own, where the folder has that way in. */
const oddIn = (text: string, odd: RegExp, has: boolean): string | undefined =>
  has ? odd.exec(text)?.[0] : undefined;

function checkFolder(sharing: Sharing, f: SharedFolder, pool: string | null): ShareFinding[] {
  const out: ShareFinding[] = [];
  const web = f.protocols.includes('web');
  const odd = follows('shareName', f.name)
    ? oddIn(f.name, /[$]/, web)
    : (ODD.exec(f.name)?.[0] ?? 'a blank at an end');
  if (odd !== undefined) out.push(shareFinding('stop', { code: 'share name odd', share: f.name, odd }));
  const oddPath = oddIn(f.path, /%|\s$/, f.protocols.includes('smb')) ?? oddIn(f.path, /[$]/, web);
  if (oddPath !== undefined)
    out.push(shareFinding('stop', { code: 'path odd', share: f.name, path: f.path, odd: oddPath }));
  if (SET_ASIDE.has(f.name.toLowerCase()))
    out.push(shareFinding('stop', { code: 'share name set aside', share: f.name }));
  if (SYSTEM.test(f.path))
    out.push(shareFinding('stop', { code: 'path of the system', share: f.name, path: f.path }));
  else if (pool !== null && !liesIn(f.path, pool))
    out.push(shareFinding('check', { code: 'path not on the pool', share: f.name, path: f.path, pool }));
  const known = (id: string): boolean => sharing.users.some((u) => u.id === id);
  if ([...f.read, ...f.write].some((id) => !known(id)))
    out.push(shareFinding('check', { code: 'user not there', share: f.name }));
  if (f.protocols.length === 0) out.push(shareFinding('check', { code: 'no protocol', share: f.name }));
  if (f.guests === 'none' && ![...f.read, ...f.write].some(known))
    out.push(shareFinding('check', { code: 'nobody reaches it', share: f.name }));
  if (f.guests === 'write') out.push(shareFinding('check', { code: 'guests write', share: f.name }));
  if (f.protocols.includes('nfs') && f.guests === 'none')
    out.push(shareFinding('check', { code: 'nfs believes numbers', share: f.name }));
  if (f.protocols.includes('web')) {
    if (f.write.length > 0 || f.guests === 'write')
      out.push(shareFinding('note', { code: 'web writes nothing', share: f.name }));
    if (f.guests === 'none') out.push(shareFinding('check', { code: 'password in clear', share: f.name }));
  }
  return out;
}

function checkPairs(sharing: Sharing): ShareFinding[] {
  const out: ShareFinding[] = [];
  const { folders } = sharing;
  folders.forEach((f, i) => {
    const later = folders.slice(i + 1);
    // Share names are one and the same whatever their case (MS-SMB2, share names).
    const same = later.filter((g) => g.name.toLowerCase() === f.name.toLowerCase());
    if (same.length > 0)
      out.push(shareFinding('stop', { code: 'share twice', shares: [f.name, ...same.map((g) => g.name)] }));
    const there = later.filter((g) => g.path === f.path);
    if (there.length > 0)
      out.push(
        shareFinding('check', {
          code: 'path twice',
          path: f.path,
          shares: [f.name, ...there.map((g) => g.name)],
        }),
      );
    for (const outer of folders)
      if (outer !== f && outer.path !== f.path && liesIn(f.path, outer.path)) {
        // Whoever has the outer one has all that lies in it.
        const opens = opened(sharing, outer, f);
        if (opens.length > 0)
          out.push(
            shareFinding('check', { code: 'one inside another', inner: f.name, outer: outer.name, opens }),
          );
      }
  });
  return out;
}

function checkUsers({ users, folders }: Sharing): ShareFinding[] {
  const out: ShareFinding[] = [];
  users.forEach((u, i) => {
    if (users.slice(0, i).some((v) => v.name === u.name))
      out.push(shareFinding('stop', { code: 'user twice', name: u.name }));
    if (ACCOUNTS.has(u.name)) out.push(shareFinding('stop', { code: 'user set aside', name: u.name }));
    if (!folders.some((f) => f.read.includes(u.id) || f.write.includes(u.id)))
      out.push(shareFinding('note', { code: 'user without folder', name: u.name }));
  });
  return out;
}

function checkName(name: string): ShareFinding[] {
  if (labelFault(name.toLowerCase()) !== undefined) return [shareFinding('stop', { code: 'name odd', name })];
  return name.length > NETBIOS ? [shareFinding('note', { code: 'name too long', name, most: NETBIOS })] : [];
}

/** Links that carry what is shared here to where others read it. */
function checkOpened(sharing: Sharing): ShareFinding[] {
  return sharing.links.flatMap((l): ShareFinding[] => {
    const outer = sharing.folders.find((f) => liesIn(l.at, f.path));
    const end = follow(l.to, sharing.links);
    const target = end && sharing.folders.find((f) => liesIn(end.path, f.path));
    if (!outer || !target || outer === target) return [];
    // A server does not follow a link out of the folder it serves (smb.conf(5), “wide links”); a mount it cannot tell.
    if (l.by === 'link')
      return [
        shareFinding('check', { code: 'link leaves its share', at: l.at, to: l.to, share: outer.name }),
      ];
    const opens = opened(sharing, outer, target);
    return opens.length > 0
      ? [shareFinding('check', { code: 'link opens', at: l.at, share: outer.name, opens })]
      : [];
  });
}

/**
 * All that is wrong with folders, users and links. `name`: what the box is found by; `pool`: where its pool is mounted, or
 * null where it has none.
 */
export function checkSharing(sharing: Sharing, name: string | null, pool: string | null): ShareFinding[] {
  const { folders, from } = sharing;
  return [
    ...folders.flatMap((f) => checkFolder(sharing, f, pool)),
    ...checkPairs(sharing),
    ...checkUsers(sharing),
    ...(name === null ? [] : checkName(name)),
    ...(folders.length > 0 && from.length === 0 ? [shareFinding('stop', { code: 'no networks' })] : []),
    // A link or mount there would hide what the system itself reads.
    ...sharing.links
      .filter((l) => SYSTEM.test(l.at))
      .map((l) => shareFinding('stop', { code: 'path of the system', share: l.at, path: l.at })),
    ...checkLinks(sharing),
    ...checkOpened(sharing),
  ];
}
