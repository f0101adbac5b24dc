import type { PackedFaultReason } from '../model/imageFinding';

/** A packed file that cannot be unpacked. */
export class PackedFault extends Error {
  override readonly name = 'PackedFault';
  constructor(readonly reason: PackedFaultReason) {
    super(reason.code);
  }
}

/** The packed data is damaged or cut short. */
export const damaged = (): PackedFault => new PackedFault({ code: 'damaged' });

/** The packed file itself could not be read: the medium or the connection failed, and nothing is said of its bytes. */
export class UnreadableSource extends Error {
  override readonly name = 'UnreadableSource';
  constructor(override readonly cause: unknown) {
    super(cause instanceof Error ? cause.message : String(cause));
  }
}

/** What a failed unpacking is: damage of the packed data, unless its medium failed under it. */
export const faultOf = (error: unknown): Error =>
  error instanceof UnreadableSource || error instanceof PackedFault ? error : damaged();

/** A packed file whose content does not end where the caller wanted it to. */
export class GrowsBeyond extends Error {
  override readonly name = 'GrowsBeyond';
  /** `limit` in bytes. */
  constructor(readonly limit: number) {
    super(`what is packed in it grows beyond ${limit} bytes`);
  }
}
