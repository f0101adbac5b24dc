import { isOver, type Job } from '@zb/core/model/job';
import { formatExact } from '@zb/core/units/bytes';
import type { StateFile } from '../files/stateFile';
import { Sticks } from './sticks';
import { stateSchema } from './types';

/** Writes that are over and still listed; those that are not over are never dropped. */
const MOST_OVER = 200;
const RETRY_MS = 3000;

type Listener = (job: Job) => void;

/** After a restart nothing is running: whatever was is said to be interrupted, with what that means for the stick. */
function interrupted(job: Job): Job {
  const all = job.written >= job.total;
  const explanation = !job.touched
    ? 'The writer stopped before the first byte. The stick is as it was.'
    : all
      ? `The writer stopped after all ${formatExact(job.total)} were written and before all were read back. Nothing is proven: write again.`
      : `The writer stopped after ${formatExact(job.written)} of ${formatExact(job.total)}. The stick holds part of an image: do not start from it. Write again from the beginning.`;
  return { ...job, state: 'interrupted', explanation };
}

/** The writes and the sticks the writer knows of, kept over restarts, and who listens to them. */
export class Book {
  private readonly jobs = new Map<string, Job>();
  private readonly listeners = new Map<string, Set<Listener>>();
  private retry: NodeJS.Timeout | undefined;
  readonly sticks: Sticks;
  /** Why the record cannot be kept at present, in words; null where it is. */
  trouble: string | null = null;

  constructor(private readonly file: StateFile) {
    const state = this.read();
    this.sticks = new Sticks(state);
    for (const job of state.jobs) this.jobs.set(job.id, isOver(job) ? job : interrupted(job));
    if (state.jobs.length > 0) this.save();
  }

  /** What is kept; none where it is damaged, for a broken record must not keep the writer from starting. */
  private read(): ReturnType<typeof stateSchema.parse> {
    const { text, trouble } = this.file.read();
    if (text !== null) {
      try {
        return stateSchema.parse(JSON.parse(text));
      } catch {
        const aside = this.file.setAside();
        console.error(
          `The record of earlier writes cannot be read and is begun anew.${aside === null ? '' : ' The old one is kept beside it, as “.unreadable”.'}`,
        );
      }
    } else if (trouble !== null)
      console.error(`The record of earlier writes cannot be read: ${trouble}. It is begun anew.`);
    return { jobs: [], plugged: [], faults: {} };
  }

  /** Keeps everything; answers null, or why it could not be kept. Tried again by itself until it is. Never throws. */
  save(): string | null {
    const over = [...this.jobs.values()].filter(isOver);
    for (const job of over.slice(0, Math.max(0, over.length - MOST_OVER))) this.jobs.delete(job.id);
    const before = this.trouble;
    this.trouble = this.file.save(JSON.stringify({ jobs: [...this.jobs.values()], ...this.sticks.toKeep() }));
    if (this.trouble !== null && this.trouble !== before)
      console.error(`The record of writes cannot be kept: ${this.trouble}.`);
    clearTimeout(this.retry);
    if (this.trouble !== null) this.retry = setTimeout(() => void this.save(), RETRY_MS).unref();
    return this.trouble;
  }

  list(): Job[] {
    return [...this.jobs.values()];
  }

  job(id: string): Job | undefined {
    return this.jobs.get(id);
  }

  /** The write that has this stick at present. */
  busyWith(stickId: string): Job | undefined {
    return this.list().find((j) => j.stickId === stickId && !isOver(j));
  }

  add(job: Job): void {
    this.jobs.set(job.id, job);
    this.save();
  }

  /** Calls back with every change until the job is over; answers a function that stops listening. */
  listen(id: string, listener: Listener): () => void {
    const mine = this.listeners.get(id) ?? new Set();
    mine.add(listener);
    this.listeners.set(id, mine);
    return () => {
      mine.delete(listener);
      if (mine.size === 0) this.listeners.delete(id);
    };
  }

  /** One listener that fails must not end a write. */
  tell(job: Job): void {
    for (const listener of this.listeners.get(job.id) ?? []) {
      try {
        listener(job);
      } catch (error) {
        console.error('Progress could not be told:', error);
      }
    }
  }
}
