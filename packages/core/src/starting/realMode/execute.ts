import { divide, judged, multiply, operate, shift, step } from './arithmetic';
import { wideAddress } from './address';
import { readPort } from './ports';
import {
  AX,
  BP,
  BX,
  CS,
  CX,
  DI,
  DS,
  DX,
  ES,
  mask,
  SI,
  signed,
  SP,
  SS,
  type RealModeMachine,
  type Width,
} from './machine';

/** Why the processor does not go on by itself. */
export type Pause =
  | { kind: 'interrupt'; vector: number }
  | { kind: 'halt' }
  /** Jumps to itself for ever. */
  | { kind: 'stands' }
  /** An instruction outside what boot sectors need in real mode, among them all that lead out of it. */
  | { kind: 'unsupported'; opcode: number }
  /** Turns protected mode on: from here a program of its own runs. */
  | { kind: 'protected mode' }
  /** Read a port whose answer differs between machines. */
  | { kind: 'asked the hardware' }
  | { kind: 'fault' };

interface Place {
  register: number;
  /** Linear address; undefined where the operand is a register. */
  address: number | undefined;
  offset: number;
}

/** A segment has 64 KiB in real mode; what asks for more is a fault. */
const SEGMENT_END = 0xffff;

const CONDITIONS: ((m: RealModeMachine) => boolean)[] = [
  (m) => m.overflow,
  (m) => m.carry,
  (m) => m.zero,
  (m) => m.carry || m.zero,
  (m) => m.sign,
  (m) => m.parity,
  (m) => m.sign !== m.overflow,
  (m) => m.zero || m.sign !== m.overflow,
];
const holds = (m: RealModeMachine, code: number): boolean =>
  (CONDITIONS[(code >> 1) & 7]?.(m) ?? false) !== ((code & 1) === 1);

/** The eight ways two registers make an address in sixteen bits (IA-32 SDM volume 2, table 2-1). */
const BASES: readonly (readonly number[])[] = [
  [BX, SI],
  [BX, DI],
  [BP, SI],
  [BP, DI],
  [SI],
  [DI],
  [BP],
  [BX],
];

/** One instruction of a processor in real mode: IA-32 SDM volume 2 (instructions, and chapter 2 for their form). */
class Instruction {
  private segment: number | undefined;
  private width: Width = 2;
  private repeat: 'equal' | 'unequal' | undefined;
  private wide = false;
  /** An address beyond the end of its segment. */
  private beyond = false;

  constructor(private readonly m: RealModeMachine) {}

  private fetch(width: Width): number {
    const value = this.m.load(this.m.linear(CS, this.m.ip), width);
    this.m.ip = (this.m.ip + width) & 0xffff;
    return value;
  }
  private relative(width: Width): void {
    const by = signed(this.fetch(width), width);
    this.m.ip = (this.m.ip + by) & 0xffff;
  }

  /** Reads the byte that names a register and a place, and what follows it. */
  private operands(): Place & { number: number } {
    const { m } = this;
    const byte = this.fetch(1);
    const mode = byte >> 6;
    const low = byte & 7;
    const number = (byte >> 3) & 7;
    if (mode === 3) return { number, register: low, address: undefined, offset: 0 };
    if (this.wide) {
      const at = wideAddress(m, (width) => this.fetch(width), mode, low);
      return {
        number,
        register: low,
        address: m.linear(this.segment ?? at.segment, at.offset),
        offset: at.offset,
      };
    }
    const direct = mode === 0 && low === 6;
    const bases = BASES[low] ?? [];
    let offset = direct ? this.fetch(2) : bases.reduce((sum, r) => sum + m.get(r, 2), 0);
    if (mode === 1) offset += signed(this.fetch(1), 1);
    if (mode === 2) offset += this.fetch(2);
    offset &= 0xffff;
    const usual = !direct && bases.includes(BP) ? SS : DS;
    return { number, register: low, address: m.linear(this.segment ?? usual, offset), offset };
  }
  private read(at: Place, width: Width): number {
    this.beyond ||= at.offset > SEGMENT_END;
    return at.address === undefined ? this.m.get(at.register, width) : this.m.load(at.address, width);
  }
  private write(at: Place, width: Width, value: number): void {
    this.beyond ||= at.offset > SEGMENT_END;
    if (at.address === undefined) this.m.set(at.register, width, value);
    else this.m.store(at.address, width, value);
  }

  private strings(opcode: number): Pause | undefined {
    const { m } = this;
    const width: Width = opcode & 1 ? this.width : 1;
    const by = m.backwards ? -width : width;
    const size: Width = this.wide ? 4 : 2;
    const reach = (register: number): number => {
      const offset = m.get(register, size);
      this.beyond ||= offset > SEGMENT_END;
      return offset;
    };
    const from = (): number => m.linear(this.segment ?? DS, reach(SI));
    const to = (): number => m.linear(ES, reach(DI));
    const on = (register: number): void => m.set(register, size, m.get(register, size) + by);
    const compares = (opcode & 0xf6) === 0xa6;
    for (;;) {
      if (this.repeat) {
        if (m.get(CX, size) === 0 || this.beyond) return undefined;
        m.set(CX, size, m.get(CX, size) - 1);
      }
      switch (opcode & 0xfe) {
        case 0xa4:
          m.store(to(), width, m.load(from(), width));
          on(SI);
          on(DI);
          break;
        case 0xa6:
          operate(m, 7, m.load(from(), width), m.load(to(), width), width);
          on(SI);
          on(DI);
          break;
        case 0xaa:
          m.store(to(), width, m.get(AX, width));
          on(DI);
          break;
        case 0xac:
          m.set(AX, width, m.load(from(), width));
          on(SI);
          break;
        default:
          operate(m, 7, m.get(AX, width), m.load(to(), width), width);
          on(DI);
      }
      if (!this.repeat || (compares && m.zero !== (this.repeat === 'equal'))) return undefined;
    }
  }

  private unary(width: Width): Pause | undefined {
    const { m } = this;
    const at = this.operands();
    const value = this.read(at, width);
    if (at.number < 2) judgedTest(m, value & this.fetch(width), width);
    else if (at.number === 2) this.write(at, width, mask(~value, width));
    else if (at.number === 3) this.write(at, width, operate(m, 5, 0, value, width));
    else if (at.number < 6) {
      const [low, high] = multiply(m, m.get(AX, width), value, width, at.number === 5);
      if (width === 1) m.set(AX, 2, high * 256 + low);
      else {
        m.set(AX, width, low);
        m.set(DX, width, high);
      }
    } else {
      const high = width === 1 ? m.get(AX, 2) >> 8 : m.get(DX, width);
      const done = divide(high, m.get(AX, width), value, width, at.number === 7);
      if (!done) return { kind: 'fault' };
      if (width === 1) m.set(AX, 2, done.remainder * 256 + done.quotient);
      else {
        m.set(AX, width, done.quotient);
        m.set(DX, width, done.remainder);
      }
    }
    return undefined;
  }

  /** INC, DEC, CALL, JMP and PUSH of a place. */
  private group5(opcode: number): Pause | undefined {
    const { m } = this;
    const width: Width = opcode & 1 ? this.width : 1;
    const at = this.operands();
    const value = this.read(at, width);
    const far = at.address === undefined ? 0 : m.load(at.address + width, 2);
    if (at.number < 2) this.write(at, width, step(m, value, at.number === 0 ? 1 : -1, width));
    else if (opcode === 0xfe) return { kind: 'unsupported', opcode };
    else if (at.number === 6) m.push(value, width);
    else {
      if (at.number === 3) m.push(m.segments[CS] ?? 0, width);
      if (at.number === 2 || at.number === 3) m.push(m.ip, width);
      if (at.number === 3 || at.number === 5) m.segments[CS] = far;
      m.ip = value & 0xffff;
    }
    return undefined;
  }

  private twoBytes(): Pause | undefined {
    const { m } = this;
    const opcode = this.fetch(1);
    if ((opcode & 0xf0) === 0x80) {
      const by = signed(this.fetch(this.width), this.width);
      if (holds(m, opcode)) m.ip = (m.ip + by) & 0xffff;
    } else if (opcode === 0xb6 || opcode === 0xb7 || opcode === 0xbe || opcode === 0xbf) {
      const at = this.operands();
      const width: Width = opcode & 1 ? 2 : 1;
      const value = this.read(at, width);
      m.set(at.number, this.width, mask(opcode >= 0xbe ? signed(value, width) : value, this.width));
    } else if (opcode === 0xa0 || opcode === 0xa8) m.push(m.segments[opcode === 0xa0 ? 4 : 5] ?? 0, 2);
    else if (opcode === 0xa1 || opcode === 0xa9) m.segments[opcode === 0xa1 ? 4 : 5] = m.pop(2);
    else if (opcode === 0xb2 || opcode === 0xb4 || opcode === 0xb5) {
      const at = this.operands();
      m.set(at.number, this.width, this.read(at, this.width));
      m.segments[opcode & 7] = m.load((at.address ?? 0) + this.width, 2);
    } else if ((opcode & 0xf0) === 0x90) this.write(this.operands(), 1, holds(m, opcode) ? 1 : 0);
    else if (opcode === 0xaf) {
      const at = this.operands();
      m.set(at.number, this.width, this.product(m.get(at.number, this.width), this.read(at, this.width)));
    } else if (opcode === 0x01) return this.tables();
    else if (opcode === 0x20) m.set(this.operands().register, 4, m.control);
    else if (opcode === 0x22) return this.control(m.get(this.operands().register, 4));
    else if (opcode !== 0x06 && opcode !== 0x08 && opcode !== 0x09)
      return { kind: 'unsupported', opcode: 0x0f00 + opcode };
    return undefined;
  }
  private product(a: number, b: number): number {
    return multiply(this.m, a, b, this.width, true)[0];
  }
  /** LGDT and LIDT, which only say where tables lie; SMSW and LMSW, the low half of CR0. */
  private tables(): Pause | undefined {
    const at = this.operands();
    if (at.number === 4) this.write(at, 2, this.m.control & 0xffff);
    else if (at.number === 6) return this.control(this.read(at, 2));
    else if (at.number !== 2 && at.number !== 3) return { kind: 'unsupported', opcode: 0x0f01 };
    return undefined;
  }
  /** CR0; its lowest bit turns protected mode on (IA-32 SDM volume 3, §2.5). */
  private control(value: number): Pause | undefined {
    this.m.control = value;
    return value & 1 ? { kind: 'protected mode' } : undefined;
  }

  /** IN and OUT. What is written to a port changes nothing that boot code reads back. */
  private port(opcode: number): Pause | undefined {
    const width: Width = opcode & 1 ? this.width : 1;
    const port = opcode & 8 ? this.m.get(DX, 2) : this.fetch(1);
    if (opcode & 2) return undefined;
    const { value, certain } = readPort(port);
    this.m.set(AX, width, value);
    return certain ? undefined : { kind: 'asked the hardware' };
  }

  private moves(opcode: number): boolean {
    const { m } = this;
    const width: Width = opcode & 1 ? this.width : 1;
    if (opcode >= 0x88 && opcode <= 0x8b) {
      const at = this.operands();
      if (opcode < 0x8a) this.write(at, width, m.get(at.number, width));
      else m.set(at.number, width, this.read(at, width));
    } else if (opcode === 0x8c || opcode === 0x8e) {
      const at = this.operands();
      if (opcode === 0x8c) this.write(at, 2, m.segments[at.number] ?? 0);
      else m.segments[at.number] = this.read(at, 2);
    } else if (opcode === 0x8d) {
      const at = this.operands();
      m.set(at.number, this.width, at.offset);
    } else if (opcode === 0xc4 || opcode === 0xc5) {
      const at = this.operands();
      m.set(at.number, 2, this.read(at, 2));
      m.segments[opcode === 0xc4 ? ES : DS] = m.load((at.address ?? 0) + 2, 2);
    } else if (opcode >= 0xa0 && opcode <= 0xa3) {
      const offset = this.fetch(this.wide ? 4 : 2);
      this.beyond ||= offset > SEGMENT_END;
      const address = m.linear(this.segment ?? DS, offset);
      if (opcode < 0xa2) m.set(AX, width, m.load(address, width));
      else m.store(address, width, m.get(AX, width));
    } else if (opcode >= 0xb0 && opcode <= 0xbf) {
      const w: Width = opcode < 0xb8 ? 1 : this.width;
      m.set(opcode & 7, w, this.fetch(w));
    } else if (opcode === 0xc6 || opcode === 0xc7) {
      const at = this.operands();
      this.write(at, width, this.fetch(width));
    } else return false;
    return true;
  }

  private stack(opcode: number): boolean {
    const { m } = this;
    const seg = (opcode >> 3) & 3;
    if (opcode < 0x20 && (opcode & 7) === 6) m.push(m.segments[seg] ?? 0, 2);
    else if (opcode < 0x20 && (opcode & 7) === 7) m.segments[seg] = m.pop(2);
    else if (opcode >= 0x50 && opcode <= 0x57) m.push(m.get(opcode & 7, this.width), this.width);
    else if (opcode >= 0x58 && opcode <= 0x5f) m.set(opcode & 7, this.width, m.pop(this.width));
    else if (opcode === 0x60) {
      const sp = m.get(SP, this.width);
      for (let r = 0; r < 8; r += 1) m.push(r === SP ? sp : m.get(r, this.width), this.width);
    } else if (opcode === 0x61)
      for (let r = 7; r >= 0; r -= 1) {
        const value = m.pop(this.width);
        if (r !== SP) m.set(r, this.width, value);
      }
    else if (opcode === 0x68) m.push(this.fetch(this.width), this.width);
    else if (opcode === 0x6a) m.push(mask(signed(this.fetch(1), 1), this.width), this.width);
    else if (opcode === 0xc9) {
      m.set(SP, 2, m.get(BP, 2));
      m.set(BP, this.width, m.pop(this.width));
    } else if (opcode === 0x8f) {
      const value = m.pop(this.width);
      this.write(this.operands(), this.width, value);
    } else if (opcode === 0x9c) m.push(m.flagsWord(), this.width);
    else if (opcode === 0x9d) m.setFlagsWord(m.pop(this.width));
    else return false;
    return true;
  }

  private jumps(opcode: number): boolean {
    const { m } = this;
    const { width } = this;
    const far = (): void => {
      const ip = this.fetch(width);
      m.segments[CS] = this.fetch(2);
      m.ip = ip & 0xffff;
    };
    if (opcode >= 0x70 && opcode <= 0x7f) {
      const by = signed(this.fetch(1), 1);
      if (holds(m, opcode)) m.ip = (m.ip + by) & 0xffff;
    } else if (opcode >= 0xe0 && opcode <= 0xe3) {
      const by = signed(this.fetch(1), 1);
      const size: Width = this.wide ? 4 : 2;
      if (opcode < 0xe3) m.set(CX, size, m.get(CX, size) - 1);
      const left = m.get(CX, size) !== 0;
      const goes = opcode === 0xe3 ? !left : left && (opcode === 0xe2 || m.zero === (opcode === 0xe1));
      if (goes) m.ip = (m.ip + by) & 0xffff;
    } else if (opcode === 0xe8) {
      const by = signed(this.fetch(width), width);
      m.push(m.ip, width);
      m.ip = (m.ip + by) & 0xffff;
    } else if (opcode === 0xe9) this.relative(width);
    else if (opcode === 0xeb) this.relative(1);
    else if (opcode === 0xea) far();
    else if (opcode === 0x9a) {
      const back = (m.ip + width + 2) & 0xffff;
      m.push(m.segments[CS] ?? 0, width);
      m.push(back, width);
      far();
    } else if (opcode === 0xc2 || opcode === 0xc3 || opcode === 0xca || opcode === 0xcb || opcode === 0xcf) {
      const more = opcode === 0xc2 || opcode === 0xca ? this.fetch(2) : 0;
      m.ip = m.pop(width) & 0xffff;
      if (opcode >= 0xca) m.segments[CS] = m.pop(width) & 0xffff;
      if (opcode === 0xcf) m.setFlagsWord(m.pop(width));
      m.set(SP, 2, m.get(SP, 2) + more);
    } else return false;
    return true;
  }

  private flags(opcode: number): boolean {
    const { m } = this;
    if (opcode === 0xf5) m.carry = !m.carry;
    else if (opcode === 0xf8 || opcode === 0xf9) m.carry = opcode === 0xf9;
    else if (opcode === 0xfa || opcode === 0xfb) m.interrupts = opcode === 0xfb;
    else if (opcode === 0xfc || opcode === 0xfd) m.backwards = opcode === 0xfd;
    else if (opcode === 0x98) {
      const half: Width = this.width === 4 ? 2 : 1;
      m.set(AX, this.width, mask(signed(m.get(AX, half), half), this.width));
    } else if (opcode === 0x99)
      m.set(DX, this.width, signed(m.get(AX, this.width), this.width) < 0 ? 0xffffffff : 0);
    else if (opcode === 0x9e) m.setFlagsWord((m.flagsWord() & 0xff00) | m.get(4, 1));
    else if (opcode === 0x9f) m.set(4, 1, m.flagsWord() & 0xff);
    else if (opcode === 0xd7)
      m.set(AX, 1, m.load(m.linear(this.segment ?? DS, m.get(BX, 2) + m.get(AX, 1)), 1));
    else if (opcode !== 0x90) return false;
    return true;
  }

  private sums(opcode: number): Pause | undefined | false {
    const { m } = this;
    const width: Width = opcode & 1 ? this.width : 1;
    if (opcode < 0x40 && (opcode & 7) < 6) {
      const operation = opcode >> 3;
      if ((opcode & 7) >= 4)
        m.set(AX, width, operate(m, operation, m.get(AX, width), this.fetch(width), width));
      else {
        const at = this.operands();
        const [a, b] = [this.read(at, width), m.get(at.number, width)];
        if (opcode & 2) m.set(at.number, width, operate(m, operation, b, a, width));
        else this.write(at, width, operate(m, operation, a, b, width));
      }
    } else if (opcode >= 0x40 && opcode <= 0x4f) {
      const by = opcode < 0x48 ? 1 : -1;
      m.set(opcode & 7, this.width, step(m, m.get(opcode & 7, this.width), by, this.width));
    } else if (opcode === 0x80 || opcode === 0x81 || opcode === 0x83) {
      const at = this.operands();
      const value = opcode === 0x83 ? mask(signed(this.fetch(1), 1), width) : this.fetch(width);
      this.write(at, width, operate(m, at.number, this.read(at, width), value, width));
    } else if (opcode === 0x69 || opcode === 0x6b) {
      const at = this.operands();
      const by = opcode === 0x6b ? mask(signed(this.fetch(1), 1), this.width) : this.fetch(this.width);
      m.set(at.number, this.width, this.product(this.read(at, this.width), by));
    } else if (opcode === 0x84 || opcode === 0x85) {
      const at = this.operands();
      judgedTest(m, this.read(at, width) & m.get(at.number, width), width);
    } else if (opcode === 0xa8 || opcode === 0xa9) judgedTest(m, m.get(AX, width) & this.fetch(width), width);
    else if (opcode === 0x86 || opcode === 0x87) {
      const at = this.operands();
      const value = this.read(at, width);
      this.write(at, width, m.get(at.number, width));
      m.set(at.number, width, value);
    } else if (opcode >= 0x91 && opcode <= 0x97) {
      const value = m.get(AX, this.width);
      m.set(AX, this.width, m.get(opcode & 7, this.width));
      m.set(opcode & 7, this.width, value);
    } else if ([0xc0, 0xc1, 0xd0, 0xd1, 0xd2, 0xd3].includes(opcode)) {
      const at = this.operands();
      const count = opcode < 0xd0 ? this.fetch(1) : opcode < 0xd2 ? 1 : m.get(CX, 1);
      this.write(at, width, shift(m, at.number, this.read(at, width), count, width));
    } else if (opcode === 0xf6 || opcode === 0xf7) return this.unary(width);
    else if (opcode >= 0xfe) return this.group5(opcode);
    else return false;
    return undefined;
  }

  run(): Pause | undefined {
    const pause = this.one();
    return this.beyond ? { kind: 'fault' } : pause;
  }

  private one(): Pause | undefined {
    const { m } = this;
    for (;;) {
      const at = m.ip;
      const opcode = this.fetch(1);
      if (opcode === 0x66) this.width = 4;
      else if (opcode === 0x67) this.wide = true;
      else if (opcode === 0x26 || opcode === 0x2e || opcode === 0x36 || opcode === 0x3e)
        this.segment = (opcode >> 3) & 3;
      else if (opcode === 0x64 || opcode === 0x65) this.segment = opcode - 0x60;
      else if (opcode === 0xf2 || opcode === 0xf3) this.repeat = opcode === 0xf3 ? 'equal' : 'unequal';
      else if (opcode === 0xf4) return { kind: 'halt' };
      else if (opcode === 0xcd) return { kind: 'interrupt', vector: this.fetch(1) };
      else if (opcode === 0xeb && m.load(m.linear(CS, m.ip), 1) === 0xfe) return { kind: 'stands' };
      else if (opcode === 0x0f) return this.twoBytes();
      else if ((opcode & 0xf4) === 0xe4) return this.port(opcode);
      else if (opcode >= 0xa4 && opcode <= 0xaf && opcode !== 0xa8 && opcode !== 0xa9)
        return this.strings(opcode);
      else if (this.stack(opcode) || this.jumps(opcode) || this.moves(opcode) || this.flags(opcode))
        return undefined;
      else {
        const done = this.sums(opcode);
        if (done !== false) return done;
        m.ip = at;
        return { kind: 'unsupported', opcode };
      }
    }
  }
}

function judgedTest(m: RealModeMachine, value: number, width: Width): void {
  m.carry = false;
  m.overflow = false;
  judged(m, value, width);
}

/** Runs one instruction; a pause where the machine needs somebody else, or cannot go on. */
export const runInstruction = (m: RealModeMachine): Pause | undefined => new Instruction(m).run();
