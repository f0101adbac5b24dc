/** A packed file that cannot be unpacked: the sentence says what is wrong and what can be done. */
export class PackedFault extends Error {
  override readonly name = 'PackedFault';
}

export const DAMAGED =
  'The packed data is damaged or cut short. The file itself is unharmed; fetch it again.';

/** A packed file whose content does not end where the caller wanted it to. */
export class GrowsBeyond extends Error {
  override readonly name = 'GrowsBeyond';
  /** `limit` in bytes. */
  constructor(readonly limit: number) {
    super(`what is packed in it grows beyond ${limit} bytes`);
  }
}
