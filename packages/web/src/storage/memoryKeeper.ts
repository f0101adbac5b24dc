import { emptyBench, theBench, type Bench } from '@zb/core/model/bench';
import { conflictsOf, applyChanges, type Act, type Change } from '@zb/core/model/changes';
import { ChangedElsewhere, UNDO_DEPTH, type Done, type Keeper, type Loaded } from './keeper';

/** No other tab sees what is kept in this page’s memory. */
const MARK = 'memory';

/** Keeps the bench for as long as the page is open; used where the browser gives no storage. */
export class MemoryKeeper implements Keeper {
  readonly kind = 'memory';
  private bench: Bench | undefined;
  private revision = 0;
  private readonly acts: { label: string; back: Change[] }[] = [];

  load(): Promise<Loaded | undefined> {
    return Promise.resolve(this.bench && { bench: this.bench, revision: this.revision, mark: MARK });
  }

  private did(label: string, changes: readonly Change[]): Done {
    this.revision += 1;
    return { label, changes, revision: this.revision, mark: MARK };
  }

  perform({ label, changes, once, leaves = [] }: Act): Promise<Done | undefined> {
    const before = this.bench ?? emptyBench();
    if (once && before[once.in].some((x) => x.id === once.id)) return Promise.resolve(undefined);
    const conflicts = conflictsOf(before, changes);
    if (conflicts.length > 0) return Promise.reject(new ChangedElsewhere(conflicts));
    this.bench = applyChanges(before, changes);
    this.acts.push({ label, back: [...theBench.inverse(before, changes), ...leaves] });
    this.acts.splice(0, this.acts.length - UNDO_DEPTH);
    return Promise.resolve(this.did(label, changes));
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

  undo(): Promise<Done | undefined> {
    const last = this.acts.pop();
    if (!last || !this.bench) return Promise.resolve(undefined);
    this.bench = applyChanges(this.bench, last.back);
    return Promise.resolve(this.did(last.label, last.back));
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
