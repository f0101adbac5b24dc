import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { clearAbandoned } from '@zb/emulator/abandoned';
import { Machine } from '@zb/emulator/machine';
import { missing, type Places } from '@zb/emulator/places';
import { NotTaken } from '@zb/emulator/sparse';
import { PackedFault } from '@zb/core/container/fault';
import type { Trial, TrialDesk, TrialEnd, TrialRequest } from '@zb/core/model/trial';
import { happened } from '@zb/core/starting/happened';
import { plainTerminal } from '@zb/core/units/terminal';
import { faultWords } from '../files/faultWords';
import { clearKept } from '../files/clearKept';
import { unpacked } from '../files/unpacked';
import { hasRoom, takeFile } from './coming';

/** A trial that cannot be had, with the status that says why (RFC 9110 §15.5); the message is for the user. */
export class TrialRefusal extends Error {
  override name = 'TrialRefusal';
  constructor(
    message: string,
    readonly status: 400 | 404 | 409 | 503 | 507 = 409,
  ) {
    super(message);
  }
}

/** The screen is looked at twice a second. */
const LOOK_MS = 500;
/** A page that is loaded again comes back within this; one that is closed does not. */
const GONE_MS = 4000;
/** So much of the serial line is told. */
const TOLD = 4000;

interface Running {
  told: Trial;
  order: TrialRequest;
  path: string;
  /** Whether the file is one that came, and goes with the trial. */
  came: boolean;
  machine: Machine | null;
  since: number;
  picture: Buffer | null;
  listeners: Set<(now: Trial) => void>;
  /** Ends it where nobody listens. */
  lonely: NodeJS.Timeout | undefined;
}

const isOver = ({ told }: Running): boolean => told.state === 'over';

const KEPT = /^[0-9a-f-]{36}\.(img|packed)$/;

/** What comes is left where it is once nobody waits for it. */
async function* whileWanted(run: Running, content: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  for await (const piece of content) {
    if (isOver(run)) return;
    yield piece;
  }
}

/** Starts images in the emulator, one at a time, for as long as a page looks. Files that were sent for it go with it. */
export class Starter {
  private running: Running | null = null;

  constructor(
    private readonly dir: string,
    private readonly places: Places,
    private readonly goneMs = GONE_MS,
    private readonly vars?: string,
    private readonly room?: { most: number; free: number },
  ) {
    clearKept(dir, KEPT, 'Files of earlier trials');
    clearAbandoned(dir);
    clearAbandoned(tmpdir());
  }

  get desk(): TrialDesk {
    return { missing: missing(this.places), current: this.running?.told ?? null };
  }

  /** The trial of an id. Throws TrialRefusal where there is none such, or another runs now. */
  private of(id: string): Running {
    if (this.running?.told.id !== id) throw new TrialRefusal('There is no such trial.', 404);
    return this.running;
  }

  /** Opens a trial: `path` and `bytes` of a file that is here, or null for one that will be sent. */
  async open(order: TrialRequest, here: { path: string; bytes: number } | null): Promise<Trial> {
    const wanting = missing(this.places);
    if (wanting.length > 0)
      throw new TrialRefusal(
        `Trials want ${wanting.map((m) => m.what).join(' and ')}: install ${wanting.map((m) => m.package).join(' and ')}. Nothing was started.`,
        503,
      );
    if (this.running && !isOver(this.running))
      throw new TrialRefusal(
        `“${this.running.told.imageName}” is being tried now, and one machine runs at a time. End that one first.`,
      );
    const id = randomUUID();
    const bytes = here?.bytes ?? (order.image.from === 'upload' ? order.image.bytes : 0);
    const path = here?.path ?? join(this.dir, `${id}.img`);
    const run: Running = {
      order,
      path,
      came: here === null,
      machine: null,
      since: performance.now(),
      picture: null,
      listeners: new Set(),
      lonely: undefined,
      told: {
        id,
        imageName: order.image.from === 'depot' ? order.image.file : order.image.name,
        firmware: order.firmware,
        attached: order.attached,
        state: here ? 'runs' : 'waits for its file',
        come: here ? bytes : 0,
        bytes,
        end: null,
        fault: null,
        seconds: 0,
        happened: 'not seen',
        picture: 0,
        serial: '',
        screen: null,
      },
    };
    this.running = run;
    if (here === null && !(await hasRoom(path).catch(() => false))) {
      this.running = null;
      throw new TrialRefusal('There is no room for the file on this machine. Nothing was started.', 507);
    }
    this.alone(run);
    if (here) this.switchOn(run);
    return run.told;
  }

  /** Takes the file of a trial, and switches the machine on when it is whole. */
  async take(id: string, content: AsyncIterable<Uint8Array>): Promise<Trial> {
    const run = this.of(id);
    const { image } = run.order;
    if (run.told.state !== 'waits for its file' || run.told.come > 0 || image.from !== 'upload')
      throw new TrialRefusal('This trial does not wait for a file.');
    const packing = image.container;
    const packed = packing === 'none' ? run.path : run.path.replace(/img$/, 'packed');
    const told = (come: number): void => this.tell(run, { come });
    let what = 'The file that came';
    try {
      await takeFile(packed, image.bytes, whileWanted(run, content), told);
      if (packing !== 'none' && !isOver(run)) {
        const bytes = image.innerBytes ?? 0;
        what = 'What is packed in the file';
        this.tell(run, { state: 'unpacks', come: 0, bytes });
        await takeFile(run.path, bytes, whileWanted(run, unpacked(packed, packing)), told);
      }
    } catch (error) {
      // Ended meanwhile, nobody waits for what is said of it.
      if (isOver(run)) return run.told;
      const why =
        error instanceof NotTaken
          ? `${what} is not of ${run.told.bytes} bytes`
          : error instanceof PackedFault
            ? faultWords(error).replace(/\.$/, '')
            : `The file could not be kept: ${faultWords(error)}`;
      await this.over(run, 'file did not come', why);
      const theirs = error instanceof NotTaken || error instanceof PackedFault;
      throw new TrialRefusal(`${why}. Nothing was started.`, theirs ? 400 : 507);
    } finally {
      if (packed !== run.path) await rm(packed, { force: true });
    }
    // It may have been ended while the file came.
    if (isOver(run)) await rm(run.path, { force: true });
    else this.switchOn(run);
    return run.told;
  }

  private tell(run: Running, what: Partial<Trial>): void {
    run.told = { ...run.told, ...what };
    for (const l of run.listeners) l(run.told);
  }

  private switchOn(run: Running): void {
    const { firmware, attached, memoryMiB, seconds } = run.order;
    run.since = performance.now();
    let machine: Machine;
    try {
      machine = new Machine({
        firmware,
        attached,
        memoryMiB,
        path: run.path,
        places: this.places,
        vars: this.vars,
        folder: this.dir,
        room: this.room,
      });
    } catch (error) {
      this.ending(run, 'emulator failed', faultWords(error));
      return;
    }
    run.machine = machine;
    this.tell(run, { state: 'runs' });
    machine.ended
      .then((fault) =>
        this.ending(run, machine.stopped ?? (fault === null ? 'machine ended' : 'emulator failed'), fault),
      )
      .catch((error: unknown) => console.error('A trial ended in a way it never should:', error));
    this.look(run, machine, run.since + seconds * 1000).catch((error: unknown) =>
      console.error('A trial could not be looked at:', error),
    );
  }

  /** Looks at the screen until it is over. */
  private async look(run: Running, machine: Machine, until: number): Promise<void> {
    while (run.told.state === 'runs') {
      const began = performance.now();
      // A machine that has just ended answers no more; that it ended is told apart from here.
      const seen = await machine.screen().catch(() => null);
      const { debug, serial } = machine;
      if (seen && run.picture?.equals(seen.picture) !== true) run.picture = seen.picture;
      const screen = seen ? seen.text : run.told.screen;
      if (run.told.state === 'runs')
        this.tell(run, {
          seconds: (performance.now() - run.since) / 1000,
          picture: run.told.picture + (seen?.picture === run.picture ? 1 : 0),
          serial: plainTerminal(serial).slice(-TOLD),
          screen,
          happened: seen
            ? happened({ firmware: run.order.firmware, debug, serial, screen })
            : run.told.happened,
        });
      if (performance.now() >= until) {
        await this.over(run, 'time is up', null);
        return;
      }
      await new Promise((r) => setTimeout(r, Math.max(0, LOOK_MS - (performance.now() - began))));
    }
  }

  private ending(run: Running, end: TrialEnd, fault: string | null): void {
    this.over(run, end, fault).catch((error: unknown) => console.error('A trial could not be ended:', error));
  }

  private async over(run: Running, end: TrialEnd, fault: string | null): Promise<void> {
    if (isOver(run)) return;
    clearTimeout(run.lonely);
    this.tell(run, { state: 'over', end, fault: fault?.slice(0, 500) ?? null });
    await run.machine?.off();
    if (run.came) await rm(run.path, { force: true });
  }

  /** Where nobody listens for a while, the page is closed. */
  private alone(run: Running): void {
    clearTimeout(run.lonely);
    if (run.listeners.size > 0 || isOver(run)) return;
    run.lonely = setTimeout(() => this.ending(run, 'page closed', null), this.goneMs);
  }

  /** How a trial is now. */
  trial(id: string): Trial {
    return this.of(id).told;
  }

  /** Tells `listener` of every change until the function that is returned is called; while somebody listens, its page is open. */
  listen(id: string, listener: (now: Trial) => void): () => void {
    const run = this.of(id);
    run.listeners.add(listener);
    this.alone(run);
    return () => {
      run.listeners.delete(listener);
      this.alone(run);
    };
  }

  /** The last picture of the screen; null where none was taken yet. */
  picture(id: string): Buffer | null {
    return this.of(id).picture;
  }

  async press(id: string, keys: readonly string[]): Promise<void> {
    const { machine, told } = this.of(id);
    if (!machine || told.state !== 'runs') throw new TrialRefusal('The machine is off.');
    try {
      await machine.press(keys);
    } catch {
      throw new TrialRefusal('The machine does not know such a key, or is off.', 400);
    }
  }

  async stop(id: string): Promise<Trial> {
    const run = this.of(id);
    await this.over(run, 'stopped', null);
    return run.told;
  }

  /** Ends whatever runs: the server stops. */
  async close(): Promise<void> {
    if (this.running) await this.over(this.running, 'stopped', null);
  }
}
