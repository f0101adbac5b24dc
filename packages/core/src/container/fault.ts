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

/** A packed file whose content does not end where the caller wanted it to. */
export class GrowsBeyond extends Error {
  override readonly name = 'GrowsBeyond';
  /** `limit` in bytes. */
  constructor(readonly limit: number) {
    super(`what is packed in it grows beyond ${limit} bytes`);
  }
}
