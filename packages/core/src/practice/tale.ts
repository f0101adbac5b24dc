import { said, type Said, type Values } from './said';

/** How something that happened counts: as it should be, a slip, a fault, or a loss. */
export type HappenedGrade = 'plain' | 'good' | 'slip' | 'fault' | 'loss';

/** What a slip, a fault and a loss cost of 100 (common practice, no source). */
export const COSTS: Readonly<Record<HappenedGrade, number>> = {
  plain: 0,
  good: 0,
  slip: 5,
  fault: 20,
  loss: 60,
};
/** What a hint costs. */
export const HINT_COST = 4;

/** What would have been lost, had it been a real machine: a name, and bytes where they are what is lost. */
export interface Loss {
  what: Said;
  bytes: number | null;
}

/** One frame of the reel. */
export interface Happened extends Said {
  grade: HappenedGrade;
  /** Minutes of the made-up evening that had gone by. */
  minute: number;
  lost: Loss | null;
}

/** Takes down what happens in an exercise. */
export class Tale {
  readonly happened: Happened[] = [];
  minute = 0;
  end: 'done' | 'lost' | null = null;
  /** Minutes of the made-up evening that an act takes. */
  takes(minutes: number): void {
    this.minute += minutes;
  }
  tell(code: string, values: Values = {}, grade: HappenedGrade = 'plain', lost: Loss | null = null): void {
    this.happened.push({ ...said(code, values), grade, minute: this.minute, lost });
  }
  slip(code: string, values: Values = {}): void {
    this.tell(code, values, 'slip');
  }
  fault(code: string, values: Values = {}, lost: Loss | null = null): void {
    this.tell(code, values, 'fault', lost);
  }
  /** Something is lost for good: the exercise ends. */
  lose(code: string, values: Values, what: Said, bytes: number | null = null): void {
    this.tell(code, values, 'loss', { what, bytes });
    this.end = 'lost';
  }
  /** The goal is reached. */
  reach(code: string, values: Values = {}): void {
    this.tell(code, values, 'good');
    this.end = 'done';
  }
}
