import type { Guest, Seed } from '../../model/guests';
import { plainIso } from '../../formats/iso9660/plain';

/** A value as YAML takes it whatever is in it: a string in double quotes is one in JSON too (YAML 1.2 §7.3.1). */
const quoted = (text: string): string => JSON.stringify(text);

/** Who there is and what is installed (cloud-init, “user-data”). No password stands in it: a hash, or keys alone. */
function userData(seed: Seed): string {
  const lines = [
    '#cloud-config',
    `hostname: ${quoted(seed.hostName)}`,
    'manage_etc_hosts: true',
    'users:',
    `  - name: ${quoted(seed.user)}`,
    '    shell: /bin/bash',
    '    groups: [sudo]',
    ...(seed.hash === null
      ? ['    lock_passwd: true', '    sudo: "ALL=(ALL) NOPASSWD:ALL"']
      : ['    lock_passwd: false', `    passwd: ${quoted(seed.hash)}`, '    sudo: "ALL=(ALL) ALL"']),
    ...(seed.keys.length > 0
      ? ['    ssh_authorized_keys:', ...seed.keys.map((k) => `      - ${quoted(k)}`)]
      : []),
    // Nobody signs in from the network by a password.
    'ssh_pwauth: false',
    'disable_root: true',
    'package_update: true',
    ...(seed.packages.length > 0 ? ['packages:', ...seed.packages.map((p) => `  - ${quoted(p)}`)] : []),
  ];
  return `${lines.join('\n')}\n`;
}

/** How its first card gets its address (cloud-init, “network config version 2”). */
function networkConfig(g: Guest, seed: Seed): string {
  const card = g.nics[0];
  const lines = ['version: 2', 'ethernets:', '  first:', '    match:'];
  lines.push(card?.hardware == null ? '      name: "e*"' : `      macaddress: ${quoted(card.hardware)}`);
  const { address } = seed;
  if (!address) return `${[...lines, '    dhcp4: true', '    dhcp6: true'].join('\n')}\n`;
  const six = address.cidr.includes(':');
  return `${[
    ...lines,
    '    dhcp4: false',
    `    addresses: [${quoted(address.cidr)}]`,
    '    routes:',
    `      - to: ${six ? '"::/0"' : '"0.0.0.0/0"'}`,
    `        via: ${quoted(address.gateway)}`,
    '    nameservers:',
    `      addresses: [${address.nameServers.map(quoted).join(', ')}]`,
  ].join('\n')}\n`;
}

/** The files of a first boot, by name (cloud-init, “NoCloud”); none where the guest has no seed. */
export function seedFiles(g: Guest): { name: 'user-data' | 'meta-data' | 'network-config'; text: string }[] {
  const { seed } = g;
  if (!seed) return [];
  return [
    { name: 'user-data', text: userData(seed) },
    // Another name for the instance makes a first boot anew.
    {
      name: 'meta-data',
      text: `instance-id: ${quoted(`${g.name}-1`)}\nlocal-hostname: ${quoted(seed.hostName)}\n`,
    },
    { name: 'network-config', text: networkConfig(g, seed) },
  ];
}

/** The seed as a small optical volume of the name that is looked for (cloud-init, “NoCloud”: cidata). */
export const seedIso = (g: Guest): Uint8Array =>
  plainIso(
    'cidata',
    seedFiles(g).map((f) => ({ name: f.name, bytes: new TextEncoder().encode(f.text) })),
  );
