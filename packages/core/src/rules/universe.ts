import type { Spans } from '../units/spans';
import { ELSEWHERE, isUnknown, SELF, type Step } from './flatten';
import { Forest, type Cuts, type ListLine, type Node } from './forest';
import { fields, type Field } from './ruleset';
import { ADDRESS_END } from '../units/addressLine';

/** The highest number of every field of a packet. */
export const FIELD_END: Record<Field, bigint> = {
  daddr: ADDRESS_END,
  proto: 255n,
  dport: 65_535n,
  saddr: ADDRESS_END,
  sport: 65_535n,
  day: 6n,
  second: 86_399n,
};

/** A set of packets: where they come in, and ranges of fields. What is left out is anything. */
export interface PacketBox {
  iif?: readonly string[] | undefined;
  spans: Partial<Record<Field, Spans>>;
}

/**
 * Header space cut into classes: of every field only those places are told apart at which some rule or question begins or
 * ends, so that nothing is lost by counting classes in place of packets.
 */
export class Universe {
  readonly interfaces: readonly string[];
  readonly flags: readonly string[];
  /** Where each class of a field begins. */
  private readonly starts: Record<Field, readonly bigint[]>;
  readonly forest: Forest;

  constructor(ports: readonly string[], steps: Iterable<Step>, boxes: Iterable<PacketBox>) {
    this.interfaces = [...ports, SELF, ELSEWHERE];
    const flags = new Set<string>();
    const edges: Record<string, Set<bigint>> = Object.fromEntries(fields.map((f) => [f, new Set([0n])]));
    const see = (spans: Partial<Record<Field, Spans>>): void => {
      for (const [field, ranges] of Object.entries(spans) as [Field, Spans][])
        for (const [a, b] of ranges) {
          edges[field]?.add(a);
          if (b < FIELD_END[field]) edges[field]?.add(b + 1n);
        }
    };
    for (const s of steps) {
      see(s.spans);
      s.flags.forEach((f) => flags.add(f.replace(/^!/, '')));
    }
    for (const b of boxes) see(b.spans);
    this.flags = [...flags];
    // An answer has source and destination changed about: both are cut at the same places.
    for (const [a, b] of [
      ['saddr', 'daddr'],
      ['sport', 'dport'],
    ] as const) {
      edges[b]?.forEach((n) => edges[a]?.add(n));
      edges[a]?.forEach((n) => edges[b]?.add(n));
    }
    const sorted = (f: Field): bigint[] => [...(edges[f] ?? [])].sort((a, b) => (a < b ? -1 : a > b ? 1 : 0));
    this.starts = Object.fromEntries(fields.map((f) => [f, sorted(f)])) as Record<Field, bigint[]>;
    this.forest = new Forest([
      this.interfaces.length,
      ...fields.map((f) => this.starts[f].length),
      ...this.flags.map(() => 2),
    ]);
  }

  /** The class of a field that holds a number. */
  classOf(field: Field, n: bigint): number {
    const starts = this.starts[field];
    let low = 0;
    let high = starts.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if ((starts[middle] ?? 0n) <= n) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  private cutsOf(field: Field, spans: Spans): Cuts {
    return spans.map(([a, b]) => [this.classOf(field, a), this.classOf(field, b)] as const);
  }

  /** Ranges of classes for every dimension of the forest. */
  private cuts(box: PacketBox, flags: readonly string[] = []): (Cuts | undefined)[] {
    const { iif } = box;
    return [
      iif && this.interfaces.flatMap((n, i): [number, number][] => (iif.includes(n) ? [[i, i]] : [])),
      ...fields.map((f) => {
        const spans = box.spans[f];
        return spans && this.cutsOf(f, spans);
      }),
      ...this.flags.map((f): Cuts | undefined =>
        flags.includes(f) ? [[1, 1]] : flags.includes(`!${f}`) ? [[0, 0]] : undefined,
      ),
    ];
  }

  /** A list of steps as a diagram; `value` numbers its acts. */
  decide(
    steps: readonly Step[],
    value: (act: Extract<Step['act'], { kind: 'end' | 'dnat' }>) => number,
    hit?: Uint8Array,
  ): Node {
    const lines = steps.map((s): ListLine => {
      const { act } = s;
      return {
        cuts: this.cuts(s, s.flags),
        act:
          act.kind === 'skip'
            ? { kind: 'skip', to: act.to.ix }
            : act.kind === 'mark'
              ? { kind: 'go on' }
              : { kind: 'end', value: value(act) },
      };
    });
    return this.forest.fromList(lines, 0, hit);
  }

  /** Packets that are in any of the boxes. */
  setOf(boxes: readonly PacketBox[]): Node {
    return this.forest.fromList(
      boxes.map((b) => ({ cuts: this.cuts(b), act: { kind: 'end', value: 1 } })),
      0,
    );
  }

  /** Whether ranges leave nothing of a field out. */
  isWhole(field: Field, ranges: readonly (readonly [bigint, bigint])[]): boolean {
    const [first] = ranges;
    return ranges.length === 1 && first?.[0] === 0n && first[1] === FIELD_END[field];
  }

  /** Dimensions of conditions that nobody understands, and of rates. */
  flagDims(which: 'unknown' | 'rate'): Set<number> {
    return new Set(
      this.flags.flatMap((f, i) => (isUnknown(f) === (which === 'unknown') ? [1 + fields.length + i] : [])),
    );
  }

  /** Packets below every rate. */
  belowRates(): Node {
    return this.forest.fromList(
      [
        {
          cuts: [
            undefined,
            ...fields.map(() => undefined),
            ...this.flags.map((f): Cuts | undefined => (isUnknown(f) ? undefined : [[1, 1]])),
          ],
          act: { kind: 'end', value: 1 },
        },
      ],
      0,
    );
  }

  /** A box of classes as ranges of numbers. */
  ranges(box: readonly ([number, number] | undefined)[]): {
    iif: readonly string[];
    spans: Record<Field, readonly [bigint, bigint]>;
    flags: { on: string[]; off: string[] };
  } {
    const whole = (f: Field): [bigint, bigint] => [0n, FIELD_END[f]];
    const at = (f: Field, i: number): readonly [bigint, bigint] => {
      const r = box[1 + i];
      if (!r) return whole(f);
      const next = this.starts[f][r[1] + 1];
      return [this.starts[f][r[0]] ?? 0n, next === undefined ? FIELD_END[f] : next - 1n];
    };
    const first = box[0] ?? [0, this.interfaces.length - 1];
    const state = (i: number): [number, number] | undefined => box[1 + fields.length + i];
    return {
      iif: this.interfaces.slice(first[0], first[1] + 1),
      spans: Object.fromEntries(fields.map((f, i) => [f, at(f, i)])) as Record<
        Field,
        readonly [bigint, bigint]
      >,
      flags: {
        on: this.flags.filter((_, i) => state(i)?.[0] === 1),
        off: this.flags.filter((_, i) => state(i)?.[1] === 0),
      },
    };
  }
}
