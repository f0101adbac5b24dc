import { formatExact, formatIec, formatSi } from '../units/bytes';

/** Why a stick's printed size and the size a system shows differ, told by its own figures. */
export const unitsExplained = (bytes: number): { title: string; text: string } => ({
  title: `Why ${formatSi(bytes)} is ${formatIec(bytes)}`,
  text: `Both are the same ${formatExact(bytes)}. Makers count in thousands (1 GB = 1000 × 1000 × 1000 bytes), most systems in 1024s (1 GiB = 1024 × 1024 × 1024). Nothing is missing. Whether an image fits is decided by bytes alone.`,
});
