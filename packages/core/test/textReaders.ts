import { parseChecksumList } from '@zb/core/formats/checksumList';
import { tracksOfSheet } from '@zb/core/content/discs';
import { readManifest } from '@zb/core/content/written';
import { readLoaderEntry } from '@zb/core/formats/loaderEntry';
import { readOsRelease } from '@zb/core/formats/osRelease';
import { readDiscLine, readTreeInfo } from '@zb/core/formats/discInfo';
import { readSfdiskDump } from '@zb/core/formats/sfdiskDump';
import { readSyslinuxConfig } from '@zb/core/formats/syslinuxConfig';
import { parseGrubScript } from '@zb/core/formats/grub/script';
import { readHost } from '@zb/core/guests/read/tables';
import { readSurvey } from '@zb/core/machine/read';
import { readTable } from '@zb/core/layout/read/table';
import { benchFromText } from '@zb/core/model/file';
import { readTravel } from '@zb/core/model/travel';
import { readServices } from '@zb/core/model/gateDraft';
import { readNetworkText } from '@zb/core/network/read/read';
import { profilesFromText } from '@zb/core/system/exchange';
import { readLog } from '@zb/core/tune/logs/read';
import { readSize } from '@zb/core/units/typedSize';
import { parseBytes } from '@zb/core/units/bytes';
import { readNftJson } from '@zb/core/rules/read/nftJson';
import { markdownText } from '@zb/core/formats/writer/markdown';
import { placesOf } from '@zb/core/units/addressLine';

const log = (text: string): unknown => readLog(new TextEncoder().encode(text));
/** Every reader of a text of somebody else, each with texts that it takes. */
export const READERS: Record<string, { read: (text: string) => unknown; of: string[] }> = {
  'addresses and leases': {
    read: readNetworkText,
    of: [
      'lease 192.0.2.5 {\n  starts 4 2026/03/05 18:00:00;\n  ends never;\n  hardware ethernet 02:00:00:00:00:01;\n  client-hostname "one";\n}\n',
      'host one { hardware ethernet 02:00:00:00:00:01; fixed-address 192.0.2.9; }\n',
      '1772733600 02:00:00:00:00:01 192.0.2.5 one *\n',
      '? (192.0.2.1) at 02:00:00:00:00:01 [ether] on eth0\n',
      '192.0.2.5 one one.home.arpa # note\n::1 localhost\n',
      'Name;Address;MAC\n"one";192.0.2.5;02:00:00:00:00:01\n',
      'address,hwaddr,client_id,valid_lifetime,expire,subnet_id,fqdn_fwd,fqdn_rev,hostname,state\n192.0.2.5,02:00:00:00:00:01,,3600,1772733600,1,0,0,one,0\n',
      '==== zb-look ====\n==== addr ====\n[]\n==== shown ====\ncertificate 192.0.2.5:443 sha256 Fingerprint=AA:BB notAfter=Mar 5\nhostkey one ssh-ed25519 QUJD\n==== resolv ====\nnameserver 192.0.2.1\n==== end ====\n',
      '2: eth0: <UP> mtu 1500\n    inet 192.0.2.5/24 brd 192.0.2.255 scope global dynamic eth0\n',
      'default via 192.0.2.1 dev eth0 proto dhcp\n192.0.2.7 dev eth0 lladdr 02:00:00:00:00:01 REACHABLE\n',
    ],
  },
  'sheets of discs': {
    read: tracksOfSheet,
    of: ['FILE "one.bin" BINARY\n  TRACK 01 MODE1/2352\n    INDEX 01 00:00:00\n'],
  },
  'lists of checksums': {
    read: parseChecksumList,
    of: [
      `${'a'.repeat(64)}  one.iso\n`,
      `MD5 (one.iso) = ${'b'.repeat(32)}\n`,
      '-----BEGIN PGP SIGNED MESSAGE-----\nHash: SHA256\n\n# one.iso: 12 bytes\n',
    ],
  },
  manifests: { read: readManifest, of: [`\\${'a'.repeat(64)}  one\\nmore\n`] },
  'tables of drives': {
    read: readTable,
    of: [
      'label: gpt\nlabel-id: C12A7328-F81F-11D2-BA4B-00A0C93EC93B\ndevice: /dev/sdx\nunit: sectors\nsector-size: 512\n\n/dev/sdx1 : start=2048, size=4096, type=U, name="one", attrs="GUID:63"\n',
      'BYT;\n/dev/sdx:1000000000B:scsi:512:512:gpt:one:;\n1:1048576B:2097151B:1048576B:ext4:one:boot, esp;\n',
    ],
  },
  'dumps of tables': {
    read: readSfdiskDump,
    of: ['label: dos\n/dev/sdx1 : start= 2048, size= 4096, type=83, bootable, name="a\\x22b"\n'],
  },
  'loaders’ configurations': {
    read: (t) => [readLoaderEntry(t), readSyslinuxConfig(t), parseGrubScript(t)],
    of: [
      'title One\nlinux /vmlinuz\ninitrd /initrd\noptions root=/dev/sda1 quiet\n',
      'DEFAULT one\nLABEL one\n  KERNEL vmlinuz\n  APPEND initrd=i.gz\nINCLUDE more.cfg\n',
      'menuentry "one" --id x { set root=(hd0,gpt1); if [ -e /a ]; then linux /k $x; fi; }\nsearch --label Y\n',
    ],
  },
  'what a system says of itself': {
    read: (t) => [readOsRelease(t), readTreeInfo(t), t.split('\n').map(readDiscLine)],
    of: [
      'NAME="One"\nVERSION_ID=1.2\n',
      '[general]\nfamily = One\nversion = 2\n',
      'One 1.2 "Two" - Release amd64 20260305\n',
    ],
  },
  'hosts of virtual machines': {
    read: readHost,
    of: [
      '<domain type="kvm"><name>one</name><memory unit="KiB">1</memory><devices><disk><source file="/a"/></disk></devices></domain>\n',
      ' Id   Name   State\n-----------------\n 1    one    running\n',
      'CPU model:           x86_64\nCPU(s):              4\nMemory size:         8000000 KiB\n',
    ],
  },
  'reports of machines': {
    read: readSurvey,
    of: [
      '==== machine ====\nx86_64\n==== cpuinfo ====\nprocessor : 0\nflags : fpu lm aes\n==== firmware ====\nUEFI\n==== end ====\n',
    ],
  },
  'logs of tuning': {
    read: log,
    of: [
      'seconds,processor (°C),"power (W)"\n0,40.1,"12"\n1,41.0,"13"\n',
      'MsBetweenPresents;[one]\n16,7;1\n16,6;2\n',
      '# comment\n[head] (unit) {x}\n1\t2\t3\n',
    ],
  },
  'bench files': {
    read: benchFromText,
    of: ['{"format":"zealous-box-bench","version":9,"name":"a","items":[{}]}'],
  },
  'files of systems': { read: profilesFromText, of: ['{"format":"zealous-box-profiles","profiles":[{}]}'] },
  'sheets that travelled': {
    read: readTravel,
    of: ['<html><script type="application/json" id="zealous-box-run">{"format":"x"}</script></html>'],
  },
  'rules that were read': { read: readNftJson, of: ['{"nftables":[{"rule":{"expr":[]}}]}'] },
  'services and addresses that are typed': {
    read: (t) => [readServices(t), placesOf(t), readSize(t, true), parseBytes(t)],
    of: ['tcp 80, 443, 8000-8010\nicmp 8\n', '192.0.2.1-192.0.2.9', '58.6 GiB'],
  },
  'text for a sheet': { read: markdownText, of: ['a_b *c* [d](e) `f` 1. - www.a.bc <x> &lt;'] },
};

/** What a text is made of: words, marks and blanks, and its lines. */
export const tokensIn = (text: string): string[] => [
  ...new Set([...(text.match(/\w+|\s|[^\w\s]/g) ?? []), ...text.split('\n').map((l) => `${l}\n`)]),
];
