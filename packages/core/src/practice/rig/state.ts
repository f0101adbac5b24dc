import type { RehearsalDrive } from '../../model/rehearsal';
import { asksPerson, readsTheSame } from '../../rehearsal/alike';
import { shuffled, type Random } from '../draw';
import { said } from '../said';
import type { Tale } from '../tale';
import { innerOf, stickOf, targetOf, type RigSetup } from './setup';

/** What the screen of the machine shows. */
export type RigView =
  | 'dark'
  | 'waking'
  | 'setup'
  | 'menu'
  | 'nothing'
  | 'old'
  | 'live'
  | 'installer'
  | 'sure'
  | 'working'
  | 'prompt'
  | 'new';

/** What setup can change; kept only when it is saved. */
export interface RigSettings {
  order: string[];
  secure: boolean;
  /** Ports that are switched off, by their drives. */
  off: string[];
}

/** Beats an installer that asks nobody counts down, and beats it writes. */
export const COUNTDOWN = 6;
export const WRITING = 3;
const WAKING_MINUTES = 1;

/** A machine on the bench with its drives and its stick, and what they hold by now. */
export class RigState {
  readonly target: RehearsalDrive;
  readonly stick: RehearsalDrive;
  readonly inner: RehearsalDrive[];
  readonly inside: Set<string>;
  /** What is on each drive: as it was, the new system, or half of one. */
  readonly now = new Map<string, 'as it was' | 'new' | 'broken'>();
  /** Drives whose label was read. */
  readonly labels = new Set<string>();
  /** Drives of which the installer showed the serial in this run. */
  readonly shown = new Set<string>();
  readonly asItCame: RigSettings;
  settings: RigSettings;
  edited: RigSettings | null = null;
  stickIn: boolean;
  /** What was on the stick has been started and left again. */
  startedOnce = false;
  view: RigView = 'dark';
  beat = 0;
  /** Keys that were pressed in vain since power-on: whoever taps is told once. */
  readonly inVain = new Set<string>();
  /** Drives in the order in which they answered this time. */
  list: string[] = [];
  picked: string | null = null;

  constructor(
    readonly setup: RigSetup,
    private readonly random: Random,
  ) {
    const { plan } = setup;
    this.target = targetOf(plan);
    this.stick = stickOf(plan);
    this.inner = innerOf(plan);
    this.inside = new Set(this.inner.map((d) => d.id));
    for (const d of this.inner) this.now.set(d.id, 'as it was');
    if (setup.done) this.now.set(this.target.id, 'new');
    this.stickIn = setup.stickIn;
    this.asItCame = { order: setup.order, secure: plan.machine.secureBoot === 'on', off: [] };
    this.settings = this.asItCame;
  }

  drive(id: string): RehearsalDrive {
    const found = this.setup.plan.drives.find((d) => d.id === id);
    if (!found) throw new RangeError(`no drive is called ${id}`);
    return found;
  }

  /** What a drive holds, as a person would say it. */
  holds(id: string): string {
    return this.setup.holds[id] ?? '';
  }

  /** Drives that answer when the machine is on, the stick not among them. */
  answering(): RehearsalDrive[] {
    return this.inner.filter((d) => this.inside.has(d.id) && !this.settings.off.includes(d.id));
  }

  /** Drives that an installer which asks nobody could take in place of the target; none where it asks. */
  rivals(): RehearsalDrive[] {
    const others = this.answering().filter((d) => d !== this.target);
    switch (this.setup.plan.installer.choice) {
      case 'takes the first drive unasked':
        return others;
      case 'takes the largest drive unasked':
        return others.filter((d) => d.bytes >= this.target.bytes);
      default:
        return [];
    }
  }

  /** What could be taken for the target in a list, among what answers. */
  alike(): RehearsalDrive[] {
    return this.answering().filter((d) => readsTheSame(this.setup.plan, d, this.target));
  }

  wake(): void {
    this.view = 'waking';
    this.beat = 0;
    this.inVain.clear();
    this.shown.clear();
    this.picked = null;
  }

  /** Is there something on it that this machine starts? */
  canStart(id: string): boolean {
    if (id === this.stick.id) return this.stickIn;
    if (!this.answering().some((d) => d.id === id)) return false;
    const now = this.now.get(id);
    const { starts } = this.drive(id);
    return now === 'new' || (now === 'as it was' && (starts.uefi !== null || starts.bios !== null));
  }

  private refused(id: string): boolean {
    if (!this.settings.secure) return false;
    // What was installed is signed as its installer is; what was there before started with these settings.
    return id === this.stick.id || this.now.get(id) === 'new' ? !this.stick.signed : false;
  }

  /** What may start, in the order of the firmware; what is in no order comes last. */
  tried(): string[] {
    const all = [...this.answering().map((d) => d.id), ...(this.stickIn ? [this.stick.id] : [])];
    const rank = (id: string): number => {
      const at = this.settings.order.indexOf(id);
      return at < 0 ? this.settings.order.length : at;
    };
    return all.sort((a, b) => rank(a) - rank(b));
  }

  /** Starts by the order. */
  startByOrder(tale: Tale): void {
    tale.takes(WAKING_MINUTES);
    for (const id of this.tried()) if (this.canStart(id) && this.start(id, tale)) return;
    this.view = 'nothing';
    tale.tell('nothing starts');
  }

  /** Starts one thing; false where Secure Boot refuses it. */
  start(id: string, tale: Tale): boolean {
    const { name } = this.drive(id);
    if (this.refused(id)) {
      tale.tell('refused', { name });
      return false;
    }
    if (id !== this.stick.id) {
      this.view = this.now.get(id) === 'new' ? 'new' : 'old';
      tale.tell(this.view === 'new' ? 'new starts' : 'old starts', { name, holds: this.holds(id) });
    } else if (this.setup.task === 'start once') {
      this.view = 'live';
      tale.tell('live starts', { name }, 'good');
    } else this.startInstaller(tale);
    return true;
  }

  /** Whether a drive is listed is up to the order in which drives answered this time. */
  private startInstaller(tale: Tale): void {
    const { plan } = this.setup;
    this.view = 'installer';
    this.beat = 0;
    this.list = shuffled(this.random, this.answering()).map((d) => d.id);
    this.picked = plan.installer.choice === 'preselects the first drive' ? (this.list[0] ?? null) : null;
    const again = this.now.get(this.target.id) === 'new';
    if (again) tale.slip('installer again', { name: this.stick.name });
    else tale.tell('installer starts');
  }

  /** Erases a drive: a loss where it holds what matters, or the system that was just made. */
  erase(id: string, tale: Tale): void {
    const d = this.drive(id);
    const holds = this.holds(id);
    const lost = { what: said('what it held', { name: d.name, holds }), bytes: d.bytes };
    const made = this.now.get(id) === 'new';
    this.now.set(id, 'broken');
    if (d.matters && d.role !== 'target')
      return tale.lose('erased', { name: d.name, holds }, lost.what, d.bytes);
    if (made && this.setup.task === 'put right')
      return tale.lose('erased the new one', { name: d.name }, said('an installed system', { name: d.name }));
    if (d.role !== 'target') tale.fault('erased another', { name: d.name, holds }, lost);
    else this.judgeLuck(tale);
    this.view = 'working';
    this.beat = 0;
    this.picked = id;
    tale.tell('writing', { name: d.name });
  }

  /** The right drive was hit: by knowing it, or by luck? */
  private judgeLuck(tale: Tale): void {
    const avoidable = this.rivals().filter((d) => d.unplug !== null || d.portOff);
    if (!asksPerson(this.setup.plan)) {
      const first = this.setup.plan.installer.choice === 'takes the first drive unasked';
      const count = (first ? this.rivals() : avoidable).length + 1;
      if (avoidable.length > 0) tale.fault('left to luck', { count });
    } else if (
      this.alike().length > 1 &&
      !this.shown.has(this.target.id) &&
      !this.setup.plan.installer.lists.includes('serial')
    )
      tale.fault('guessed', { count: this.alike().length });
  }

  /** What the new system, or the old one again, is worth: is all as it is meant to be? */
  judgeEnd(tale: Tale): void {
    const { task } = this.setup;
    const wanted = task === 'start once' ? this.startedOnce && this.view === 'old' : this.view === 'new';
    if (!wanted) return;
    if (task !== 'start once' && this.now.get(this.target.id) !== 'new') return;
    if (this.stickIn) {
      tale.slip('stick still in');
      return;
    }
    const out = this.inner.filter((d) => !this.inside.has(d.id));
    if (out.length > 0) {
      tale.tell('drives still out', { count: out.length });
      return;
    }
    if (this.settings.secure !== this.asItCame.secure)
      tale.fault('secure left off', {}, { what: said('its guard'), bytes: null });
    if (task === 'start once' && this.settings.order.join() !== this.asItCame.order.join())
      tale.fault('order left changed', {}, { what: said('an evening'), bytes: null });
    if (task === 'put right' && this.settings.order[0] === this.stick.id)
      tale.fault('stick first in the order');
    tale.reach(task === 'start once' ? 'all as before' : 'new system stands', { name: this.target.name });
  }
}
