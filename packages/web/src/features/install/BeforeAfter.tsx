import type { LaidBox } from '@zb/core/layout/forBox';
import { strataAfter, stratumNow } from '@zb/core/layout/strata';
import { Columns, DriveColumn } from '../../drawing/DriveColumn';

/** So many drives stand side by side. */
const MOST = 3;
/** A drive is never drawn shorter than this share of the largest. */
const SHORTEST = 0.2;

/** The drives that could take the system, as they are, and the one that does as it becomes; on one scale. */
export function BeforeAfter({ laid }: { laid: LaidBox }) {
  const { drive, drives } = laid;
  // Once one is chosen, the other loose ones have nothing to do with it.
  const near = drive ? drives.filter((d) => d.in !== null || d === drive) : drives;
  const seen = near.slice(0, MOST);
  if (seen.length === 0) return null;
  const largest = Math.max(...seen.map((d) => d.bytes));
  const tall = (bytes: number): number => Math.max(SHORTEST, bytes / largest);
  const after = strataAfter(laid);
  return (
    <Columns bytes={largest}>
      {seen.map((d) => (
        <DriveColumn
          key={d.id}
          title={d.name}
          strata={[stratumNow(d, laid)]}
          tall={tall(d.bytes)}
          outside={d.in === null}
        />
      ))}
      {drive && after.length > 0 && (
        <DriveColumn title="Afterwards" strata={after} tall={tall(drive.bytes)} />
      )}
    </Columns>
  );
}
