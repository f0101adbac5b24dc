import { createHash, randomUUID, type Hash } from 'node:crypto';
import { readdirSync, rmSync } from 'node:fs';
import type { StickFault, VirtualStick, ProbeResult } from '@zb/core/model/standIns';
import { crc32 } from '@zb/core/formats/crc32';
import { explainReadback, type BlockResult } from '@zb/core/write/readback';
import { isOver, type Job } from '@zb/core/model/job';
import { probeCapacity } from '@zb/core/write/probe';
import { guardTargets, refusedByShelf, serialTail } from '@zb/core/write/guard';
import { refusalWords } from '@zb/core/words/guard';
import { readbackWords } from '@zb/core/words/readback';
import { formatExact } from '@zb/core/units/bytes';
import { makeFolder } from '../files/makeFolder';
import { faultWords } from '../files/faultWords';
import { inFolder } from '../files/inFolder';
import { StateFile } from '../files/stateFile';
import { within } from '../within';
import { Book } from './book';
import { PulledOut, VirtualDisk } from './disk';
import { CalledOff } from './incoming';
import { ProbeJournal } from './probeJournal';
import { WriterRefusal } from './refusal';
import { Turns } from './turns';
import type { Announced } from './types';

/** Size of a compared block. Small enough to name a place, large enough to keep the list of sums short. */
const BLOCK = 64 * 1024;
const PROGRESS_MS = 150;
const SAVE_MS = 1000;
const UNTOUCHED = 'Cancelled before the first byte. The stick is as it was.';
const PROBE = '.probe';
export const NOT_WAITING = 'This write is not waiting for a file.';

/** Told after every block: where it ends, when this phase began, and how fast the stick is in it. */
type Step = (field: 'written' | 'readBack', value: number, since: number, rate: number) => Promise<void>;
export type Source = () => AsyncIterable<Uint8Array>;

/** The stand-in writer: virtual sticks in a data folder, one write at a time for each, each read back and compared. */
export class Writer {
  readonly book: Book;
  private readonly running = new Map<string, AbortController>();
  private readonly probing = new Set<string>();
  private readonly turns = new Turns();

  /** `pace` multiplies the speed model: 1 is true to the stick; 0 does not wait at all. */
  constructor(
    private readonly dir: string,
    private readonly pace: number,
  ) {
    this.book = new Book(new StateFile(inFolder(dir, 'jobs.json')));
  }

  /** Takes back the probes that were cut off. To be waited for before anything else is done with the sticks. */
  async recover(): Promise<void> {
    let names: string[] = [];
    try {
      names = readdirSync(this.dir);
    } catch {
      // Nothing was ever written here.
    }
    for (const stick of this.book.sticks.list())
      if (names.includes(`${stick.id}${PROBE}`)) await this.takeBack(stick);
  }

  /** Puts back what stood where a probe put its marks. Never throws: what cannot be put back stays noted for the next start. */
  private async takeBack(stick: VirtualStick): Promise<void> {
    try {
      const journal = this.journalOf(stick);
      const disk = await VirtualDisk.open(this.imageOf(stick), { bytes: stick.bytes, fault: {} });
      try {
        for (const { offset, before } of journal.read()) await disk.write(offset, before);
      } finally {
        await disk.close();
      }
      journal.close();
    } catch (error) {
      console.error(
        `What a probe of “${stick.model}” overwrote cannot be put back yet: ${faultWords(error)}.`,
      );
    }
  }

  private journalOf(stick: VirtualStick): ProbeJournal {
    return new ProbeJournal(inFolder(this.dir, `${stick.id}${PROBE}`));
  }

  private imageOf(stick: VirtualStick): string {
    return inFolder(this.dir, `${stick.id}.img`);
  }

  plug(stick: { bytes: number; serial: string; model: string }): VirtualStick {
    const plugged = this.book.sticks.plug(stick);
    this.book.save();
    return plugged;
  }

  /** Takes a stick out, and its bytes with it. */
  unplug(id: string): void {
    const stick = this.book.sticks.need(id);
    this.refuseBusy(id);
    this.book.sticks.unplug(id);
    this.book.save();
    try {
      rmSync(this.imageOf(stick), { force: true });
    } catch (error) {
      console.error(`The bytes of a stick that was taken out could not be cleared: ${faultWords(error)}.`);
    }
  }

  setFault(id: string, fault: StickFault): VirtualStick {
    const stick = this.book.sticks.need(id);
    this.refuseBusy(id);
    this.book.sticks.setFault(stick, fault);
    this.book.save();
    return stick;
  }

  private refuseBusy(stickId: string): void {
    if (this.book.busyWith(stickId))
      throw new WriterRefusal('That stick is being written. Wait for the end or cancel first.');
    if (this.probing.has(stickId))
      throw new WriterRefusal('That stick is being probed. Wait for the end first.');
  }

  /** Is another write on the way that this one would take? */
  mustWait(id: string): boolean {
    const bus = this.busOf(this.book.job(id));
    return this.book.list().some((j) => j.id !== id && !isOver(j) && this.busOf(j) === bus);
  }

  private busOf(job: Job | undefined): string | undefined {
    return job && this.book.sticks.get(job.stickId)?.bus;
  }

  /** Finds what a stick really holds; refuses one that is being written. */
  async probe(id: string): Promise<ProbeResult> {
    const stick = this.book.sticks.need(id);
    this.refuseBusy(id);
    this.probing.add(id);
    const done = await this.turns.take(stick.bus, new AbortController().signal);
    try {
      return await this.probed(stick);
    } catch (error) {
      throw new WriterRefusal(
        `The stick could not be probed: ${faultWords(error)}. What was on it has been put back, or is at the next start.`,
        507,
      );
    } finally {
      this.probing.delete(id);
      done?.();
    }
  }

  private async probed(stick: VirtualStick): Promise<ProbeResult> {
    await makeFolder(this.dir);
    const disk = await VirtualDisk.open(this.imageOf(stick), stick);
    // What truly stands there, not what a faulty stick answers.
    const truth = await VirtualDisk.open(this.imageOf(stick), { bytes: stick.bytes, fault: {} });
    const journal = this.journalOf(stick);
    const noted = new Set<number>();
    try {
      return await probeCapacity(
        {
          bytes: stick.bytes,
          write: async (offset, bytes) => {
            if (!noted.has(offset)) journal.note(offset, await truth.read(offset, bytes.length));
            noted.add(offset);
            await disk.write(offset, bytes);
          },
          read: (offset, length) => disk.read(offset, length),
          // A virtual stick has no memory of its own that could answer in its place.
          replug: () => Promise.resolve(),
        },
        Date.now(),
      );
    } finally {
      await truth.close();
      await disk.close();
      await this.takeBack(stick);
    }
  }

  /** Opens a job after the guard has looked at the stick; throws WriterRefusal with the reason. */
  open(announced: Announced): Job {
    const { total, sha256, imageName, tag } = announced;
    const stick = this.book.sticks.get(announced.stickId);
    if (!stick) throw new WriterRefusal('That stick is not plugged in any more. Nothing was written.');
    this.refuseBusy(stick.id);
    const guarded = guardTargets(this.book.sticks.list(), [], total).find((g) => g.target.id === stick.id);
    const against = announced.shelf ? refusedByShelf(announced.shelf) : [];
    if (against.length > 0)
      throw new WriterRefusal(`${against.map(refusalWords).join(' ')} Nothing was written.`);
    if (!guarded?.allowed)
      throw new WriterRefusal(guarded?.refusals.map(refusalWords).join(' ') ?? 'Refused.');
    if (serialTail(stick.serial) !== announced.serialTail.toUpperCase()) {
      throw new WriterRefusal(
        'The last four of the serial do not agree with this stick. Nothing was written.',
      );
    }
    const job: Job = {
      id: randomUUID(),
      stickId: stick.id,
      serial: stick.serial,
      imageName,
      total,
      target: { bytes: stick.bytes, model: stick.model },
      sha256,
      touched: false,
      state: 'waiting for the file',
      written: 0,
      readBack: 0,
      seconds: 0,
      writeSeconds: null,
      pattern: null,
      firstDifference: null,
      explanation: '',
      startedAt: new Date().toISOString(),
      tag,
    };
    this.running.set(job.id, new AbortController());
    this.book.add(job);
    return job;
  }

  /** Tells when a job is called off; undefined for one that is over. */
  signalOf(id: string): AbortSignal | undefined {
    return this.running.get(id)?.signal;
  }

  cancel(id: string): Job | undefined {
    const job = this.book.job(id);
    if (job && !isOver(job)) {
      this.running.get(id)?.abort();
      if (job.state !== 'writing' && job.state !== 'reading back') this.end(job, 'cancelled', UNTOUCHED);
    }
    return job;
  }

  /** Ends a job whose bytes never reached the stick; one that is over, or no longer listed, is left alone. */
  giveUp(id: string, why: string): void {
    const job = this.book.job(id);
    if (job && !isOver(job)) this.end(job, 'failed', why);
  }

  private end(
    job: Job,
    state: Job['state'],
    explanation: string,
    found?: { pattern: string; firstDifference: number | null },
  ): void {
    Object.assign(job, {
      state,
      explanation,
      pattern: found?.pattern ?? null,
      firstDifference: found?.firstDifference ?? null,
    });
    this.running.delete(job.id);
    this.book.save();
    this.book.tell(job);
  }

  /**
   * Carries a job out: waits for its turn, writes what the source gives, then reads all of it back. The source is asked
   * for only when the turn has come. Once the job is taken, every fault is told by the job and none is thrown.
   */
  async run(id: string, source: Source): Promise<Job> {
    const job = this.book.job(id);
    const control = this.running.get(id);
    const stick = job && this.book.sticks.get(job.stickId);
    if (!job || !stick || !control || job.state !== 'waiting for the file')
      throw new WriterRefusal(NOT_WAITING);
    job.state = 'waiting for its turn';
    this.book.tell(job);
    const done = await this.turns.take(stick.bus, control.signal);
    try {
      // Called off while it waited: told already.
      if (!isOver(job)) await this.carryOut(job, control.signal, stick, source);
    } finally {
      done?.();
    }
    return job;
  }

  private async carryOut(job: Job, signal: AbortSignal, stick: VirtualStick, source: Source): Promise<void> {
    // From here on the job is under way: a cancel is told by this run alone.
    job.state = 'writing';
    const begun = performance.now();
    try {
      await this.writeAndCompare(job, signal, stick, source, this.stepper(job, signal, begun));
    } catch (error) {
      job.seconds = (performance.now() - begun) / 1000;
      if (error instanceof CalledOff) {
        const left = `Cancelled after ${formatExact(job.written)}. The stick holds part of an image: do not start from it.`;
        this.end(job, 'cancelled', job.touched ? left : UNTOUCHED);
      } else if (error instanceof PulledOut) {
        const verdict = explainReadback([], BLOCK, job.total, job.written);
        this.end(job, 'failed', readbackWords(verdict), verdict);
      } else {
        const stickWords = job.touched
          ? 'The stick holds part of an image; the image file is unharmed. Write again.'
          : 'The stick is as it was, and the image file is unharmed.';
        this.end(job, 'failed', `The write stopped: ${faultWords(error)}. ${stickWords}`);
      }
    }
  }

  /** What is done after every block: progress, the speed of the stick, and an open ear for a cancel. */
  private stepper(job: Job, signal: AbortSignal, begun: number): Step {
    let told = -Infinity;
    let saved = begun;
    return async (field, value, since, rate) => {
      job[field] = value;
      job.seconds = (performance.now() - begun) / 1000;
      const due = this.pace > 0 ? (value / (rate * this.pace)) * 1000 - (performance.now() - since) : 0;
      if (due > 5) await within(new Promise<never>(() => undefined), due, signal);
      if (signal.aborted) throw new CalledOff();
      if (performance.now() - told > PROGRESS_MS) {
        told = performance.now();
        this.book.tell(job);
      }
      if (performance.now() - saved > SAVE_MS) {
        saved = performance.now();
        this.book.save();
      }
    };
  }

  private async writeAndCompare(
    job: Job,
    signal: AbortSignal,
    stick: VirtualStick,
    source: Source,
    step: Step,
  ): Promise<void> {
    if (signal.aborted) throw new CalledOff();
    await makeFolder(this.dir);
    const disk = await VirtualDisk.open(this.imageOf(stick), stick);
    try {
      this.book.tell(job);
      const begun = performance.now();
      const arrived = createHash('sha256');
      const sums = await this.writeAll(job, stick, disk, source, arrived, (n) =>
        step('written', n, begun, stick.writeRate),
      );
      await disk.flush();
      job.writeSeconds = (performance.now() - begun) / 1000;
      if (arrived.digest('hex') !== job.sha256)
        throw new Error('what came is not the image that was announced: its digest differs');
      job.state = 'reading back';
      const back = createHash('sha256');
      const since = performance.now();
      const bad = await this.readAll(job, disk, sums, back, (n) =>
        step('readBack', n, since, stick.readRate),
      );
      job.seconds = (performance.now() - begun) / 1000;
      const verdict = explainReadback(bad, BLOCK, job.total, job.written);
      if (verdict.result === 'proven' && back.digest('hex') !== job.sha256)
        throw new Error('the digest of what was read back differs from that of the image');
      this.end(job, verdict.result, readbackWords(verdict), verdict);
    } finally {
      await disk.close();
    }
  }

  /** The first byte goes to a stick only after the record says that one does: a kill in between leaves no false word. */
  private recordTouch(job: Job): void {
    job.touched = true;
    const trouble = this.book.save();
    if (trouble === null) return;
    job.touched = false;
    throw new Error(`the record of writes cannot be kept (${trouble})`);
  }

  private async writeAll(
    job: Job,
    stick: VirtualStick,
    disk: VirtualDisk,
    source: Source,
    arrived: Hash,
    step: (n: number) => Promise<void>,
  ): Promise<number[]> {
    const sums: number[] = [];
    const pull = stick.fault.pulledAt === undefined ? Infinity : stick.fault.pulledAt * job.total;
    const block = new Uint8Array(BLOCK);
    let fill = 0;
    let offset = 0;
    const flush = async (): Promise<void> => {
      const piece = block.subarray(0, fill);
      if (offset + fill > job.total)
        throw new Error(`the file is longer than the ${formatExact(job.total)} announced`);
      if (!job.touched) this.recordTouch(job);
      await disk.write(offset, piece);
      sums.push(crc32(piece));
      arrived.update(piece);
      offset += fill;
      fill = 0;
      await step(offset);
      if (offset >= pull) throw new PulledOut();
    };
    for await (const chunk of source()) {
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
    back: Hash,
    step: (n: number) => Promise<void>,
  ): Promise<BlockResult[]> {
    const bad: BlockResult[] = [];
    for (const [index, sum] of sums.entries()) {
      const length = Math.min(BLOCK, job.total - index * BLOCK);
      const piece = await disk.read(index * BLOCK, length);
      back.update(piece);
      if (crc32(piece) !== sum) bad.push({ index, zeros: piece.every((b) => b === 0) });
      await step(index * BLOCK + length);
    }
    return bad;
  }
}
