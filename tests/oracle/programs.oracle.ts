/**
 * Boot code that is itself the program, against starts in the emulator: programs of ours that load the rest of themselves
 * and turn protected mode on, or show a menu; the same ones cut off, wiped, with nothing behind them or on a volume of
 * files; a memory tester and a boot record of Debian's. What BIOS starts of each is what is told, or it is told that it
 * cannot be; the whole of them, the ones of Debian too, in `npm run proof programs`.
 */
import { spawn } from 'node:child_process';
import { copyFileSync, existsSync, readFileSync, writeFileSync } from 'node:fs';
import { bytesSource } from '@zb/core/formats/source';
import type { StartReason } from '@zb/core/model/startReason';
import { inspectImage } from '@zb/core/starting/inspect';
import { starts } from './emulator';
import { blank, run, scratch } from './files';

jest.setTimeout(300_000);
const ALL = process.env.ZB_PROGRAMS === 'all';
const room = scratch();
afterAll(() => room.clear());
const TOKEN = 'ZB-PROGRAM-RUNS';
const SECTOR = 512;

/** Says the token on the serial line from where DS:SI points; 32-bit and 16-bit code alike. */
const SPEAK = `
1: lodsb
 testb %al, %al
 jz 2f
 outb %al, %dx
 jmp 1b
2:
`;
/** Ways in which boot sectors read the sectors behind themselves to 8000h. */
const READS = {
  // As code for small disks does: head, track and sector.
  'by cylinder':
    ' movw $0x0208, %ax\n movw $0x8000, %bx\n movw $2, %cx\n movb $0, %dh\n int $0x13\n jc fails\n',
  // By the extensions, with a packet.
  'by packet': ' movw $packet, %si\n movb $0x42, %ah\n int $0x13\n jc fails\n',
  // One after the other, asked for again where it fails; the counter in an address of 32 bits.
  'one by one': `
 movl $0, %ebp
3: movl %ebp, %eax
 addl $1, %eax
 movl %eax, packet + 8
 movw %bp, %ax
 shlw $5, %ax
 addw $0x800, %ax
 movw %ax, packet + 6
 movw $0, packet + 4
 movw $1, packet + 2
 movw $packet, %si
 movb $0x42, %ah
 int $0x13
 jc fails
 addr32 leal 1(%ebp), %ebp
 cmpw $8, %bp
 jb 3b
`,
} as const;
/** What the program behind does. */
const PROGRAMS = {
  'protected mode': `
 inb $0x92, %al
 orb $2, %al
 outb %al, $0x92
 cli
 lgdt table_at
 movl %cr0, %eax
 orb $1, %al
 movl %eax, %cr0
 ljmp $8, $wide
 .code32
wide: movw $16, %ax
 movw %ax, %ds
 movl $text, %esi
 movw $0x3f8, %dx
 cld
 ${SPEAK}
9: hlt
 jmp 9b
 .code16
`,
  'a menu': `
 movw $text, %si
 movw $0x3f8, %dx
 cld
 ${SPEAK}
4: movb $0, %ah
 int $0x16
 movb $0x0e, %ah
 int $0x10
 jmp 4b
`,
} as const;

const source = (read: string, program: string): string => `.code16
 jmp start
 nop
 .org 0x3e
 # A version that a loader of before 2009 keeps here, and two of its messages at the end.
 .word 0x0203
start: cli
 xorw %ax, %ax
 movw %ax, %ds
 movw %ax, %es
 movw %ax, %ss
 movw $0x7c00, %sp
 sti
 cld
 ${read}
 ljmp $0, $program
fails: movb $0x0e, %ah
 movb $'!', %al
 int $0x10
 xorb %ah, %ah
 int $0x16
 int $0x18
 .align 4
packet: .byte 16, 0
 .word 8, 0x8000, 0
 .quad 1
 .ascii "GRUB \\0Geom\\0"
 .org 510
 .word 0xaa55
 .org 0x400
program: ${program}
 .align 8
table: .quad 0, 0x00cf9a000000ffff, 0x00cf92000000ffff
table_at: .word 23
 .long table
text: .asciz "${TOKEN}"
 .org 0x400 + 8 * 512
`;

/** A disk image of a program: its boot sector, eight sectors behind it, and room. */
function program(read: keyof typeof READS, what: keyof typeof PROGRAMS): Buffer {
  const path = room.path(`${read}-${what}`.replace(/ /g, '-'));
  writeFileSync(`${path}.s`, source(READS[read], PROGRAMS[what]));
  run('as', ['--32', '-o', `${path}.o`, `${path}.s`]);
  run('ld', [
    '-m',
    'elf_i386',
    '-Ttext',
    '0x7c00',
    '-e',
    '0',
    '--oformat',
    'binary',
    '-o',
    path,
    `${path}.o`,
  ]);
  const code = readFileSync(path);
  // Behind the sector it lies where memory 8000h begins.
  const image = Buffer.alloc(1440 * 1024);
  code.copy(image, 0, 0, SECTOR);
  code.copy(image, SECTOR, 0x400);
  return image;
}

function optical(name: string, floppy: Buffer): string {
  const folder = room.path(`${name}.d`);
  run('mkdir', ['-p', folder]);
  writeFileSync(`${folder}/floppy.img`, floppy);
  const path = room.path(`${name}.iso`);
  // Without an option of its own xorriso emulates a floppy disk of the file's size.
  run('xorriso', ['-as', 'mkisofs', '-quiet', '-b', 'floppy.img', '-c', 'boot.cat', '-o', path, folder]);
  return path;
}

async function told(
  path: string,
  attached: 'disk' | 'optical',
): Promise<{ starts: string; reason: StartReason }> {
  const found = (await inspectImage(bytesSource(new Uint8Array(readFileSync(path))))).outcomes.find(
    (o) => o.firmware === 'bios' && o.attached === attached,
  );
  if (!found) throw new Error('nothing is told of BIOS');
  return found;
}

const kinds = Object.keys(READS).flatMap((read) =>
  Object.keys(PROGRAMS).map((what) => [read, what] as [keyof typeof READS, keyof typeof PROGRAMS]),
);
const some = ALL ? kinds : kinds.filter((_, i) => i === 0 || i === kinds.length - 1);

describe.each(some)('a program read %s that goes on in %s', (read, what) => {
  const image = (): Buffer => program(read, what);
  const write = (name: string, bytes: Buffer): string => {
    const path = room.path(`${name} ${read} ${what}.img`.replace(/ /g, '-'));
    writeFileSync(path, bytes);
    return path;
  };

  it('is told to start, and starts, from a disk and as a floppy disk on an optical medium', async () => {
    const path = write('whole', image());
    expect(await told(path, 'disk')).toMatchObject({
      starts: 'yes',
      reason: { code: 'starts its own program', bytes: 8 * SECTOR },
    });
    expect(await starts({ firmware: 'bios', attached: 'disk', image: path, token: TOKEN })).toBe(true);
    if (read !== 'by cylinder') return;
    const disc = optical(`disc-${what.replace(/ /g, '-')}`, image());
    expect(await told(disc, 'optical')).toMatchObject({ starts: 'yes' });
    expect(await starts({ firmware: 'bios', attached: 'optical', image: disc, token: TOKEN })).toBe(true);
  });

  it('is told not to start where the image ends in it, and where it is wiped', async () => {
    for (const path of [
      write('cut', image().subarray(0, 5 * SECTOR)),
      write('wiped', Buffer.concat([image().subarray(0, SECTOR), Buffer.alloc(64 * SECTOR)])),
    ]) {
      expect((await told(path, 'disk')).starts).toBe('no');
      expect(await starts({ firmware: 'bios', attached: 'disk', image: path, token: TOKEN })).toBe(false);
    }
  });

  it('is not told where it lies on a volume of files, that it may look for', async () => {
    const path = blank(room.path('volume.img'), 2 * 1024 * 1024);
    run('mkfs.vfat', ['-F', '12', '-R', '16', path]);
    const [volume, own] = [readFileSync(path), image()];
    // The parameter block stays; the program's code jumps over it.
    own.copy(volume, 0, 0, 3);
    own.copy(volume, 0x3e, 0x3e, SECTOR);
    own.copy(volume, SECTOR, SECTOR, 9 * SECTOR);
    writeFileSync(path, volume);
    expect((await told(path, 'disk')).starts).toBe('unknown');
  });
});

it('a boot record that only complains is told so, through code in front of it that prints too', async () => {
  // Debian's mbr, whose code starts the active part; dosfstools' boot record, which says that it cannot.
  const path = blank(room.path('complains.img'), 8 * 1024 * 1024);
  run('sfdisk', ['-q', path], 'label: dos\n2048,,c,*\n');
  run('mkfs.vfat', ['--offset', '2048', path, '7168']);
  run('/sbin/install-mbr', ['--force', path]);
  const found = await told(path, 'disk');
  expect(found).toMatchObject({ starts: 'no', reason: { code: 'only prints' } });
  expect(found.reason).toHaveProperty('printed', expect.stringContaining('not a bootable disk'));
});

/** What stands on the screen in text mode, seen through the emulator's monitor, once it holds `expected`. */
async function screenHolds(args: string[], expected: string, seconds: number): Promise<boolean> {
  const dump = room.path('screen');
  const child = spawn(
    'qemu-system-x86_64',
    [
      '-m',
      '256',
      '-display',
      'none',
      '-vga',
      'std',
      '-net',
      'none',
      '-serial',
      'none',
      '-monitor',
      'stdio',
      ...args,
    ],
    { stdio: ['pipe', 'ignore', 'ignore'] },
  );
  try {
    const limit = Date.now() + seconds * 1000;
    while (Date.now() < limit) {
      await new Promise((r) => setTimeout(r, 500));
      child.stdin.write(`pmemsave 0xb8000 4000 "${dump}"\n`);
      await new Promise((r) => setTimeout(r, 100));
      const seen = existsSync(dump) ? readFileSync(dump).toString('latin1').replace(/(.)./gs, '$1') : '';
      if (seen.includes(expected)) return true;
    }
    return false;
  } finally {
    child.kill('SIGKILL');
  }
}

const TESTER = '/usr/lib/memtest86+';
it.each(['x64', 'ia32'])('a memory tester (%s) is told to start, and starts', async (kind) => {
  const path = room.path('tester.iso');
  copyFileSync(`${TESTER}/memtest86+${kind}.iso`, path);
  const ways = [
    ['optical', ['-cdrom', path]],
    ['disk', ['-drive', `file=${path},format=raw,snapshot=on`]],
  ] as const;
  for (const [attached, args] of ways) {
    expect(await told(path, attached)).toMatchObject({
      starts: 'yes',
      reason: { code: 'starts its own program' },
    });
    // It takes half a minute until it shows itself.
    if (ALL) expect(await screenHolds([...args], 'CLK/Temp', 120)).toBe(true);
  }
});
