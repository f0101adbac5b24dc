/**
 * A number that can say where it came from. Screens show the value and open the reasons on request.
 */
export interface Quantity<V = number> {
  value: V;
  unit: 'bytes' | 'seconds' | 'bytes/s' | 'count';
  because: string[];
}

/** A quantity by its parts. */
export const quantity = <V>(value: V, unit: Quantity['unit'], ...because: string[]): Quantity<V> => ({
  value,
  unit,
  because,
});
