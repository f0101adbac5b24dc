import { knownFact } from '../model/known';
import { machinesOf, type Bench, type ShelfItem } from '../model/bench';
import { formatBoth, formatIec } from '../units/bytes';
import { formatMoney } from '../units/money';
import { factText } from './text';

/** One line that tells an item of the shelf from the next. */
export function itemSummary(item: ShelfItem): string {
  switch (item.kind) {
    case 'machine': {
      const level = knownFact(item, 'cpu.level');
      const cores = knownFact(item, 'cpu.cores');
      const memory = knownFact(item, 'memory.bytes');
      const mode = knownFact(item, 'firmware.mode');
      const arch = knownFact(item, 'cpu.arch');
      const cpu = arch
        ? factText('cpu.arch', arch.value) + (level ? ` ${String(level.value)}` : '')
        : undefined;
      const bits = [
        cpu,
        cores && `${String(cores.value)} ${cores.value === 1 ? 'core' : 'cores'}`,
        memory && formatIec(Number(memory.value)),
        mode && factText('firmware.mode', mode.value),
      ];
      return bits.filter(Boolean).join(' · ') || 'not surveyed yet';
    }
    case 'memory':
      return `${formatIec(item.bytes)} · ${item.type} ${item.form}`;
    case 'adapter':
      return `${item.from} → ${item.to}`;
    case 'image':
      return `${formatIec(item.bytes)} · ${item.inspection?.layout ?? 'not read'}`;
    default:
      return `${formatBoth(item.bytes)} · ${item.transport}`;
  }
}

/** Where an item is: in a machine, or loose; of a machine and an image, in which box. Who holds it is told by its claim. */
export function itemPlace(bench: Bench, item: ShelfItem): string {
  if ('owned' in item && !item.owned)
    return item.price === null
      ? 'to be bought'
      : `to be bought, ${formatMoney(item.price, bench.settings.currency)}`;
  if ('in' in item) {
    const machine = bench.items.find((i) => i.kind === 'machine' && i.id === item.in);
    return machine ? `in ${machine.name}` : 'loose';
  }
  const box = bench.boxes.find((b) => b.machineId === item.id || b.imageId === item.id);
  return box ? `in “${box.name}”` : 'free';
}

/** What the shelf amounts to. */
export function shelfHeadline(bench: Bench): string {
  const machines = machinesOf(bench).length;
  if (bench.items.length === 0) return 'What is on your shelf?';
  if (machines === 0) return 'No machine is on the shelf yet';
  return machines === 1
    ? 'One machine and what goes into it'
    : `${machines} machines and what goes into them`;
}
