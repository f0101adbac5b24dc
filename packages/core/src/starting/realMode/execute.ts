import { divide, judged, multiply, operate, shift, step } from './arithmetic';
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
  | { kind: 'fault' };

interface Place {
  register: number;
  /** Linear address; undefined where the operand is a register. */
  address: number | undefined;
  offset: number;
}

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
    return at.address === undefined ? this.m.get(at.register, width) : this.m.load(at.address, width);
  }
  private write(at: Place, width: Width, value: number): void {
    if (at.address === undefined) this.m.set(at.register, width, value);
    else this.m.store(at.address, width, value);
  }

  private strings(opcode: number): Pause | undefined {
    const { m } = this;
    const width: Width = opcode & 1 ? this.width : 1;
    const by = m.backwards ? -width : width;
    const from = (): number => m.linear(this.segment ?? DS, m.get(SI, 2));
    const to = (): number => m.linear(ES, m.get(DI, 2));
    const on = (register: number): void => m.set(register, 2, m.get(register, 2) + by);
    const compares = (opcode & 0xf6) === 0xa6;
    for (;;) {
      if (this.repeat) {
        if (m.get(CX, 2) === 0) return undefined;
        m.set(CX, 2, m.get(CX, 2) - 1);
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
    const far = at.address === undefined ? 0 : m.load(at.address + 2, 2);
    if (at.number < 2) this.write(at, width, step(m, value, at.number === 0 ? 1 : -1, width));
    else if (opcode === 0xfe) return { kind: 'unsupported', opcode };
    else if (at.number === 6) m.push(value, width);
    else {
      if (at.number === 3) m.push(m.segments[CS] ?? 0, 2);
      if (at.number === 2 || at.number === 3) m.push(m.ip, 2);
      if (at.number === 3 || at.number === 5) m.segments[CS] = far;
      m.ip = value & 0xffff;
    }
    return undefined;
  }

  private twoBytes(): Pause | undefined {
    const { m } = this;
    const opcode = this.fetch(1);
    if ((opcode & 0xf0) === 0x80) {
      const by = signed(this.fetch(2), 2);
      if (holds(m, opcode)) m.ip = (m.ip + by) & 0xffff;
    } else if (opcode === 0xb6 || opcode === 0xb7 || opcode === 0xbe || opcode === 0xbf) {
      const at = this.operands();
      const width: Width = opcode & 1 ? 2 : 1;
      const value = this.read(at, width);
      m.set(at.number, this.width, mask(opcode >= 0xbe ? signed(value, width) : value, this.width));
    } else if (opcode === 0xa0 || opcode === 0xa8) m.push(m.segments[opcode === 0xa0 ? 4 : 5] ?? 0, 2);
    else if (opcode === 0xa1 || opcode === 0xa9) m.segments[opcode === 0xa1 ? 4 : 5] = m.pop(2);
    else return { kind: 'unsupported', opcode: 0x0f00 + opcode };
    return undefined;
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
      const address = m.linear(this.segment ?? DS, this.fetch(2));
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
    else if (opcode === 0x8f) {
      const value = m.pop(this.width);
      this.write(this.operands(), this.width, value);
    } else if (opcode === 0x9c) m.push(m.flagsWord(), this.width);
    else if (opcode === 0x9d) m.setFlagsWord(m.pop(this.width));
    else return false;
    return true;
  }

  private jumps(opcode: number): boolean {
    const { m } = this;
    const far = (): void => {
      const ip = this.fetch(2);
      m.segments[CS] = this.fetch(2);
      m.ip = ip;
    };
    if (opcode >= 0x70 && opcode <= 0x7f) {
      const by = signed(this.fetch(1), 1);
      if (holds(m, opcode)) m.ip = (m.ip + by) & 0xffff;
    } else if (opcode >= 0xe0 && opcode <= 0xe3) {
      const by = signed(this.fetch(1), 1);
      if (opcode < 0xe3) m.set(CX, 2, m.get(CX, 2) - 1);
      const left = m.get(CX, 2) !== 0;
      const goes = opcode === 0xe3 ? !left : left && (opcode === 0xe2 || m.zero === (opcode === 0xe1));
      if (goes) m.ip = (m.ip + by) & 0xffff;
    } else if (opcode === 0xe8) {
      const by = signed(this.fetch(2), 2);
      m.push(m.ip, 2);
      m.ip = (m.ip + by) & 0xffff;
    } else if (opcode === 0xe9) this.relative(2);
    else if (opcode === 0xeb) this.relative(1);
    else if (opcode === 0xea) far();
    else if (opcode === 0x9a) {
      const back = (m.ip + 4) & 0xffff;
      m.push(m.segments[CS] ?? 0, 2);
      m.push(back, 2);
      far();
    } else if (opcode === 0xc2 || opcode === 0xc3 || opcode === 0xca || opcode === 0xcb || opcode === 0xcf) {
      const more = opcode === 0xc2 || opcode === 0xca ? this.fetch(2) : 0;
      m.ip = m.pop(2);
      if (opcode >= 0xca) m.segments[CS] = m.pop(2);
      if (opcode === 0xcf) m.setFlagsWord(m.pop(2));
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
    else if (opcode === 0x98) m.set(AX, 2, mask(signed(m.get(AX, 1), 1), 2));
    else if (opcode === 0x99) m.set(DX, 2, m.get(AX, 2) & 0x8000 ? 0xffff : 0);
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
    const { m } = this;
    for (;;) {
      const at = m.ip;
      const opcode = this.fetch(1);
      if (opcode === 0x66) this.width = 4;
      else if (opcode === 0x26 || opcode === 0x2e || opcode === 0x36 || opcode === 0x3e)
        this.segment = (opcode >> 3) & 3;
      else if (opcode === 0x64 || opcode === 0x65) this.segment = opcode - 0x60;
      else if (opcode === 0xf2 || opcode === 0xf3) this.repeat = opcode === 0xf3 ? 'equal' : 'unequal';
      else if (opcode === 0xf4) return { kind: 'halt' };
      else if (opcode === 0xcd) return { kind: 'interrupt', vector: this.fetch(1) };
      else if (opcode === 0xeb && m.load(m.linear(CS, m.ip), 1) === 0xfe) return { kind: 'stands' };
      else if (opcode === 0x0f) return this.twoBytes();
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
