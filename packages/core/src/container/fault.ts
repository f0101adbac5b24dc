/** A packed file that cannot be unpacked: the sentence says what is wrong and what can be done. */
export class PackedFault extends Error {
  override readonly name = 'PackedFault';
}

export const DAMAGED =
  'The packed data is damaged or cut short. The file itself is unharmed; fetch it again.';
