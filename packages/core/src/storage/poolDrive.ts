import { linkOfStore, sataOfGeneration } from '../machine/links';
import { findMachine, type Bench } from '../model/bench';
import { knownFact } from '../model/known';
import type { Store } from '../model/shelf';
import type { PoolDrive } from '../model/storage';

/** What kinds of drives do, reckoned over the whole of them: common practice, no source. Bytes a second, watts. */
const USUAL = {
  turning: { read: [100e6, 160e6], write: [100e6, 160e6], watts: 5, exponent: 14 },
  'small turning': { read: [60e6, 110e6], write: [60e6, 110e6], watts: 2, exponent: 14 },
  flash: { read: [300e6, 520e6], write: [150e6, 450e6], watts: 1.5, exponent: 15 },
  'fast flash': { read: [1000e6, 3000e6], write: [400e6, 1500e6], watts: 3, exponent: 15 },
  stick: { read: [20e6, 100e6], write: [6e6, 30e6], watts: 0.5, exponent: 14 },
} as const;

/** Drives below this are taken for small ones where they turn and nobody said: 2.5 inch rarely holds more. */
const SMALL = 1e12;

type Kind = keyof typeof USUAL;

const kindOf = (d: PoolDrive): Kind =>
  d.removable
    ? 'stick'
    : d.rotational === true
      ? d.bytes < SMALL
        ? 'small turning'
        : 'turning'
      : d.rotational === null
        ? 'turning'
        : (d.linkRate ?? 0) > 1e9
          ? 'fast flash'
          : 'flash';

/** A range of rates, in bytes a second. */
export interface Rate {
  slow: number;
  fast: number;
}
/** What the slowest of several do. */
export const slowestOf = (rates: readonly Rate[]): Rate => ({
  slow: Math.min(...rates.map((r) => r.slow)),
  fast: Math.min(...rates.map((r) => r.fast)),
});

function rate(
  told: readonly [number, number] | null,
  usual: readonly [number, number],
  link: number | null,
): Rate {
  const [slow, fast] = told ?? usual;
  return link !== null && link < fast ? { slow: Math.min(slow, link), fast: link } : { slow, fast };
}

/** How fast a drive is read from end to end, never faster than its link. */
export const readRateOf = (d: PoolDrive): Rate => rate(d.readRate, USUAL[kindOf(d)].read, d.linkRate);
/** How fast it is written from end to end. */
export const writeRateOf = (d: PoolDrive): Rate => rate(d.writeRate, USUAL[kindOf(d)].write, d.linkRate);
/** Unreadable bits: one in ten to this power, as rated, or what drives of its kind are rated at least. */
export const exponentOf = (d: PoolDrive): { exponent: number; assumed: boolean } =>
  d.errorExponent === null
    ? { exponent: USUAL[kindOf(d)].exponent, assumed: true }
    : { exponent: d.errorExponent, assumed: false };
/** Watts while it is at rest but turning. */
export const wattsOf = (d: PoolDrive): { watts: number; assumed: boolean } =>
  d.watts === null ? { watts: USUAL[kindOf(d)].watts, assumed: true } : { watts: d.watts, assumed: false };

/** A drive of the shelf as a pool sees it: with what the last survey of its machine told of its health and its link. */
export function poolDriveOf(bench: Bench, store: Store): PoolDrive {
  const machine = findMachine(bench, store.in);
  const health =
    store.serial === null ? undefined : machine?.details?.health.find((h) => h.serial === store.serial);
  const generation = machine && knownFact(machine, 'ports.sataGeneration')?.value;
  const port = store.transport === 'sata' ? sataOfGeneration(generation) : undefined;
  const link = linkOfStore(store)?.bytesPerSecond ?? null;
  return {
    id: store.id,
    name: store.name,
    bytes: store.realBytes ?? store.bytes,
    serial: store.serial,
    model: store.model,
    rotational: store.rotational,
    sectorBytes: store.sectorBytes,
    errorExponent: store.errorExponent,
    readRate: null,
    writeRate: null,
    linkRate: port ? Math.min(port.bytesPerSecond, link ?? Infinity) : link,
    wear: store.wear ?? health?.wearPercent ?? null,
    shingled: store.shingled,
    hours: health?.hours ?? null,
    badSectors: health?.badSectors ?? null,
    price: store.owned ? null : store.price,
    watts: null,
    removable: store.kind !== 'drive',
  };
}
