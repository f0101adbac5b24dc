// The Debian packages the tests use, each with a command or file that shows it is there.
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';

const NEEDED = {
  'chromium-headless-shell': '/usr/bin/chromium-headless-shell',
  fdisk: '/usr/sbin/sfdisk',
  gdisk: '/usr/sbin/sgdisk',
  parted: '/usr/sbin/parted',
  dosfstools: '/usr/sbin/mkfs.vfat',
  mtools: '/usr/bin/mcopy',
  xorriso: '/usr/bin/xorriso',
  genisoimage: '/usr/bin/isoinfo',
  isolinux: '/usr/lib/ISOLINUX/isohdpfx.bin',
  syslinux: '/usr/bin/syslinux',
  'syslinux-common': '/usr/lib/SYSLINUX/mbr.bin',
  'grub-common': '/usr/bin/grub-mkrescue',
  'grub-pc-bin': '/usr/lib/grub/i386-pc/boot.img',
  'grub-efi-amd64-bin': '/usr/lib/grub/x86_64-efi/kernel.img',
  'qemu-system-x86': '/usr/bin/qemu-system-x86_64',
  ovmf: '/usr/share/OVMF/OVMF_CODE_4M.fd',
  'util-linux': '/usr/bin/lscpu',
  e2fsprogs: '/usr/sbin/mkfs.ext4',
  'squashfs-tools': '/usr/bin/mksquashfs',
  dmidecode: '/usr/sbin/dmidecode',
  smartmontools: '/usr/sbin/smartctl',
  'edid-decode': '/usr/bin/edid-decode',
  efibootmgr: '/usr/bin/efibootmgr',
  sbsigntool: '/usr/bin/sbsign',
  xfsprogs: '/usr/sbin/mkfs.xfs',
  'btrfs-progs': '/sbin/mkfs.btrfs',
  'f2fs-tools': '/usr/sbin/mkfs.f2fs',
  exfatprogs: '/usr/sbin/mkfs.exfat',
  'ntfs-3g': '/usr/sbin/mkfs.ntfs',
  'cryptsetup-bin': '/usr/sbin/cryptsetup',
  'libarchive-tools': '/usr/bin/bsdtar',
  'grub-efi-ia32-bin': '/usr/lib/grub/i386-efi/kernel.img',
  'qemu-system-arm': '/usr/bin/qemu-system-aarch64',
  'qemu-efi-aarch64': '/usr/share/qemu-efi-aarch64/QEMU_EFI.fd',
  'ovmf-ia32': '/usr/share/OVMF/OVMF32_CODE_4M.secboot.fd',
  gnupg: '/usr/bin/gpg',
  'xz-utils': '/usr/bin/xz',
  zstd: '/usr/bin/zstd',
  bzip2: '/usr/bin/bzip2',
  zip: '/usr/bin/zip',
  dash: '/bin/dash',
  busybox: '/bin/busybox',
  binutils: '/usr/bin/as',
  kmod: '/usr/bin/kmod',
  cpio: '/usr/bin/cpio',
  ethtool: '/usr/sbin/ethtool',
  'shim-signed': '/usr/lib/shim/shimx64.efi.signed',
  'grub-efi-amd64-signed': '/usr/lib/grub/x86_64-efi-signed/gcdx64.efi.signed',
  'dnsmasq-base': '/usr/sbin/dnsmasq',
  ipcalc: '/usr/bin/ipcalc',
  'iputils-arping': '/usr/bin/arping',
  iproute2: '/usr/bin/ip',
  'net-tools': '/usr/sbin/arp',
  'kea-dhcp4-server': '/usr/sbin/kea-dhcp4',
  'isc-dhcp-server': '/usr/sbin/dhcpd',
  ifupdown: '/usr/sbin/ifup',
  'netplan.io': '/usr/sbin/netplan',
  'network-manager': '/usr/bin/nmcli',
  'openssh-server': '/usr/sbin/sshd',
  'openssh-client': '/usr/bin/ssh-keyscan',
  openssl: '/usr/bin/openssl',
  'samba-common-bin': '/usr/bin/testparm',
  samba: '/usr/sbin/smbd',
  'samba-vfs-modules': '/usr/lib/x86_64-linux-gnu/samba/vfs/recycle.so',
  smbclient: '/usr/bin/smbclient',
  acl: '/usr/bin/setfacl',
  'nfs-common': '/sbin/mount.nfs4',
  'nfs-kernel-server': '/usr/sbin/exportfs',
  'nginx-light': '/usr/sbin/nginx',
  sqlite3: '/usr/bin/sqlite3',
  nftables: '/usr/sbin/nft',
  python3: '/usr/bin/python3',
  'libxml2-utils': '/usr/bin/xmllint',
  'libvirt-clients': '/usr/bin/virt-xml-validate',
  mdadm: '/sbin/mdadm',
  lvm2: '/sbin/pvcreate',
  fio: '/usr/bin/fio',
  iperf3: '/usr/bin/iperf3',
  'stress-ng': '/usr/bin/stress-ng',
  'lm-sensors': '/usr/bin/sensors',
  memtester: '/usr/sbin/memtester',
  'memtest86+': '/usr/lib/memtest86+/memtest86+x64.iso',
  mbr: '/sbin/install-mbr',
  'python3-icalendar': '/usr/lib/python3/dist-packages/icalendar/__init__.py',
  'python3-scipy': '/usr/lib/python3/dist-packages/scipy/__init__.py',
  'zbar-tools': '/usr/bin/zbarimg',
  'systemd-boot-efi': '/usr/lib/systemd/boot/efi/systemd-bootx64.efi',
};

const missing = () => Object.keys(NEEDED).filter((name) => !existsSync(NEEDED[name]));

/**
 * Installs what is missing when root; otherwise names it with the command to run. Resolves to what is still missing; other
 * work can be done meanwhile.
 */
export async function installDebianPackages() {
  const wanted = missing();
  if (wanted.length === 0) return [];
  const command = ['install', '-y', '--no-install-recommends', ...wanted];
  if (process.getuid?.() !== 0) {
    console.error(
      `The tests need Debian packages that are not here. Run:\n  sudo apt-get ${command.join(' ')}`,
    );
    return wanted;
  }
  console.log(`Installing Debian packages: ${wanted.join(' ')}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const child = spawn('sh', ['-c', 'apt-get update -qq && exec apt-get "$@"', 'sh', ...command], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env,
  });
  const fault = await new Promise((resolve) => {
    child.on('exit', (code) => resolve(code === 0 ? '' : `ended with ${code}`));
    child.on('error', (error) => resolve(error.message));
  });
  if (fault !== '') console.error(`apt-get failed: ${fault}`);
  return missing();
}
