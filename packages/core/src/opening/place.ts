import { m2Fits, slotsOf, slotText } from '../machine/slots';
import { drivesIn, type Bench, type Machine, type Store } from '../model/bench';
import { knownFact } from '../model/known';

/** Whether a drive goes into a machine, as far as lengths, keys and ports tell. */
export type PlaceVerdict =
  | { code: 'fits'; where: string }
  | { code: 'no slot takes it'; length: string; key: string; slots: string[] }
  | { code: 'ports are taken'; ports: number }
  | { code: 'does not fit the form'; form: Machine['form'] }
  | { code: 'look'; what: 'slots' | 'ports' | 'its length and key' };

/** 3.5-inch drives have no room in these. Common practice, no source. */
const SMALL: readonly Machine['form'][] = ['handheld', 'laptop', 'mini PC', 'board'];

/** Fit by length and keying once more, with the drive in hand (PCI Express M.2 Specification, type codes and keys). */
export function placeFor(bench: Bench, machine: Machine, drive: Store): PlaceVerdict {
  const fact = (key: 'ports.m2' | 'ports.sata'): unknown => knownFact(machine, key)?.value;
  // What is unplugged for a while comes back to its port.
  const staying = drivesIn(bench, machine.id).filter((d) => d.id !== drive.id);
  const onM2 = (d: Store): boolean => d.transport === 'nvme' || d.shape === 'M.2' || d.m2 !== null;
  if (onM2(drive)) {
    if (!drive.m2) return { code: 'look', what: 'its length and key' };
    const slots = slotsOf(fact('ports.m2'));
    if (slots.length === 0) return { code: 'look', what: 'slots' };
    const { m2 } = drive;
    const slot = slots.find((s) => m2Fits(m2, drive.transport === 'nvme' ? 'nvme' : 'sata', s));
    if (!slot)
      return { code: 'no slot takes it', length: m2.length, key: m2.key, slots: slots.map(slotText) };
    const taken = staying.filter(onM2).length;
    return taken >= slots.length
      ? { code: 'ports are taken', ports: slots.length }
      : { code: 'fits', where: slotText(slot) };
  }
  if (drive.shape === '3.5 inch' && SMALL.includes(machine.form))
    return { code: 'does not fit the form', form: machine.form };
  const ports = fact('ports.sata');
  if (typeof ports !== 'number') return { code: 'look', what: 'ports' };
  const taken = staying.filter((d) => !onM2(d)).length;
  return taken >= ports ? { code: 'ports are taken', ports } : { code: 'fits', where: 'SATA' };
}

/** Does a drive that is not in the machine go into it? Where no place takes it, it hangs beside it on an adapter. */
export function goesInside(bench: Bench, machine: Machine, drive: Store): boolean {
  if (drive.in === machine.id || drive.kind !== 'drive' || drive.transport === 'usb') return false;
  const { code } = placeFor(bench, machine, drive);
  return code === 'fits' || code === 'look';
}
