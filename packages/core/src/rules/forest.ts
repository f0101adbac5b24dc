/**
 * Decision diagrams over several dimensions of small numbers (Gouda and Liu, “Structured firewall design”, Computer Networks
 * 51 (2007); Srinivasan et al., “Algorithms for discrete function manipulation”, ICCAD 1990): every node cuts one dimension
 * into ranges, nodes that say the same are one node. Two diagrams that decide alike are therefore the same number.
 */
export type Node = number;

/** A leaf. Leaves are below zero, nodes are not. */
export const leaf = (value: number): Node => -1 - value;
/** Whether it is a leaf. */
export const isLeaf = (n: Node): boolean => n < 0;
/** The value of a leaf. */
export const valueOf = (n: Node): number => -1 - n;

/** A list of ranges, both ends within, in rising order. */
export type Cuts = readonly (readonly [number, number])[];

/** What a walk through a list does at a line that is met. */
export type LineAct = { kind: 'end'; value: number } | { kind: 'skip'; to: number } | { kind: 'go on' };
/** A line of a list: ranges for the dimensions it looks at, and what it does. */
export interface ListLine {
  cuts: readonly (Cuts | undefined)[];
  act: LineAct;
}

/** Thrown where a diagram would grow beyond what is held in memory. */
export class TooManyClasses extends Error {}

const MOST_NODES = 4_000_000;
const PAIR = 2 ** 26;
const OFFSET = 2 ** 20;

/** Whether ranges hold a number. */
function holds(cuts: Cuts, n: number): boolean {
  let low = 0;
  let high = cuts.length - 1;
  while (low <= high) {
    const middle = (low + high) >> 1;
    const at = cuts[middle];
    if (!at) return false;
    if (n < at[0]) high = middle - 1;
    else if (n > at[1]) low = middle + 1;
    else return true;
  }
  return false;
}

/** All diagrams over the same dimensions; `sizes`: how many numbers each has. */
export class Forest {
  private readonly dims: number[] = [];
  /** Where each range of a node ends, the number behind its last. */
  private readonly ends: number[][] = [];
  private readonly kids: Node[][] = [];
  private readonly known = new Map<string, Node>();

  constructor(readonly sizes: readonly number[]) {}

  private node(dim: number, ends: number[], kids: Node[]): Node {
    let write = 0;
    for (let i = 0; i < kids.length; i += 1) {
      const kid = kids[i] ?? 0;
      if (write > 0 && kids[write - 1] === kid) ends[write - 1] = ends[i] ?? 0;
      else {
        kids[write] = kid;
        ends[write] = ends[i] ?? 0;
        write += 1;
      }
    }
    if (write === 1) return kids[0] ?? 0;
    ends.length = write;
    kids.length = write;
    const key = `${dim}|${ends.join()}|${kids.join()}`;
    const there = this.known.get(key);
    if (there !== undefined) return there;
    if (this.dims.length >= MOST_NODES) throw new TooManyClasses();
    const made = this.dims.length;
    this.dims.push(dim);
    this.ends.push(ends);
    this.kids.push(kids);
    this.known.set(key, made);
    return made;
  }

  private dimOf(n: Node): number {
    return isLeaf(n) ? this.sizes.length : (this.dims[n] ?? 0);
  }

  /** What a list decides, line by line from the top; `otherwise` where no line ends it. Lines that were met are marked in `hit`. */
  fromList(lines: readonly ListLine[], otherwise: number, hit?: Uint8Array): Node {
    const last = lines.map((l) => l.cuts.reduce((m, c, d) => (c ? d : m), -1));
    const known = new Map<string, Node>();
    const tidy = (list: number[], dim: number): number[] => {
      // Nothing behind a line that everything meets and that ends it can matter any more, unless an earlier one leads past it.
      let out: number[] | undefined;
      let until = -1;
      let past = -1;
      for (let i = 0; i < list.length; i += 1) {
        const s = list[i] ?? 0;
        if (s < until) {
          out ??= list.slice(0, i);
          continue;
        }
        out?.push(s);
        const { act } = lines[s] ?? {};
        if (!act) continue;
        const whole = (last[s] ?? 0) < dim;
        if (act.kind === 'skip') {
          if (whole && past <= s) until = act.to;
          else past = Math.max(past, act.to);
        } else if (act.kind === 'end' && whole && past <= s)
          return out ?? (i + 1 < list.length ? list.slice(0, i + 1) : list);
      }
      return out ?? list;
    };
    const rec = (given: number[], from: number): Node => {
      let list = given;
      for (;;) {
        const s = list[0];
        if (s === undefined) return leaf(otherwise);
        const line = lines[s];
        if (!line || (last[s] ?? 0) >= from) break;
        if (hit) hit[s] = 1;
        if (line.act.kind === 'end') return leaf(line.act.value);
        const to = line.act.kind === 'skip' ? line.act.to : s + 1;
        list = list.filter((i) => i > s && i >= to);
      }
      let dim = this.sizes.length;
      for (const s of list) {
        const { cuts } = lines[s] ?? { cuts: [] };
        for (let d = from; d < dim; d += 1)
          if (cuts[d]) {
            dim = d;
            break;
          }
        if (dim === from) break;
      }
      const key = `${dim}:${list.join()}`;
      const there = known.get(key);
      if (there !== undefined) return there;
      const size = this.sizes[dim] ?? 1;
      const edges = new Set<number>([0]);
      for (const s of list)
        for (const [a, b] of lines[s]?.cuts[dim] ?? []) {
          edges.add(a);
          if (b + 1 < size) edges.add(b + 1);
        }
      const starts = [...edges].sort((x, y) => x - y);
      const kids: Node[] = [];
      const ends: number[] = [];
      starts.forEach((start, i) => {
        const mine = list.filter((s) => {
          const cuts = lines[s]?.cuts[dim];
          return !cuts || holds(cuts, start);
        });
        kids.push(rec(tidy(mine, dim + 1), dim + 1));
        ends.push(starts[i + 1] ?? size);
      });
      const made = this.node(dim, ends, kids);
      known.set(key, made);
      return made;
    };
    return rec(tidy([...lines.keys()], 0), 0);
  }

  /** Two diagrams as one; `of` says what becomes of two leaves. */
  both(a: Node, b: Node, of: (a: number, b: number) => number): Node {
    const known = new Map<number, Node>();
    const rec = (x: Node, y: Node): Node => {
      if (isLeaf(x) && isLeaf(y)) return leaf(of(valueOf(x), valueOf(y)));
      const key = (x + OFFSET) * PAIR + (y + OFFSET);
      const there = known.get(key);
      if (there !== undefined) return there;
      const dim = Math.min(this.dimOf(x), this.dimOf(y));
      const made = this.merged(dim, x, y, rec);
      known.set(key, made);
      return made;
    };
    return rec(a, b);
  }

  private merged(dim: number, x: Node, y: Node, rec: (x: Node, y: Node) => Node): Node {
    const size = this.sizes[dim] ?? 1;
    const cutX = this.dimOf(x) === dim;
    const cutY = this.dimOf(y) === dim;
    const endsX = (cutX ? this.ends[x] : undefined) ?? [size];
    const endsY = (cutY ? this.ends[y] : undefined) ?? [size];
    const kidsX = (cutX ? this.kids[x] : undefined) ?? [x];
    const kidsY = (cutY ? this.kids[y] : undefined) ?? [y];
    const ends: number[] = [];
    const kids: Node[] = [];
    let i = 0;
    let j = 0;
    while (i < endsX.length && j < endsY.length) {
      const ex = endsX[i] ?? size;
      const ey = endsY[j] ?? size;
      kids.push(rec(kidsX[i] ?? 0, kidsY[j] ?? 0));
      ends.push(Math.min(ex, ey));
      if (ex <= ey) i += 1;
      if (ey <= ex) j += 1;
    }
    return this.node(dim, ends, kids);
  }

  /** The diagram with its leaves changed. */
  mapped(a: Node, of: (value: number) => number): Node {
    const known = new Map<Node, Node>();
    const rec = (n: Node): Node => {
      if (isLeaf(n)) return leaf(of(valueOf(n)));
      const there = known.get(n);
      if (there !== undefined) return there;
      const made = this.node(this.dimOf(n), [...(this.ends[n] ?? [])], (this.kids[n] ?? []).map(rec));
      known.set(n, made);
      return made;
    };
    return rec(a);
  }

  /** Diagrams of yes and no: whether the last dimensions, from `dim` on, hold for some choice of them, or for every one. */
  chosen(a: Node, dims: ReadonlySet<number>, how: 'some' | 'every'): Node {
    const known = new Map<Node, Node>();
    const join = how === 'some' ? (x: number, y: number) => x | y : (x: number, y: number) => x & y;
    const rec = (n: Node): Node => {
      if (isLeaf(n)) return n;
      const there = known.get(n);
      if (there !== undefined) return there;
      const kids = (this.kids[n] ?? []).map(rec);
      const dim = this.dimOf(n);
      const made = dims.has(dim)
        ? kids.reduce((x, y) => this.both(x, y, join))
        : this.node(dim, [...(this.ends[n] ?? [])], kids);
      known.set(n, made);
      return made;
    };
    return rec(a);
  }

  /** The diagram with some dimensions set to one number. */
  fixed(a: Node, dims: ReadonlySet<number>, value: number): Node {
    const known = new Map<Node, Node>();
    const rec = (n: Node): Node => {
      if (isLeaf(n)) return n;
      const there = known.get(n);
      if (there !== undefined) return there;
      const ends = this.ends[n] ?? [];
      const kids = this.kids[n] ?? [];
      const dim = this.dimOf(n);
      const made = dims.has(dim)
        ? rec(kids[ends.findIndex((e) => value < e)] ?? leaf(0))
        : this.node(dim, [...ends], kids.map(rec));
      known.set(n, made);
      return made;
    };
    return rec(a);
  }

  /** Whether a diagram of yes and no says yes anywhere. */
  any(a: Node): boolean {
    return a !== leaf(0);
  }

  /** How many boxes a diagram cuts the space into, those that `counts` says. */
  boxes(a: Node, counts: (value: number) => boolean): bigint {
    const known = new Map<Node, bigint>();
    const rec = (n: Node): bigint => {
      if (isLeaf(n)) return counts(valueOf(n)) ? 1n : 0n;
      const there = known.get(n);
      if (there !== undefined) return there;
      const sum = (this.kids[n] ?? []).reduce((s, k) => s + rec(k), 0n);
      known.set(n, sum);
      return sum;
    };
    return rec(a);
  }

  /** Boxes with leaves that `wanted` says, at most so many: for every dimension its range, or undefined where it is whole. */
  *each(
    a: Node,
    wanted: (value: number) => boolean,
  ): Generator<{ box: ([number, number] | undefined)[]; value: number }> {
    const barren = new Set<Node>();
    const holdsAny = (n: Node): boolean => {
      if (isLeaf(n)) return wanted(valueOf(n));
      if (barren.has(n)) return false;
      const found = (this.kids[n] ?? []).some(holdsAny);
      if (!found) barren.add(n);
      return found;
    };
    const box: ([number, number] | undefined)[] = this.sizes.map(() => undefined);
    const kidsOf = this.kids;
    const endsOf = this.ends;
    const dimOf = (n: Node): number => this.dimOf(n);
    function* rec(n: Node): Generator<{ box: ([number, number] | undefined)[]; value: number }> {
      if (!holdsAny(n)) return;
      if (isLeaf(n)) {
        yield { box: [...box], value: valueOf(n) };
        return;
      }
      const dim = dimOf(n);
      const ends = endsOf[n] ?? [];
      const kids = kidsOf[n] ?? [];
      for (let i = 0; i < kids.length; i += 1) {
        box[dim] = [i === 0 ? 0 : (ends[i - 1] ?? 0), (ends[i] ?? 0) - 1];
        yield* rec(kids[i] ?? 0);
      }
      box[dim] = undefined;
    }
    yield* rec(a);
  }

  /** The leaf a point comes to. */
  at(a: Node, point: readonly number[]): number {
    let n = a;
    while (!isLeaf(n)) {
      const v = point[this.dimOf(n)] ?? 0;
      const i = (this.ends[n] ?? []).findIndex((e) => v < e);
      n = this.kids[n]?.[i] ?? leaf(0);
    }
    return valueOf(n);
  }
}
