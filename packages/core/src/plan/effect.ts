import type { FactKey, FactValue } from '../model/facts';

/**
 * What an operation changes about the hardware, as data. The act that does the operation and the plan that foretells it apply
 * the same effects to the shelf, so that they cannot differ. Items and media by their ids.
 */
export type Effect =
  /** Puts an item into a machine, or takes it out (`to` null). The plan goes on knowing where it had been. */
  | { code: 'move'; item: string; to: string | null }
  /** Puts an item back to where it had been before the plan moved it. */
  | { code: 'move back'; item: string; to: string | null }
  /** An image lies byte for byte over the whole medium. `system`: it is the final drive of the build, and holds its system. `image` null: the bench does not have it. */
  | { code: 'write image'; medium: string; image: string | null; system: boolean }
  /** The system of the build is on the medium. */
  | { code: 'install'; medium: string }
  | { code: 'erase'; medium: string }
  /** The medium is part of the build's pool. */
  | { code: 'make pool'; medium: string }
  /** The medium is a chain loader, and stays in its machine. */
  | { code: 'make chain loader'; medium: string }
  | { code: 'set fact'; fact: FactKey; value: FactValue }
  /** Puts a medium before all others in the boot order; null: the order is as it was surveyed. */
  | { code: 'boot first'; medium: string | null }
  /** The firmware trusts what is signed by the key of this system (UEFI 2.10 §32.5). */
  | { code: 'enrol key'; system: string }
  | { code: 'switch port'; medium: string; on: boolean };
