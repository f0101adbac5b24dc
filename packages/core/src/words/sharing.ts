import type { SharedFolder, ShareFault, ShareProtocol } from '../model/sharing';
import type { ShareForm } from '../storage/share/write';
import { list, plural } from './text';

/** What is wrong with folders, users and links, and what to do. */
export function shareFaultWords(f: ShareFault): string {
  switch (f.code) {
    case 'share name odd':
      return `“${f.share}” has ${f.odd} in its name, which no share may have.`;
    case 'path odd':
      return `“${f.share}” lies at ${f.path}: its server gives “${f.odd}” a meaning of its own. Rename the folder, or take that way in off.`;
    case 'share name set aside':
      return `“${f.share}” means something of its own to the server: take another name.`;
    case 'share twice':
      return `${list(f.shares.map((s) => `“${s}”`))} are one name to the server: case does not tell them apart.`;
    case 'path twice':
      return `${list(f.shares.map((s) => `“${s}”`))} are the same folder, ${f.path}: whoever has either has both.`;
    case 'one inside another':
      return `“${f.inner}” lies in “${f.outer}”, so that ${list(f.opens)} reach it by that way.`;
    case 'path of the system':
      return `“${f.share}” would be ${f.path}, which is the system’s own.`;
    case 'path not on the pool':
      return `“${f.share}” lies at ${f.path}, not on the pool (${f.pool}).`;
    case 'nobody reaches it':
      return `Nobody may read “${f.share}” yet.`;
    case 'guests write':
      return `Everybody in the network may write to and delete in “${f.share}”, without an account.`;
    case 'no protocol':
      return `“${f.share}” is reached over nothing.`;
    case 'nfs believes numbers':
      return `Over NFS “${f.share}” believes every machine of these networks who its user is. Give it to machines that are yours, or take SMB.`;
    case 'web writes nothing':
      return `Over the web “${f.share}” is read alone.`;
    case 'password in clear':
      return `Over the web passwords for “${f.share}” go through the wire in clear. Let guests read it, or put a certificate before it.`;
    case 'no networks':
      return 'From which networks the folders are reached was not said: as it is, from none.';
    case 'user twice':
      return `“${f.name}” is there twice.`;
    case 'user set aside':
      return `“${f.name}” is an account of the system.`;
    case 'user without folder':
      return `“${f.name}” reaches no folder.`;
    case 'user not there':
      return `“${f.share}” names somebody who is no longer there.`;
    case 'name too long':
      return `“${f.name}” has more than ${f.most} letters: older machines find it by the first ${f.most}.`;
    case 'name odd':
      return `“${f.name}” cannot be found in a network: letters, digits and hyphens make a name.`;
    case 'link in a circle':
      return `${f.at} leads to ${f.to}, and that back through ${list(f.through)}.`;
    case 'link into itself':
      return `${f.at} leads to ${f.to}, in which it lies: a program that walks it never comes back.`;
    case 'link dangles':
      return `${f.at} leads to ${f.to}, and nothing that is shared stands there.`;
    case 'link over a folder':
      return `${f.at} would take the place of a folder.`;
    case 'link twice':
      return `Two links would stand at ${f.at}.`;
    case 'link within a link':
      return `${f.at} would lie in ${f.under}, which is a link itself.`;
    case 'link leaves its share':
      return `${f.at} leads out of “${f.share}” to ${f.to}: the server does not follow it. Mount it there instead.`;
    case 'link opens':
      return `By ${f.at} in “${f.share}” ${list(f.opens)} reach what they otherwise may not.`;
  }
}

const PROTOCOLS: Record<ShareProtocol, string> = { smb: 'SMB', nfs: 'NFS', web: 'web, to read' };
/** What a protocol is called. */
export const protocolWords = (p: ShareProtocol): string => PROTOCOLS[p];

const FORMS: Record<ShareForm, string> = {
  smb: 'smb.conf: folders over SMB',
  exports: 'exports: folders over NFS',
  web: 'a server block of nginx: folders to read',
  advert: 'a service that tells of itself (DNS-SD)',
  folders: 'a script: users, folders, links',
  fstab: 'lines of fstab: folders mounted twice',
};
/** What a form is for. */
export const shareFormWords = (form: ShareForm): string => FORMS[form];

/** The finding at the head of the sheet. */
export function sharingHeadline(box: string, folders: readonly SharedFolder[]): string {
  const open = folders.filter((f) => f.guests !== 'none').length;
  if (folders.length === 0) return `Which folders of ${box} do others reach?`;
  return `${plural(folders.length, 'folder')}, ${open === 0 ? 'none' : open === folders.length ? 'all' : open} open to guests`;
}
