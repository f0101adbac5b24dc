import { emptyBench, type Bench } from '@zb/core/model/bench';
import { applyChanges, differences, type Act, type Change } from '@zb/core/model/changes';
import { UNDO_DEPTH, type Keeper } from './keeper';

/** Keeps the bench for as long as the page is open; used where the browser gives no storage. */
export class MemoryKeeper implements Keeper {
  readonly kind = 'memory';
  private bench: Bench | undefined;
  private readonly acts: { label: string; back: Change[] }[] = [];

  load(): Promise<Bench | undefined> {
    return Promise.resolve(this.bench);
  }

  perform(act: Act): Promise<boolean> {
    const before = this.bench ?? emptyBench();
    const { once } = act;
    if (once && before[once.in].some((x) => x.id === once.id)) return Promise.resolve(false);
    this.bench = applyChanges(before, act.changes);
    this.acts.push({ label: act.label, back: differences(this.bench, before) });
    this.acts.splice(0, this.acts.length - UNDO_DEPTH);
    return Promise.resolve(true);
  }

  async begin(act: Act): Promise<boolean> {
    if (this.bench) return false;
    await this.perform(act);
    return true;
  }

  intact(): Promise<boolean> {
    return Promise.resolve(true);
  }

  adopt(): Promise<void> {
    return Promise.resolve();
  }

  undo(): Promise<string | undefined> {
    const last = this.acts.pop();
    if (last && this.bench) this.bench = applyChanges(this.bench, last.back);
    return Promise.resolve(last?.label);
  }

  clear(): Promise<void> {
    this.bench = undefined;
    this.acts.length = 0;
    return Promise.resolve();
  }

  undoable(): Promise<string | undefined> {
    return Promise.resolve(this.acts[this.acts.length - 1]?.label);
  }
}
