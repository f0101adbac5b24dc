import { comment } from '../../formats/writer/lines';
import { nginx } from '../../formats/writer/nginx';
import { exportsLine, fstabLine } from '../../formats/writer/octal';
import { sh, shellComment, shellScript, fixedShell, type Shell } from '../../formats/writer/shell';
import { smb, smbSection, type SmbConf } from '../../formats/writer/smbConf';
import { linesOf } from '../../formats/writer/template';
import { xmlText, type Xml } from '../../formats/writer/xml';
import type { SharedFolder, Sharing } from '../../model/sharing';
import { folderOf } from '../../units/paths';
import type { ShareFinding } from './finding';
import { relative } from './links';
import { namesOf } from './rights';

/** A short name of a folder for files and groups of its own: of its id, and never the same for two. */
function keyOf({ folders }: Sharing, f: SharedFolder): string {
  const plain = ({ id }: SharedFolder): string =>
    id
      .toLowerCase()
      .replace(/[^a-z0-9-]/g, '')
      .slice(0, 20);
  const mine = plain(f);
  const alone = mine !== '' && folders.every((g) => g === f || plain(g) !== mine);
  return alone ? mine : `${mine}-${folders.indexOf(f) + 1}`;
}

function smbShare(sharing: Sharing, f: SharedFolder): SmbConf[] {
  const { write, read } = namesOf(sharing, f);
  const users = [...write, ...read];
  const guests = f.guests !== 'none';
  return [
    smbSection(f.name),
    smb`   path = ${f.path}`,
    // Somebody without an account is a guest; where guests may not, only who is named may come at all.
    ...(guests ? [smb`   guest ok = yes`] : [smb`   valid users = ${users.length > 0 ? users : 'nobody'}`]),
    f.guests === 'write' ? smb`   read only = no` : smb`   read only = yes`,
    ...(write.length > 0 && f.guests !== 'write' ? [smb`   write list = ${write}`] : []),
    f.oneCase ? smb`   case sensitive = no` : smb`   case sensitive = yes`,
    smb`   preserve case = yes`,
    smb`   create mask = 0664`,
    smb`   directory mask = 2775`,
    ...(f.binDays === null
      ? []
      : [
          smb`   vfs objects = recycle`,
          smb`   recycle:repository = .bin/%U`,
          smb`   recycle:keeptree = yes`,
          smb`   recycle:versions = yes`,
          smb`   recycle:touch = yes`,
        ]),
    smb``,
  ];
}

/** Shares as smb.conf(5) has them; only what was asked for is open, and only to the networks that were named. */
export function writeSmb(sharing: Sharing, name: string): string {
  const folders = sharing.folders.filter((f) => f.protocols.includes('smb'));
  const guests = folders.some((f) => f.guests !== 'none');
  return linesOf([
    comment('smb.conf', 'Written by Zealous Box. Check it with: testparm -s FILE'),
    smb`[global]`,
    smb`   netbios name = ${name.slice(0, 15).replace(/-+$/, '').toUpperCase()}`,
    smb`   workgroup = ${sharing.workgroup.toUpperCase()}`,
    smb`   server string = ${name}`,
    smb`   server role = standalone server`,
    smb`   server min protocol = SMB2_10`,
    guests ? smb`   map to guest = Bad User` : smb`   map to guest = Never`,
    guests ? smb`   restrict anonymous = 0` : smb`   restrict anonymous = 2`,
    smb`   hosts allow = ${['127.0.0.1', '::1', ...sharing.from]}`,
    smb`   hosts deny = ALL`,
    smb`   wide links = no`,
    smb`   load printers = no`,
    smb`   disable spoolss = yes`,
    smb`   printcap name = /dev/null`,
    smb`   log file = /var/log/samba/%m.log`,
    smb`   max log size = 1000`,
    smb``,
    ...folders.flatMap((f) => smbShare(sharing, f)),
  ]);
}

/**
 * Folders as exports(5) has them, one line each. NFS without Kerberos believes the number of the user that the other machine
 * sends: it is granted to networks, and the rights of files decide the rest. Guests who may read are everybody there.
 */
export function writeExports(sharing: Sharing): string {
  const folders = sharing.folders.filter((f) => f.protocols.includes('nfs'));
  return linesOf([
    comment('exports', 'Written by Zealous Box. Taken by: exportfs -ra'),
    ...folders.flatMap((f) => {
      const rights = f.write.length > 0 || f.guests === 'write' ? 'rw' : 'ro';
      const who = f.guests === 'none' ? 'root_squash' : 'all_squash';
      return sharing.from.length === 0
        ? []
        : [
            exportsLine`${f.path} ${sharing.from.map((n) => exportsLine`${n}(${rights},sync,no_subtree_check,${who})`)}`,
          ];
    }),
  ]);
}

/** What is told to everybody in the network who looks for services: DNS-SD (RFC 6763) in the form of avahi.service(5). */
export function writeAdvert(sharing: Sharing, name: string): string {
  const has = (p: SharedFolder['protocols'][number]): SharedFolder[] =>
    sharing.folders.filter((f) => f.protocols.includes(p));
  const service = (type: string, port: number, txt: readonly string[] = []): Xml => ({
    name: 'service',
    in: [
      { name: 'type', in: type },
      { name: 'port', in: String(port) },
      ...txt.map((t) => ({ name: 'txt-record', in: t })),
    ],
  });
  return [
    '<?xml version="1.0" standalone="no"?>\n',
    '<!DOCTYPE service-group SYSTEM "avahi-service.dtd">\n',
    xmlText({
      name: 'service-group',
      in: [
        { name: 'name', in: name },
        has('smb').length > 0 ? service('_smb._tcp', 445) : undefined,
        ...has('nfs').map((f) => service('_nfs._tcp', 2049, [`path=${f.path}`])),
        has('web').length > 0 ? service('_http._tcp', 80) : undefined,
      ],
    }),
  ].join('');
}

/** Folders that are read by a plain web server, as a server block of nginx: lists of files, nothing else. */
export function writeWeb(sharing: Sharing, name: string): string {
  const folders = sharing.folders.filter((f) => f.protocols.includes('web'));
  return linesOf([
    comment('nginx', 'Written by Zealous Box, for a server block of nginx. Check it with: nginx -t'),
    nginx`server {`,
    nginx`  listen 80;`,
    nginx`  listen [::]:80;`,
    nginx`  server_name ${name.toLowerCase()};`,
    ...sharing.from.map((n) => nginx`  allow ${n};`),
    nginx`  deny all;`,
    nginx`  autoindex on;`,
    nginx`  disable_symlinks if_not_owner;`,
    ...folders.flatMap((f) => [
      nginx`  location ${`/${f.name}/`} {`,
      nginx`    alias ${`${f.path}/`};`,
      nginx`    limit_except GET { deny all; }`,
      ...(f.guests === 'none'
        ? [
            nginx`    auth_basic ${f.name};`,
            nginx`    auth_basic_user_file ${`/etc/nginx/users-${keyOf(sharing, f)}`};`,
          ]
        : []),
      nginx`  }`,
    ]),
    nginx`  location / { return 404; }`,
    nginx`}`,
  ]);
}

/**
 * Folders, rights and links as a script for a POSIX shell: it makes what is not there and touches nothing that is. Passwords
 * are asked for when it runs, and stand nowhere.
 */
export function writeFolders(sharing: Sharing): string {
  const hasSmb = sharing.folders.some((f) => f.protocols.includes('smb'));
  const folder = (f: SharedFolder): Shell[] => {
    const { write, read } = namesOf(sharing, f);
    const group = `share-${keyOf(sharing, f)}`;
    const open = f.guests === 'none' ? '2770' : f.guests === 'read' ? '2775' : '2777';
    return [
      sh`mkdir -p ${f.path}`,
      sh`getent group ${group} >/dev/null || groupadd ${group}`,
      ...write.map((u) => sh`usermod -a -G ${group} ${u}`),
      sh`chgrp ${group} ${f.path}`,
      sh`chmod ${open} ${f.path}`,
      // Who reads alone is in no group that writes.
      ...read.map((u) => sh`setfacl -m ${`u:${u}:rx`} -m ${`d:u:${u}:rx`} ${f.path}`),
    ];
  };
  return shellScript([
    fixedShell('#!/bin/sh'),
    shellComment(
      'Makes users, folders and links that are not there yet. Read it first; nobody runs it but you.',
    ),
    sh`set -eu`,
    ...sharing.users.flatMap((u) => [
      sh`id ${u.name} >/dev/null 2>&1 || useradd -M -s /usr/sbin/nologin ${u.name}`,
      ...(hasSmb ? [sh`pdbedit -L 2>/dev/null | grep -q ${`^${u.name}:`} || smbpasswd -a ${u.name}`] : []),
    ]),
    ...sharing.folders.flatMap(folder),
    ...sharing.links.flatMap((l) =>
      l.by === 'link'
        ? [
            sh`mkdir -p ${folderOf(l.at)}`,
            sh`test -e ${l.at} || test -L ${l.at} || ln -s -- ${relative(l.at, l.to)} ${l.at}`,
          ]
        : [sh`mkdir -p ${l.at}`, sh`mountpoint -q ${l.at} || mount --bind ${l.to} ${l.at}`],
    ),
  ]);
}

/** Lines of fstab(5) for folders that are mounted in a second place. */
export const writeFstab = (sharing: Sharing): string =>
  linesOf(
    sharing.links.filter((l) => l.by === 'mount').map((l) => fstabLine`${l.to} ${l.at} none bind,nofail 0 0`),
  );

/** Every form in which the shares of a box leave the house. */
export const shareForms = ['smb', 'exports', 'web', 'advert', 'folders', 'fstab'] as const;
/** A form in which shares leave the house. */
export type ShareForm = (typeof shareForms)[number];

/** What a file of a form is called where its server looks for it. */
export const shareFile: Record<ShareForm, string> = {
  smb: 'smb.conf',
  exports: 'exports',
  web: 'folders.conf',
  advert: 'folders.service',
  folders: 'make-folders.sh',
  fstab: 'fstab',
};

/** One form of the shares as text. */
function written(form: ShareForm, sharing: Sharing, name: string): string {
  switch (form) {
    case 'smb':
      return writeSmb(sharing, name);
    case 'exports':
      return writeExports(sharing);
    case 'web':
      return writeWeb(sharing, name);
    case 'advert':
      return writeAdvert(sharing, name);
    case 'folders':
      return writeFolders(sharing);
    case 'fstab':
      return writeFstab(sharing);
  }
}

/** One form of the shares as text, or the Stops that stand against it: while one stands, nothing is written. */
export function writeShares(
  form: ShareForm,
  { sharing, name, findings }: { sharing: Sharing; name: string; findings: readonly ShareFinding[] },
): { text: string } | { stops: ShareFinding[] } {
  const stops = findings.filter((f) => f.grade === 'stop');
  return stops.length > 0 ? { stops } : { text: written(form, sharing, name) };
}
