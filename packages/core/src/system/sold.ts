/** Sizes in which sticks and drives are sold, bytes. Common practice, no source. */
const SOLD = [4e9, 8e9, 16e9, 32e9, 64e9, 128e9, 256e9, 512e9, 1e12, 2e12, 4e12] as const;
/** A stick of a size holds a little less than that: common practice, no source. */
const LEAST_OF_SOLD = 0.98;

/** The smallest size that is sold and holds so many bytes; beyond the largest the bytes themselves. */
export const soldAs = (bytes: number): number => SOLD.find((s) => s * LEAST_OF_SOLD >= bytes) ?? bytes;
