/** A small generator of even numbers, so that a run can be repeated by its seed (mulberry32, public domain). */
export class Random {
  constructor(private state: number) {}

  /** From 0 up to 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }
  /** A whole number from `from` to `to`, both included. */
  int(from: number, to: number): number {
    return from + Math.floor(this.next() * (to - from + 1));
  }
  chance(share: number): boolean {
    return this.next() < share;
  }
  pick<T>(list: readonly T[]): T {
    return list[this.int(0, list.length - 1)] as T;
  }
  some<T>(list: readonly T[], count: number): T[] {
    const rest = [...list];
    return Array.from({ length: Math.min(count, rest.length) }, () =>
      rest.splice(this.int(0, rest.length - 1), 1),
    ).flat();
  }
  bytes(length: number): Buffer {
    const out = Buffer.alloc(length);
    for (let i = 0; i + 4 <= length; i += 4) out.writeUInt32LE(this.int(0, 0xffffffff), i);
    return out;
  }
}
