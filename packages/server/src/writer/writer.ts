import { mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { demoSticks, type StickFault, type VirtualStick } from '@zb/core/demo/sticks';
import { crc32 } from '@zb/core/image/crc32';
import { explainReadback, type BlockResult, type Readback } from '@zb/core/media/readback';
import { isOver, jobSchema, type Job } from '@zb/core/media/job';
import { probeCapacity, type ProbeResult } from '@zb/core/media/probe';
import { guardTargets, serialTail } from '@zb/core/media/guard';
import { formatExact } from '@zb/core/units/bytes';
import { z } from 'zod';
import { PulledOut, VirtualDisk } from './disk';
import type { StartRequest } from './types';

/** Size of a compared block. Small enough to name a place, large enough to keep the list of sums short. */
const BLOCK = 64 * 1024;
const PROGRESS_MS = 150;
const UNTOUCHED = 'Cancelled before the first byte. The stick is as it was.';

/** A request that cannot be carried out; the message is for the user. */
export class WriterRefusal extends Error {
  override name = 'WriterRefusal';
}

class Cancelled extends Error {}

type Listener = (job: Job) => void;
interface Running {
  cancelled: boolean;
  listeners: Set<Listener>;
}

const stateSchema = z.object({ jobs: z.array(jobSchema) });

/** The jobs a state file tells of; none where it is damaged, for a broken record must not keep the writer from starting. */
function readState(text: string): Job[] {
  try {
    return stateSchema.parse(JSON.parse(text)).jobs;
  } catch {
    console.error('The record of earlier writes cannot be read and is begun anew.');
    return [];
  }
}

/** The stand-in writer: virtual sticks in a data folder, one write at a time for each, each read back and compared. */
export class Writer {
  readonly sticks = new Map<string, VirtualStick>();
  private readonly jobs = new Map<string, Job>();
  private readonly running = new Map<string, Running>();
  /** The end of the last write that was let onto each bus. */
  private readonly turns = new Map<string, Promise<void>>();

  /** `pace` multiplies the speed model: 1 is true to the stick; 0 does not wait at all. */
  constructor(
    private readonly dir: string,
    private readonly pace: number,
  ) {
    mkdirSync(dir, { recursive: true });
    for (const stick of demoSticks) this.sticks.set(stick.id, structuredClone(stick));
    this.restore();
  }

  /** After a restart nothing is running: whatever was is said to be interrupted, never forgotten. */
  private restore(): void {
    let text: string;
    try {
      text = readFileSync(this.stateFile, 'utf8');
    } catch {
      return;
    }
    for (const job of readState(text)) {
      const explanation = `The writer stopped after ${formatExact(job.written)} of ${formatExact(job.total)}. The stick holds part of an image: do not start from it. Write again from the beginning.`;
      this.jobs.set(job.id, isOver(job) ? job : { ...job, state: 'interrupted', explanation });
    }
    this.save();
  }

  private get stateFile(): string {
    return join(this.dir, 'jobs.json');
  }

  private save(): void {
    const fresh = `${this.stateFile}.new`;
    writeFileSync(fresh, JSON.stringify({ jobs: [...this.jobs.values()].slice(-50) }));
    renameSync(fresh, this.stateFile);
  }

  list(): Job[] {
    return [...this.jobs.values()];
  }

  job(id: string): Job | undefined {
    return this.jobs.get(id);
  }

  plug(stick: { bytes: number; serial: string; model: string }): VirtualStick {
    const full: VirtualStick = {
      ...stick,
      id: randomUUID(),
      port: `hub, place ${this.sticks.size - 3}`,
      link: 'usb2',
      bus: 'hub',
      writeRate: 20e6,
      readRate: 60e6,
      fault: {},
    };
    this.sticks.set(full.id, full);
    return full;
  }

  unplug(id: string): void {
    this.refuseBusy(id);
    this.sticks.delete(id);
    rmSync(join(this.dir, `${id}.img`), { force: true });
  }

  setFault(id: string, fault: StickFault): VirtualStick {
    const stick = this.sticks.get(id);
    if (!stick) throw new WriterRefusal('That stick is not plugged in any more.');
    this.refuseBusy(id);
    stick.fault = fault;
    return stick;
  }

  private refuseBusy(stickId: string): void {
    const busy = [...this.jobs.values()].some((j) => j.stickId === stickId && !isOver(j));
    if (busy) throw new WriterRefusal('That stick is being written. Wait for the end or cancel first.');
  }

  /** Is another write on the way that this one would take? */
  mustWait(id: string): boolean {
    const bus = this.busOf(this.jobs.get(id));
    return [...this.jobs.values()].some((j) => j.id !== id && !isOver(j) && this.busOf(j) === bus);
  }

  private busOf(job: Job | undefined): string | undefined {
    return job && this.sticks.get(job.stickId)?.bus;
  }

  /** Finds what a stick really holds; refuses one that is being written. */
  async probe(id: string): Promise<ProbeResult> {
    const stick = this.sticks.get(id);
    if (!stick) throw new WriterRefusal('That stick is not plugged in any more.');
    this.refuseBusy(id);
    const done = await this.turn(stick.bus);
    const disk = await VirtualDisk.open(join(this.dir, `${stick.id}.img`), stick);
    try {
      return await probeCapacity(
        {
          bytes: stick.bytes,
          write: (offset, bytes) => disk.write(offset, bytes),
          read: (offset, length) => disk.read(offset, length),
        },
        Date.now(),
      );
    } finally {
      await disk.close();
      done();
    }
  }

  /** Opens a job after the guard has looked at the stick; throws WriterRefusal with the reason. */
  open(request: StartRequest, total: number): Job {
    const stick = this.sticks.get(request.stickId);
    if (!stick) throw new WriterRefusal('That stick is not plugged in any more. Nothing was written.');
    this.refuseBusy(stick.id);
    const guarded = guardTargets([...this.sticks.values()], [], total).find((g) => g.target.id === stick.id);
    if (!guarded?.allowed)
      throw new WriterRefusal(guarded?.refusals.map((r) => r.because).join(' ') ?? 'Refused.');
    if (serialTail(stick.serial) !== request.serialTail.toUpperCase()) {
      throw new WriterRefusal(
        'The last four of the serial do not agree with this stick. Nothing was written.',
      );
    }
    const job: Job = {
      id: randomUUID(),
      stickId: stick.id,
      serial: stick.serial,
      imageName: request.image.from === 'depot' ? request.image.file : request.image.name,
      total,
      state: 'waiting for the file',
      written: 0,
      readBack: 0,
      seconds: 0,
      writeSeconds: null,
      pattern: null,
      firstDifference: null,
      explanation: '',
      startedAt: new Date().toISOString(),
      tag: request.tag,
    };
    this.jobs.set(job.id, job);
    this.running.set(job.id, { cancelled: false, listeners: new Set() });
    this.save();
    return job;
  }

  cancel(id: string): Job | undefined {
    const job = this.jobs.get(id);
    const run = this.running.get(id);
    if (job && run && !isOver(job)) {
      run.cancelled = true;
      if (job.state === 'waiting for the file' || job.state === 'waiting for its turn')
        this.end(job, 'cancelled', UNTOUCHED);
    }
    return this.jobs.get(id);
  }

  /** Calls back with every change until the job is over; answers a function that stops listening. */
  listen(id: string, listener: Listener): () => void {
    const run = this.running.get(id);
    run?.listeners.add(listener);
    return () => run?.listeners.delete(listener);
  }

  private tell(job: Job): void {
    for (const listener of this.running.get(job.id)?.listeners ?? []) listener(job);
  }

  private end(job: Job, state: Job['state'], explanation: string, found?: Readback): void {
    Object.assign(job, {
      state,
      explanation,
      pattern: found?.pattern ?? null,
      firstDifference: found?.firstDifference ?? null,
    });
    this.save();
    this.tell(job);
    this.running.delete(job.id);
  }

  /** Sticks on one bus take turns: a shared way is not faster for being asked by two, and the times would be of neither. */
  private async turn(bus: string): Promise<() => void> {
    const before = this.turns.get(bus);
    let done: () => void = () => undefined;
    const mine = new Promise<void>((resolve) => (done = resolve));
    this.turns.set(bus, before ? before.then(() => mine) : mine);
    await before;
    return done;
  }

  /**
   * Carries a job out: waits for its turn, writes what the source gives, then reads all of it back. Never throws for a
   * fault of the stick.
   */
  async run(id: string, source: AsyncIterable<Uint8Array>): Promise<Job> {
    const job = this.jobs.get(id);
    const stick = job && this.sticks.get(job.stickId);
    if (!job || !stick || job.state !== 'waiting for the file')
      throw new WriterRefusal('This write is not waiting for a file.');
    job.state = 'waiting for its turn';
    this.tell(job);
    const done = await this.turn(stick.bus);
    try {
      const run = this.running.get(id);
      return run ? await this.carryOut(job, run, stick, source) : job;
    } finally {
      done();
    }
  }

  private async carryOut(
    job: Job,
    run: Running,
    stick: VirtualStick,
    source: AsyncIterable<Uint8Array>,
  ): Promise<Job> {
    // From here on the job is under way: a cancel is noticed between blocks and told by this run alone.
    job.state = 'writing';
    const disk = await VirtualDisk.open(join(this.dir, `${stick.id}.img`), stick);
    const begun = Date.now();
    let told = 0;
    const step = async (
      field: 'written' | 'readBack',
      value: number,
      phaseBegun: number,
      rate: number,
    ): Promise<void> => {
      job[field] = value;
      job.seconds = (Date.now() - begun) / 1000;
      if (run.cancelled) throw new Cancelled();
      const due = this.pace > 0 ? (value / (rate * this.pace)) * 1000 - (Date.now() - phaseBegun) : 0;
      if (due > 5) await new Promise((r) => setTimeout(r, due));
      if (Date.now() - told > PROGRESS_MS) {
        told = Date.now();
        this.tell(job);
        this.save();
      }
    };
    try {
      if (run.cancelled) throw new Cancelled();
      this.tell(job);
      const sums = await this.writeAll(job, stick, disk, source, (n) =>
        step('written', n, begun, stick.writeRate),
      );
      job.writeSeconds = (Date.now() - begun) / 1000;
      job.state = 'reading back';
      const bad = await this.readAll(job, disk, sums, Date.now(), (n, since) =>
        step('readBack', n, since, stick.readRate),
      );
      job.seconds = (Date.now() - begun) / 1000;
      const verdict = explainReadback(bad, BLOCK, job.total, job.written);
      this.end(job, verdict.result, verdict.explanation, verdict);
    } catch (error) {
      job.seconds = (Date.now() - begun) / 1000;
      if (error instanceof Cancelled) {
        const left = `Cancelled after ${formatExact(job.written)}. The stick holds part of an image: do not start from it.`;
        this.end(job, 'cancelled', job.written === 0 ? UNTOUCHED : left);
      } else if (error instanceof PulledOut) {
        const verdict = explainReadback([], BLOCK, job.total, job.written);
        this.end(job, 'failed', verdict.explanation, verdict);
      } else {
        const why = error instanceof Error ? error.message : String(error);
        this.end(
          job,
          'failed',
          `The write stopped: ${why}. The stick holds part of an image; the image file is unharmed. Write again.`,
        );
      }
    } finally {
      await disk.close();
    }
    return job;
  }

  private async writeAll(
    job: Job,
    stick: VirtualStick,
    disk: VirtualDisk,
    source: AsyncIterable<Uint8Array>,
    step: (n: number) => Promise<void>,
  ): Promise<number[]> {
    const sums: number[] = [];
    const pull = stick.fault.pulledAt === undefined ? Infinity : stick.fault.pulledAt * job.total;
    let block = new Uint8Array(BLOCK);
    let fill = 0;
    let offset = 0;
    const flush = async (): Promise<void> => {
      const piece = block.subarray(0, fill);
      if (offset + fill > job.total)
        throw new Error(`the file is longer than the ${formatExact(job.total)} announced`);
      await disk.write(offset, piece);
      sums.push(crc32(piece));
      offset += fill;
      fill = 0;
      block = new Uint8Array(BLOCK);
      await step(offset);
      if (offset >= pull) throw new PulledOut();
    };
    for await (const chunk of source) {
      let at = 0;
      while (at < chunk.length) {
        const take = Math.min(BLOCK - fill, chunk.length - at);
        block.set(chunk.subarray(at, at + take), fill);
        fill += take;
        at += take;
        if (fill === BLOCK) await flush();
      }
    }
    if (fill > 0) await flush();
    if (offset < job.total)
      throw new Error(`the file ended after ${formatExact(offset)} of ${formatExact(job.total)}`);
    return sums;
  }

  private async readAll(
    job: Job,
    disk: VirtualDisk,
    sums: number[],
    since: number,
    step: (n: number, since: number) => Promise<void>,
  ): Promise<BlockResult[]> {
    const bad: BlockResult[] = [];
    for (const [index, sum] of sums.entries()) {
      const length = Math.min(BLOCK, job.total - index * BLOCK);
      const piece = await disk.read(index * BLOCK, length);
      if (crc32(piece) !== sum) bad.push({ index, zeros: piece.every((b) => b === 0) });
      await step(index * BLOCK + length, since);
    }
    return bad;
  }
}
