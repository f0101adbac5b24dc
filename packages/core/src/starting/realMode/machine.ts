/** Width of an operand in bytes. */
export type Width = 1 | 2 | 4;

/** Registers by the number instructions give them: AX CX DX BX SP BP SI DI; and the segments ES CS SS DS FS GS. */
export const AX = 0;
export const CX = 1;
export const DX = 2;
export const BX = 3;
export const SP = 4;
export const BP = 5;
export const SI = 6;
export const DI = 7;
export const ES = 0;
export const CS = 1;
export const SS = 2;
export const DS = 3;

/** All that a real-mode address can reach with the twenty-first line open. */
const MEMORY_BYTES = 0x110000;

const MASK: Record<Width, number> = { 1: 0xff, 2: 0xffff, 4: 0xffffffff };
/** A value cut to its width in bytes. */
export const mask = (value: number, width: Width): number => (value & MASK[width]) >>> 0;
/** Whether the highest bit of a value of this width is set. */
export const signBit = (value: number, width: Width): boolean => ((value >>> (8 * width - 1)) & 1) === 1;
/** A value of this width as a signed number (two's complement). */
export const signed = (value: number, width: Width): number =>
  width === 4 ? value | 0 : signBit(value, width) ? value - 2 ** (8 * width) : value;

/**
 * Memory and registers of an x86 processor in real mode (IA-32 Software Developer’s Manual (SDM), volume 3, chapter 21, "8086 Emulation"). Values are
 * unsigned; addresses are linear, segment × 16 + offset.
 */
export class RealModeMachine {
  readonly memory = new Uint8Array(MEMORY_BYTES);
  readonly registers = new Uint32Array(8);
  readonly segments = new Uint16Array(6);
  ip = 0;
  /** CR0. */
  control = 0x10;
  carry = false;
  zero = false;
  sign = false;
  overflow = false;
  parity = false;
  backwards = false;
  interrupts = true;

  linear(segment: number, offset: number): number {
    return ((this.segments[segment] ?? 0) * 16 + (offset & 0xffff)) % MEMORY_BYTES;
  }

  load(address: number, width: Width): number {
    let value = 0;
    for (let i = width - 1; i >= 0; i -= 1) value = value * 256 + (this.memory[address + i] ?? 0);
    return value;
  }

  store(address: number, width: Width, value: number): void {
    for (let i = 0; i < width; i += 1) this.memory[address + i] = (value >>> (8 * i)) & 0xff;
  }

  /** A register of this width; of the byte registers 4 to 7 are the high halves of the first four. */
  get(register: number, width: Width): number {
    const whole = this.registers[width === 1 ? register & 3 : register] ?? 0;
    return width === 1 ? (whole >>> (register & 4 ? 8 : 0)) & 0xff : mask(whole, width);
  }

  set(register: number, width: Width, value: number): void {
    if (width === 4) this.registers[register] = value;
    else if (width === 2)
      this.registers[register] = ((this.registers[register] ?? 0) & 0xffff0000) | (value & 0xffff);
    else {
      const shift = register & 4 ? 8 : 0;
      const whole = this.registers[register & 3] ?? 0;
      this.registers[register & 3] = (whole & ~(0xff << shift)) | ((value & 0xff) << shift);
    }
  }

  push(value: number, width: Width): void {
    this.set(SP, 2, this.get(SP, 2) - width);
    this.store(this.linear(SS, this.get(SP, 2)), width, value);
  }

  pop(width: Width): number {
    const value = this.load(this.linear(SS, this.get(SP, 2)), width);
    this.set(SP, 2, this.get(SP, 2) + width);
    return value;
  }

  /** Flags as PUSHF stores them (IA-32 SDM volume 1, §3.4.3); those that are not kept read as zero, bit 1 as one. */
  flagsWord(): number {
    return (
      2 |
      (this.carry ? 1 : 0) |
      (this.parity ? 4 : 0) |
      (this.zero ? 0x40 : 0) |
      (this.sign ? 0x80 : 0) |
      (this.interrupts ? 0x200 : 0) |
      (this.backwards ? 0x400 : 0) |
      (this.overflow ? 0x800 : 0)
    );
  }

  setFlagsWord(word: number): void {
    this.carry = (word & 1) !== 0;
    this.parity = (word & 4) !== 0;
    this.zero = (word & 0x40) !== 0;
    this.sign = (word & 0x80) !== 0;
    this.interrupts = (word & 0x200) !== 0;
    this.backwards = (word & 0x400) !== 0;
    this.overflow = (word & 0x800) !== 0;
  }
}
