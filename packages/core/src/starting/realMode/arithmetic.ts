import { mask, signBit, signed, type RealModeMachine, type Width } from './machine';

/** Sets zero, sign and parity by a result (IA-32 SDM volume 1, §3.4.3.1), and answers it cut to its width. */
export function judged(m: RealModeMachine, value: number, width: Width): number {
  const result = mask(value, width);
  m.zero = result === 0;
  m.sign = signBit(result, width);
  let bits = result & 0xff;
  bits ^= bits >> 4;
  bits ^= bits >> 2;
  m.parity = ((bits ^ (bits >> 1)) & 1) === 0;
  return result;
}

const add = (m: RealModeMachine, a: number, b: number, carry: number, width: Width): number => {
  const sum = a + b + carry;
  const result = judged(m, sum, width);
  m.carry = sum >= 2 ** (8 * width);
  m.overflow = signBit(a, width) === signBit(b, width) && signBit(result, width) !== signBit(a, width);
  return result;
};
const subtract = (m: RealModeMachine, a: number, b: number, borrow: number, width: Width): number => {
  const result = judged(m, a - b - borrow, width);
  m.carry = a < b + borrow;
  m.overflow = signBit(a, width) !== signBit(b, width) && signBit(result, width) !== signBit(a, width);
  return result;
};
const logic = (m: RealModeMachine, value: number, width: Width): number => {
  m.carry = false;
  m.overflow = false;
  return judged(m, value, width);
};

/** The eight operations that share an encoding: ADD OR ADC SBB AND SUB XOR CMP. CMP answers `a` unchanged. */
export function operate(m: RealModeMachine, operation: number, a: number, b: number, width: Width): number {
  switch (operation) {
    case 0:
      return add(m, a, b, 0, width);
    case 1:
      return logic(m, a | b, width);
    case 2:
      return add(m, a, b, m.carry ? 1 : 0, width);
    case 3:
      return subtract(m, a, b, m.carry ? 1 : 0, width);
    case 4:
      return logic(m, a & b, width);
    case 5:
      return subtract(m, a, b, 0, width);
    case 6:
      return logic(m, a ^ b, width);
    default:
      subtract(m, a, b, 0, width);
      return a;
  }
}

/** INC and DEC, which leave the carry as it is. */
export function step(m: RealModeMachine, value: number, by: 1 | -1, width: Width): number {
  const { carry } = m;
  const result = by === 1 ? add(m, value, 1, 0, width) : subtract(m, value, 1, 0, width);
  m.carry = carry;
  return result;
}

/** ROL ROR RCL RCR SHL SHR SAL SAR, one bit at a time. */
export function shift(
  m: RealModeMachine,
  operation: number,
  value: number,
  count: number,
  width: Width,
): number {
  let v = value;
  const top = 8 * width - 1;
  for (let i = 0; i < (count & 31); i += 1) {
    const high = (v >>> top) & 1;
    const low = v & 1;
    const was = m.carry ? 1 : 0;
    const left = operation === 0 || operation === 2 || operation === 4 || operation === 6;
    m.carry = (left ? high : low) === 1;
    const entering = [high, low, was, was, 0, 0, 0, high][operation] ?? 0;
    v = left ? mask((v << 1) | entering, width) : mask((v >>> 1) | (entering << top), width);
  }
  if (operation < 4 || (count & 31) === 0) return v;
  // Overflow is defined for one bit: did the sign change, or for SHR what it was (SDM volume 2, "SAL/SAR/SHL/SHR").
  m.overflow =
    operation === 5 ? signBit(value, width) : operation === 7 ? false : signBit(v, width) !== m.carry;
  return judged(m, v, width);
}

/** MUL and IMUL of the accumulator. Answers low and high half; carry and overflow say that the high half counts. */
export function multiply(
  m: RealModeMachine,
  a: number,
  b: number,
  width: Width,
  withSign: boolean,
): [number, number] {
  const product = withSign ? BigInt(signed(a, width)) * BigInt(signed(b, width)) : BigInt(a) * BigInt(b);
  const all = BigInt.asUintN(16 * width, product);
  const low = Number(BigInt.asUintN(8 * width, all));
  const high = Number(all >> BigInt(8 * width));
  m.carry = withSign ? BigInt(signed(low, width)) !== product : high !== 0;
  m.overflow = m.carry;
  return [low, high];
}

/** DIV and IDIV of a double-width number. Undefined where the processor would raise a fault: zero, or too large a quotient. */
export function divide(
  high: number,
  low: number,
  by: number,
  width: Width,
  withSign: boolean,
): { quotient: number; remainder: number } | undefined {
  const bits = 8 * width;
  const raw = (BigInt(high) << BigInt(bits)) | BigInt(low);
  const a = withSign ? BigInt.asIntN(2 * bits, raw) : raw;
  const b = withSign ? BigInt(signed(by, width)) : BigInt(by);
  if (b === 0n) return undefined;
  const quotient = a / b;
  const fits = withSign
    ? BigInt.asIntN(bits, quotient) === quotient
    : BigInt.asUintN(bits, quotient) === quotient;
  if (!fits) return undefined;
  return {
    quotient: Number(BigInt.asUintN(bits, quotient)),
    remainder: Number(BigInt.asUintN(bits, a % b)),
  };
}
