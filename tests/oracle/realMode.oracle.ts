/**
 * The real-mode interpreter against the machine emulator: programs of random instructions print every register and the
 * flags that the instruction defines (IA-32 SDM volume 2, "Flags Affected"); both must print the same.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { bytesSource } from '@zb/core/formats/source';
import { followBootCode } from '@zb/core/starting/realMode/follow';
import { said } from './emulator';
import { run, scratch } from './files';

jest.setTimeout(60_000);
const room = scratch();
afterAll(() => room.clear());

const CASES = 120;
const C = 0x001;
const P = 0x004;
const Z = 0x040;
const S = 0x080;
const O = 0x800;
const ALL = C | P | Z | S | O;

/** A small generator with a seed, so that a failure can be repeated. */
function random(seed: number): (below: number) => number {
  let x = seed;
  return (below) => {
    x = (Math.imul(x, 1664525) + 1013904223) >>> 0;
    return Math.floor((x / 2 ** 32) * below);
  };
}

const WIDE = { b: ['%al', '%bl'], w: ['%ax', '%bx'], l: ['%eax', '%ebx'] } as const;

/** An instruction and the flags it defines. */
function instruction(pick: (below: number) => number): [text: string, flags: number] {
  const one = <T>(of: readonly T[]): T => of[pick(of.length)] as T;
  const width = one(['b', 'w', 'l'] as const);
  const [a, b] = WIDE[width];
  const two = one(['add', 'adc', 'sub', 'sbb', 'and', 'or', 'xor', 'cmp', 'test']);
  const n = pick(120) - 60;
  const kinds: (() => [string, number])[] = [
    () => [`${two}${width} ${b}, ${a}`, ALL],
    () => [`${two}${width} $${n}, ${b}`, ALL],
    () => [`${two}${width} ${a}, (%si)`, ALL],
    () => [`${one(['inc', 'dec'])}${width} ${a}`, ALL],
    () => [`neg${width} ${b}`, ALL],
    () => [`not${width} ${b}`, ALL],
    () => [`${one(['mul', 'imul'])}${width} ${b}`, C | O],
    () => [`${one(['shl', 'shr', 'sar'])}${width} $1, ${a}`, ALL],
    () => [`${one(['rol', 'ror', 'rcl', 'rcr'])}${width} $1, ${a}`, C],
    () => [`${one(['shl', 'shr', 'sar'])}${width} $${1 + pick(7)}, ${a}`, C | P | Z | S],
    () => [`${one(['rol', 'ror', 'rcl', 'rcr'])}${width} %cl, ${a}`, 0],
    () => [`movw $3, %dx\n andb $127, %bh\n orb $8, %bh\n ${one(['div', 'idiv'])}w %bx`, 0],
    () => [`${one(['cbtw', 'cwtd', 'clc', 'stc', 'cmc'])}`, C],
    () => [`${one(['movzbl', 'movsbl'])} %bl, %ecx`, 0],
    () => [`${one(['movzbw', 'movsbw'])} (%si), %cx`, 0],
    () => [`xchg${width} ${a}, ${b}`, 0],
    () => [`lea ${pick(200)}(%bx,%si), %cx`, 0],
    () => [`movw %ax, 4(%si)\n movb 5(%si), %dh`, 0],
    () => [`pushw %ax\n pushl %ebx\n popw %cx\n popl %edx`, 0],
    () => [`movw $16, %di\n movw $5, %cx\n rep stosb\n movw $4, %cx\n movw $14, %di\n repne scasb`, ALL],
    () => [`pushaw\n movw $0, %bx\n popaw`, 0],
    () => [`j${one(['a', 'b', 'e', 'g', 'l', 'o', 's', 'p'])} 7f\n movw $77, %cx\n7:`, ALL],
    () => [`movw $3, %cx\n7: incw %dx\n ${one(['loop', 'loope', 'loopne'])} 7b`, ALL],
    () => [`set${one(['a', 'b', 'e', 'g', 'l', 'o', 's', 'p'])} %cl`, 0],
    () => [`imulw %bx, %ax\n imull $${n}, %ebx, %ecx`, C | O],
    () => [one(['cwtl', 'cltd']), 0],
    // Bit 4 is the half carry, which is not kept.
    () => [`lahf\n andb $0xef, %ah`, 0],
    () => [`movw $0x600, %bx\n movb $${pick(3)}, %al\n xlatb`, 0],
    () => [`movl $0x600, %esi\n movl $${pick(4)}, %ecx\n addr32 movl -3(%esi,%ecx,2), %edx`, 0],
    () => [`movl $0x600, %esi\n addr32 leal 9(%esi,%ebx,4), %ecx`, 0],
    () => [`movl $3, %ecx\n7: incw %dx\n addr32 loop 7b`, 0],
    () => [`calll 7f\n7: popl %ecx\n subl $7b, %ecx`, 0],
    () => [`pushw %bp\n movw %sp, %bp\n pushw %ax\n leavew`, 0],
    () => [`movb $0x${(0x10 + pick(200)).toString(16)}, %cl\n shrl %cl, %ebx`, 0],
  ];
  return one(kinds)();
}

function program(seed: number): string {
  const pick = random(seed);
  const word = (): number => one([0, 1, 0x7f, 0x80, 0xff, 0x7fff, 0x8000, 0xffff, pick(2 ** 31) * 2 + 1]);
  const one = <T>(of: readonly T[]): T => of[pick(of.length)] as T;
  const blocks = Array.from({ length: CASES }, () => {
    const [text, flags] = instruction(pick);
    const start = `movl $${word()}, %eax\n movl $${word()}, %ebx\n movl $${pick(2 ** 16)}, %ecx\n movl $${word()}, %edx`;
    return ` movw $0x600, %si\n movl $${word()}, (%si)\n pushw $${pick(2) ? 0x8d5 | 2 : 2}\n popfw\n ${start}\n ${text}\n call dump\n .word ${flags}\n`;
  });
  return `.code16
 cli
 xorw %ax, %ax
 movw %ax, %ds
 movw %ax, %es
 movw %ax, %ss
 movw $0x7c00, %sp
 cld
 movw $0xe3, %ax
 xorw %dx, %dx
 int $0x14
 movw $packet, %si
 movb $0x42, %ah
 movb $0x80, %dl
 int $0x13
 jmp body
packet: .byte 16, 0
 .word 60, body, 0
 .quad 1
dump:
 pushfw
 pushal
 movw %sp, %bp
 movw 34(%bp), %bx
 movw (%bx), %ax
 addw $2, 34(%bp)
 andw 32(%bp), %ax
 movzwl %ax, %eax
 call hex
 movl 28(%bp), %eax
 call hex
 movl 16(%bp), %eax
 call hex
 movl 24(%bp), %eax
 call hex
 movl 20(%bp), %eax
 call hex
 movb $10, %al
 call say
 popal
 popfw
 ret
hex:
 movw $8, %cx
1: roll $4, %eax
 pushl %eax
 andb $15, %al
 addb $'0', %al
 cmpb $'9', %al
 jbe 2f
 addb $39, %al
2: call say
 popl %eax
 loop 1b
 movb $' ', %al
say:
 pushal
 movb $14, %ah
 movw $7, %bx
 int $0x10
 popal
 pushal
 movb $1, %ah
 xorw %dx, %dx
 int $0x14
 popal
 ret
 .org 510
 .word 0xaa55
body:
${blocks.join('')} movb $'!', %al
 call say
9: hlt
 jmp 9b
 .org 512 * 61
`;
}

it.each([1, 2, 3, 4])(
  'programs of random instructions print what the emulator prints (seed %d)',
  async (seed) => {
    const source = room.path(`p${seed}.s`);
    const disk = room.path(`p${seed}.img`);
    writeFileSync(source, program(seed));
    run('as', ['--32', '-o', `${source}.o`, source]);
    run('ld', ['-m', 'elf_i386', '-Ttext', '0x7c00', '--oformat', 'binary', '-o', disk, `${source}.o`]);
    const image = new Uint8Array(readFileSync(disk));
    const ours = await followBootCode(bytesSource(image), {
      at: 0,
      bytes: 512,
      drive: 0x80,
      sectorBytes: 512,
    });
    expect(ours.end).toBe('stops');
    const lines = ours.printed.split('\n');
    expect(lines).toHaveLength(CASES + 1);
    const theirs = (await said({ firmware: 'bios', attached: 'disk' }, disk, '!')).split('\n');
    expect(theirs.slice(-lines.length).map((l) => l.trim())).toEqual(lines.map((l) => l.trim()));
  },
);
