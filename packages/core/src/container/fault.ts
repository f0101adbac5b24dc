/** Why a packed file cannot be unpacked; words/packedFault.ts says it and what can be done. */
export type PackedFaultReason =
  /** Its data is damaged or ends early. */
  | { code: 'damaged' }
  /** An .xz file with a check or filter that is not read here. */
  | { code: 'xz check not read' }
  /** An archive with several images, by name. */
  | { code: 'several images'; names: string[] }
  /** An archive with so many files, none of them named like an image. */
  | { code: 'no image among them'; files: number }
  | { code: 'locked' }
  | { code: 'method not read' }
  /** What is inside lies so scattered that it cannot be read without unpacking all of it. */
  | { code: 'scattered' };

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
