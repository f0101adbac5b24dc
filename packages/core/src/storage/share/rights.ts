import type { SharedFolder, ShareProtocol, Sharing } from '../../model/sharing';
import { parseIp } from '../../units/ip';
import { holds, parsePrefix } from '../../units/prefix';

/** Who asks: a user by id, or somebody without an account. */
export type Asker = { user: string } | 'guest';

/** Whether a folder grants somebody a thing over any way in. Who may write may read; a folder grants what it says, and nothing else. */
export function grants(folder: SharedFolder, who: Asker, what: 'read' | 'write'): boolean {
  const guests = folder.guests === 'write' || (what === 'read' && folder.guests === 'read');
  if (who === 'guest') return guests;
  return guests || folder.write.includes(who.user) || (what === 'read' && folder.read.includes(who.user));
}

/** The most a folder gives to somebody by what is said of them alone. */
export const rightOf = (folder: SharedFolder, who: Asker): 'none' | 'read' | 'write' =>
  who === 'guest'
    ? folder.guests
    : folder.write.includes(who.user)
      ? 'write'
      : folder.read.includes(who.user)
        ? 'read'
        : 'none';

/** Whether an address may come at all. Without networks nobody may: nothing is open unasked. */
export function mayCome(sharing: Pick<Sharing, 'from'>, address: string): boolean {
  const ip = parseIp(address);
  return (
    ip !== undefined &&
    sharing.from.some((text) => {
      const prefix = parsePrefix(text);
      return prefix !== undefined && prefix.family === ip.family && holds(prefix, ip);
    })
  );
}

/**
 * What somebody may do over one protocol from one address. SMB asks for an account; NFS believes the numbers that the other
 * machine sends and is granted to addresses; the web server only reads, and asks for an account where guests may not.
 */
export function mayDo(
  sharing: Sharing,
  folder: SharedFolder,
  ask: { who: Asker; what: 'read' | 'write'; over: ShareProtocol; from: string },
): boolean {
  if (!folder.protocols.includes(ask.over) || !mayCome(sharing, ask.from)) return false;
  if (ask.over === 'web' && ask.what === 'write') return false;
  return grants(folder, ask.who, ask.what);
}

/** Users of a folder by name, in the order they were written down: who writes, and who reads alone. */
export function namesOf(sharing: Sharing, folder: SharedFolder): { write: string[]; read: string[] } {
  const write = sharing.users.filter((u) => folder.write.includes(u.id)).map((u) => u.name);
  const read = sharing.users
    .filter((u) => folder.read.includes(u.id) && !folder.write.includes(u.id))
    .map((u) => u.name);
  return { write, read };
}

/** Whether one path lies in another, or is it. */
export const liesIn = (path: string, folder: string): boolean =>
  path === folder || path.startsWith(`${folder}/`);
