import type { Guest, Seed } from '../../model/guests';
import { yamlOf } from '../../formats/writer/yaml';
import { plainIso } from '../../formats/iso9660/plain';

/** Who there is and what is installed (cloud-init, “user-data”). No password stands in it: a hash, or keys alone. */
const userData = (seed: Seed): string =>
  yamlOf(
    {
      hostname: seed.hostName,
      manage_etc_hosts: true,
      users: [
        {
          name: seed.user,
          shell: '/bin/bash',
          groups: ['sudo'],
          ...(seed.hash === null
            ? { lock_passwd: true, sudo: 'ALL=(ALL) NOPASSWD:ALL' }
            : { lock_passwd: false, passwd: seed.hash, sudo: 'ALL=(ALL) ALL' }),
          ssh_authorized_keys: seed.keys.length > 0 ? seed.keys : undefined,
        },
      ],
      // Nobody signs in from the network by a password.
      ssh_pwauth: false,
      disable_root: true,
      package_update: true,
      packages: seed.packages.length > 0 ? seed.packages : undefined,
    },
    'cloud-config',
  );

/** How its first card gets its address (cloud-init, “network config version 2”). */
function networkConfig(g: Guest, seed: Seed): string {
  const { address } = seed;
  const hardware = g.nics[0]?.hardware ?? null;
  return yamlOf({
    version: 2,
    ethernets: {
      first: {
        match: hardware === null ? { name: 'e*' } : { macaddress: hardware },
        ...(address
          ? {
              dhcp4: false,
              addresses: [address.cidr],
              routes: [{ to: address.cidr.includes(':') ? '::/0' : '0.0.0.0/0', via: address.gateway }],
              nameservers: { addresses: address.nameServers },
            }
          : { dhcp4: true, dhcp6: true }),
      },
    },
  });
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
      text: yamlOf({ 'instance-id': `${g.name}-1`, 'local-hostname': seed.hostName }),
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
