import type { World } from './varies';

/** In place of a question: a place of an order that is found out. */
export const ORDER = -1;

/**
 * Answers what a run asks about the world it is in, and remembers the questions: a run is told again and again, each time
 * with the next answer to its last question, until every world that it can tell apart has been run. Questions that a run
 * does not ask are not walked; their ways are counted.
 */
export class Asker {
  private readonly answers: Int16Array;
  private readonly path: number[];
  private readonly options: number[];
  /** Which question stands at each place of the path; −1 where an order is found out. */
  private readonly asked: number[] = [];
  private depth = 0;
  /** How many worlds the run stands for. */
  weight: number;

  /** `path`: the answers of an earlier run, which are given once more. */
  constructor(
    private readonly world: World,
    path: readonly number[] = [],
  ) {
    this.path = [...path];
    this.options = path.map(() => 1);
    this.answers = new Int16Array(world.ways.length).fill(-1);
    this.weight = world.count;
  }

  private choose(options: number, question: number): number {
    this.asked[this.depth] = question;
    if (this.depth < this.path.length) {
      this.options[this.depth] = options;
      // The trail of another run can have an answer that there is none of here: the usual one is given.
      if ((this.path[this.depth] ?? 0) >= options) this.path[this.depth] = 0;
    } else {
      this.path.push(0);
      this.options.push(options);
    }
    return this.path[this.depth++] ?? 0;
  }

  /** The answer to a question, by its place among the unknowns; the same one whenever a run asks again. */
  answer(question: number): number {
    const before = this.answers[question] ?? -1;
    if (before >= 0) return before;
    const ways = this.world.ways[question] ?? 1;
    const now = ways === 1 ? 0 : this.choose(ways, question);
    this.answers[question] = now;
    this.weight /= ways;
    return now;
  }

  /** One of so many that are left, all alike. */
  pick(left: number): number {
    this.weight /= left;
    return left > 1 ? this.choose(left, ORDER) : 0;
  }

  /** The answers of this run, in the order of its questions: enough to run it once more. */
  trail(): number[] {
    return this.path.slice(0, this.depth);
  }

  /** The questions of this run in their order: which it was, in how many ways it can be answered, and how it was. */
  questionsAsked(): { question: number; ways: number; way: number }[] {
    return this.trail().map((way, i) => ({
      question: this.asked[i] ?? ORDER,
      ways: this.options[i] ?? 1,
      way,
    }));
  }

  /** How many questions this run has asked. */
  get questions(): number {
    return this.depth;
  }

  /** How many answers are not the usual ones, which stand first. */
  departures(): number {
    let n = 0;
    for (let i = 0; i < this.depth; i += 1) if (this.path[i] !== 0) n += 1;
    return n;
  }

  /** Makes ready for the next world that differs; false where there is none. */
  next(): boolean {
    const { path, options } = this;
    // What lies behind the last question of the run before belongs to another run.
    path.length = options.length = this.depth;
    for (let i = path.length - 1; i >= 0; i -= 1) {
      const n = (path[i] ?? 0) + 1;
      if (n < (options[i] ?? 1)) {
        path[i] = n;
        path.length = options.length = i + 1;
        this.begin();
        return true;
      }
    }
    return false;
  }

  private begin(): void {
    this.depth = 0;
    this.weight = this.world.count;
    this.answers.fill(-1);
  }
}

/** An order of drives, any of all there are, that is found out no further than it is looked at. */
export class Order {
  private readonly found: number[] = [];
  private readonly left: number[];

  constructor(
    private readonly asker: Asker,
    drives: readonly number[],
  ) {
    this.left = [...drives];
  }

  /** The drive at a place of the order, by its place in the plan; undefined beyond its end. */
  at(place: number): number | undefined {
    while (this.found.length <= place && this.left.length > 0)
      this.found.push(...this.left.splice(this.asker.pick(this.left.length), 1));
    return this.found[place];
  }

  /** The first drive of the order for which this holds. */
  first(holds: (drive: number) => boolean): number | undefined {
    for (let i = 0; ; i += 1) {
      const drive = this.at(i);
      if (drive === undefined || holds(drive)) return drive;
    }
  }
}

/** Precautions of which some are taken; it notes which of them a run looked at. */
export class Taken {
  private readonly on: Uint8Array;
  private readonly seen: Uint8Array;
  private readonly places: ReadonlyMap<string, number>;

  constructor(readonly ids: readonly string[]) {
    this.places = new Map(ids.map((id, i) => [id, i]));
    this.on = new Uint8Array(ids.length);
    this.seen = new Uint8Array(ids.length);
  }

  set(taken: Iterable<number>): void {
    this.on.fill(0);
    for (const i of taken) this.on[i] = 1;
  }

  /** The place of a precaution; −1 where it is not offered. */
  placeOf(id: string): number {
    return this.places.get(id) ?? -1;
  }

  has(place: number): boolean {
    if (place < 0) return false;
    this.seen[place] = 1;
    return this.on[place] === 1;
  }

  /** Forgets what was looked at. */
  begin(): void {
    this.seen.fill(0);
  }

  /** Places of the precautions that were looked at since. */
  lookedAt(): number[] {
    const out: number[] = [];
    this.seen.forEach((s, i) => s === 1 && out.push(i));
    return out;
  }
}
