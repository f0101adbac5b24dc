import type { SharedFolder, Sharing } from '../../model/sharing';
import { folderOf } from '../../units/paths';
import { quoted as sh } from '../../units/shell';
import { relative } from './links';
import { namesOf } from './rights';

/** A value of smb.conf: one line. */
const line = (text: string): string => text.replace(/[\r\n]+/g, ' ').trim();

function smbShare(sharing: Sharing, f: SharedFolder): string[] {
  const { write, read } = namesOf(sharing, f);
  const users = [...write, ...read];
  const guests = f.guests !== 'none';
  return [
    `[${f.name}]`,
    `   path = ${f.path}`,
    // Somebody without an account is a guest; where guests may not, only who is named may come at all.
    ...(guests
      ? ['   guest ok = yes']
      : [`   valid users = ${users.length > 0 ? users.join(' ') : 'nobody'}`]),
    `   read only = ${f.guests === 'write' ? 'no' : 'yes'}`,
    ...(write.length > 0 && f.guests !== 'write' ? [`   write list = ${write.join(' ')}`] : []),
    `   case sensitive = ${f.oneCase ? 'no' : 'yes'}`,
    '   preserve case = yes',
    '   create mask = 0664',
    '   directory mask = 2775',
    ...(f.binDays === null
      ? []
      : [
          '   vfs objects = recycle',
          '   recycle:repository = .bin/%U',
          '   recycle:keeptree = yes',
          '   recycle:versions = yes',
          '   recycle:touch = yes',
        ]),
    '',
  ];
}

/** Shares as smb.conf(5) has them; only what was asked for is open, and only to the networks that were named. */
export function writeSmb(sharing: Sharing, name: string): string {
  const folders = sharing.folders.filter((f) => f.protocols.includes('smb'));
  const guests = folders.some((f) => f.guests !== 'none');
  return [
    '# Written by Zealous Box. Check it with: testparm -s FILE',
    '[global]',
    `   netbios name = ${line(name).slice(0, 15).toUpperCase()}`,
    `   workgroup = ${line(sharing.workgroup).toUpperCase()}`,
    `   server string = ${line(name)}`,
    '   server role = standalone server',
    '   server min protocol = SMB2_10',
    `   map to guest = ${guests ? 'Bad User' : 'Never'}`,
    `   restrict anonymous = ${guests ? '0' : '2'}`,
    `   hosts allow = ${['127.0.0.1', '::1', ...sharing.from].join(' ')}`,
    '   hosts deny = ALL',
    '   wide links = no',
    '   load printers = no',
    '   disable spoolss = yes',
    '   printcap name = /dev/null',
    '   log file = /var/log/samba/%m.log',
    '   max log size = 1000',
    '',
    ...folders.flatMap((f) => smbShare(sharing, f)),
  ].join('\n');
}

/** A path as exports(5) takes it: what is neither letter nor digit of the plain kind is written in octal where it must be. */
const exported = (path: string): string =>
  [...new TextEncoder().encode(path)]
    .map((b) =>
      b <= 0x20 || b === 0x22 || b === 0x23 || b === 0x5c || b >= 0x7f
        ? `\\${b.toString(8).padStart(3, '0')}`
        : String.fromCharCode(b),
    )
    .join('');

/**
 * Folders as exports(5) has them, one line each. NFS without Kerberos believes the number of the user that the other machine
 * sends: it is granted to networks, and the rights of files decide the rest. Guests who may read are everybody there.
 */
export function writeExports(sharing: Sharing): string {
  const folders = sharing.folders.filter((f) => f.protocols.includes('nfs'));
  const lines = folders.flatMap((f) => {
    const writes = f.write.length > 0 || f.guests === 'write';
    const who = f.guests === 'none' ? 'root_squash' : 'all_squash';
    const options = `${writes ? 'rw' : 'ro'},sync,no_subtree_check,${who}`;
    return sharing.from.length === 0
      ? []
      : [`${exported(f.path)} ${sharing.from.map((n) => `${n}(${options})`).join(' ')}`];
  });
  return ['# Written by Zealous Box. Taken by: exportfs -ra', ...lines, ''].join('\n');
}

const xml = (text: string): string => text.replace(/[<>&"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** What is told to everybody in the network who looks for services: DNS-SD (RFC 6763) in the form of avahi.service(5). */
export function writeAdvert(sharing: Sharing, name: string): string {
  const has = (p: SharedFolder['protocols'][number]): SharedFolder[] =>
    sharing.folders.filter((f) => f.protocols.includes(p));
  const service = (type: string, port: number, txt: readonly string[] = []): string[] => [
    '  <service>',
    `    <type>${type}</type>`,
    `    <port>${port}</port>`,
    ...txt.map((t) => `    <txt-record>${xml(t)}</txt-record>`),
    '  </service>',
  ];
  return [
    '<?xml version="1.0" standalone="no"?>',
    '<!DOCTYPE service-group SYSTEM "avahi-service.dtd">',
    '<service-group>',
    `  <name>${xml(name)}</name>`,
    ...(has('smb').length > 0 ? service('_smb._tcp', 445) : []),
    ...has('nfs').flatMap((f) => service('_nfs._tcp', 2049, [`path=${f.path}`])),
    ...(has('web').length > 0 ? service('_http._tcp', 80) : []),
    '</service-group>',
    '',
  ].join('\n');
}

/** A word of an nginx configuration, quoted. */
const quoted = (text: string): string => `"${text.replace(/["\\$]/g, (c) => `\\${c}`)}"`;

/** Folders that are read by a plain web server, as a server block of nginx: lists of files, nothing else. */
export function writeWeb(sharing: Sharing, name: string): string {
  const folders = sharing.folders.filter((f) => f.protocols.includes('web'));
  return [
    '# Written by Zealous Box, for a server block of nginx. Check it with: nginx -t',
    'server {',
    '  listen 80;',
    '  listen [::]:80;',
    `  server_name ${name.toLowerCase()};`,
    ...sharing.from.map((n) => `  allow ${n};`),
    '  deny all;',
    '  autoindex on;',
    '  disable_symlinks if_not_owner;',
    ...folders.flatMap((f) => [
      `  location ${quoted(`/${f.name}/`)} {`,
      `    alias ${quoted(`${f.path}/`)};`,
      '    limit_except GET { deny all; }',
      ...(f.guests === 'none'
        ? [
            `    auth_basic ${quoted(f.name)};`,
            `    auth_basic_user_file ${quoted(`/etc/nginx/users-${f.id}`)};`,
          ]
        : []),
      '  }',
    ]),
    '  location / { return 404; }',
    '}',
    '',
  ].join('\n');
}

/**
 * Folders, rights and links as a script for a POSIX shell: it makes what is not there and touches nothing that is. Passwords
 * are asked for when it runs, and stand nowhere.
 */
export function writeFolders(sharing: Sharing): string {
  const smb = sharing.folders.some((f) => f.protocols.includes('smb'));
  const folder = (f: SharedFolder): string[] => {
    const { write, read } = namesOf(sharing, f);
    const group = `share-${f.id}`.replace(/[^a-z0-9_-]/g, '').slice(0, 32);
    const open = f.guests === 'none' ? '2770' : f.guests === 'read' ? '2775' : '2777';
    return [
      `mkdir -p ${sh(f.path)}`,
      `getent group ${group} >/dev/null || groupadd ${group}`,
      ...write.map((u) => `usermod -a -G ${group} ${u}`),
      `chgrp ${group} ${sh(f.path)}`,
      `chmod ${open} ${sh(f.path)}`,
      // Who reads alone is in no group that writes.
      ...read.map((u) => `setfacl -m u:${u}:rx -m d:u:${u}:rx ${sh(f.path)}`),
    ];
  };
  return [
    '#!/bin/sh',
    '# Makes users, folders and links that are not there yet. Read it first; nobody runs it but you.',
    'set -eu',
    ...sharing.users.flatMap((u) => [
      `id ${u.name} >/dev/null 2>&1 || useradd -M -s /usr/sbin/nologin ${u.name}`,
      ...(smb ? [`pdbedit -L 2>/dev/null | grep -q '^${u.name}:' || smbpasswd -a ${u.name}`] : []),
    ]),
    ...sharing.folders.flatMap(folder),
    ...sharing.links.flatMap((l) => {
      return l.by === 'link'
        ? [
            `mkdir -p ${sh(folderOf(l.at))}`,
            `test -e ${sh(l.at)} || test -L ${sh(l.at)} || ln -s ${sh(relative(l.at, l.to))} ${sh(l.at)}`,
          ]
        : [`mkdir -p ${sh(l.at)}`, `mountpoint -q ${sh(l.at)} || mount --bind ${sh(l.to)} ${sh(l.at)}`];
    }),
    '',
  ].join('\n');
}

/** Lines of fstab(5) for folders that are mounted in a second place. */
export const writeFstab = (sharing: Sharing): string =>
  sharing.links
    .filter((l) => l.by === 'mount')
    .map((l) => `${exported(l.to)} ${exported(l.at)} none bind,nofail 0 0\n`)
    .join('');

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

/** The text of a form. */
export function writeShares(form: ShareForm, sharing: Sharing, name: string): string {
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
