import { join } from 'node:path';
import { lanStateSchema, type LanEvent, type LanState, type LanText } from '@zb/core/model/standInLan';
import { beginLan, lanAfter, lanAnswers, lanText } from '@zb/core/demo/standInLan';
import { StateFile } from './files/stateFile';

const SEED = 7;
const now = (): number => Date.now() / 1000;

/** The stand-in network: a few hosts that are nowhere, kept in the data folder over restarts. */
export class StandInLan {
  private readonly file: StateFile;
  private current: LanState;
  /** Why its state cannot be kept at present, in words; null where it is. */
  trouble: string | null = null;

  constructor(dataDir: string) {
    this.file = new StateFile(join(dataDir, 'lan', 'state.json'));
    this.current = this.read();
  }

  /** What is kept; the network as it was set up where nothing is, or it is damaged. */
  private read(): LanState {
    const { text, trouble } = this.file.read();
    this.trouble = trouble;
    if (text === null) return beginLan(SEED);
    try {
      return lanStateSchema.parse(JSON.parse(text));
    } catch {
      this.file.setAside();
      return beginLan(SEED);
    }
  }

  get state(): LanState {
    return this.current;
  }

  /** Lets something happen. False where it names a host that is not there. */
  happen(event: LanEvent): boolean {
    if ('host' in event && !this.current.hosts.some((h) => h.id === event.host)) return false;
    this.current = lanAfter(this.current, event, now());
    this.trouble = this.file.save(JSON.stringify(this.current));
    return true;
  }

  /** Keeps what could not be kept before; nothing where all is. */
  tryAgain(): void {
    if (this.trouble !== null) this.trouble = this.file.save(JSON.stringify(this.current));
  }

  text(what: LanText): string {
    return lanText(this.current, what, now());
  }

  answers(address: string): boolean {
    return lanAnswers(this.current, address, now());
  }
}
