import { randomUUID } from 'node:crypto';
import type { StickFault, VirtualStick } from '@zb/core/model/standIns';
import { demoSticks } from '@zb/core/demo/sticks';
import { WriterRefusal } from './refusal';
import type { Plugged } from './types';

/** More than anybody has ports for; each could grow into a large file. */
const MOST_PLUGGED = 24;

const asStick = ({ id, bytes, serial, model, place }: Plugged): VirtualStick => ({
  id,
  bytes,
  serial,
  model,
  port: `hub, place ${place}`,
  link: 'usb2',
  bus: 'hub',
  writeRate: 20e6,
  readRate: 60e6,
  fault: {},
});

/** The virtual sticks that are plugged in: those of the demo and those put in by hand. Every id is one this server made. */
export class Sticks {
  private readonly all = new Map<string, VirtualStick>();
  private plugged: Plugged[];
  private readonly faults: Record<string, StickFault>;

  constructor(kept: { plugged: readonly Plugged[]; faults: Readonly<Record<string, StickFault>> }) {
    this.plugged = [...kept.plugged];
    this.faults = { ...kept.faults };
    for (const stick of demoSticks) this.all.set(stick.id, structuredClone(stick));
    for (const stick of this.plugged) this.all.set(stick.id, asStick(stick));
    for (const [id, fault] of Object.entries(this.faults)) {
      const stick = this.all.get(id);
      if (stick) stick.fault = fault;
    }
  }

  list(): VirtualStick[] {
    return [...this.all.values()];
  }

  get(id: string): VirtualStick | undefined {
    return this.all.get(id);
  }

  /** Throws WriterRefusal (404) for any id that no stick here has. */
  need(id: string): VirtualStick {
    const stick = this.all.get(id);
    if (!stick) throw new WriterRefusal('That stick is not plugged in any more. Nothing was changed.', 404);
    return stick;
  }

  plug(stick: { bytes: number; serial: string; model: string }): VirtualStick {
    if (this.plugged.length >= MOST_PLUGGED)
      throw new WriterRefusal(`No more than ${MOST_PLUGGED} sticks fit into the hub. Take one out first.`);
    const hub = this.list().filter((s) => s.bus === 'hub').length;
    const kept = { ...stick, id: randomUUID(), place: hub + 1 };
    this.plugged.push(kept);
    const full = asStick(kept);
    this.all.set(full.id, full);
    return full;
  }

  unplug(id: string): void {
    this.all.delete(id);
    this.plugged = this.plugged.filter((s) => s.id !== id);
    delete this.faults[id];
  }

  setFault(stick: VirtualStick, fault: StickFault): void {
    stick.fault = fault;
    this.faults[stick.id] = fault;
  }

  /** What is to be kept over a restart. */
  toKeep(): { plugged: readonly Plugged[]; faults: Readonly<Record<string, StickFault>> } {
    return { plugged: this.plugged, faults: this.faults };
  }
}
