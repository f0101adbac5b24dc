import type { FirmwareKind } from '../model/inspection';
import type { FactKey, FactValue } from '../model/facts';
import { knownFact } from '../model/known';
import type { Machine } from '../model/shelf';

/** The kind of firmware by its mode, word size and the processor's architecture; undefined where they do not tell. */
export function firmwareKindOf(fact: (key: FactKey) => FactValue | undefined): FirmwareKind | undefined {
  const mode = fact('firmware.mode');
  if (mode === 'bios' || mode === 'board') return mode;
  if (mode !== 'uefi') return undefined;
  const arch = fact('cpu.arch');
  const bits = fact('firmware.bits');
  if (arch === 'aarch64') return 'uefi-aa64';
  if (arch === 'i686' || String(bits) === '32') return 'uefi-ia32';
  return arch === 'x86_64' ? 'uefi-x64' : undefined;
}

/** The kind of its UEFI, whatever mode it is in now; that of 64 bits on x86 where nothing tells. */
export const uefiKindOf = (machine: Pick<Machine, 'facts'>): FirmwareKind =>
  firmwareKindOf((key) => (key === 'firmware.mode' ? 'uefi' : knownFact(machine, key)?.value)) ?? 'uefi-x64';

/** Whether the machine's Secure Boot is on; undefined where nobody has looked. */
export function secureBootOn(machine: Pick<Machine, 'facts'>): boolean | undefined {
  const state = knownFact(machine, 'firmware.secureBoot')?.value;
  return state === undefined ? undefined : state === 'on';
}

/** The outcome row that this machine's firmware would meet. */
export const firmwareOf = (machine: Pick<Machine, 'facts'>): FirmwareKind | undefined =>
  firmwareKindOf((key) => knownFact(machine, key)?.value);

const STARTS = {
  nvme: 'firmware.startsNvme',
  usb: 'firmware.startsUsb',
  mmc: 'firmware.startsCard',
} as const;

/** Buses that this machine's firmware does not start from, as far as somebody has said so. */
export const busesNotStarted = (machine: Pick<Machine, 'facts'>): (keyof typeof STARTS)[] =>
  (['nvme', 'usb', 'mmc'] as const).filter((bus) => knownFact(machine, STARTS[bus])?.value === false);
