import { bordersOf, heightOf, type Border } from '@zb/core/layout/borders';
import type { LaidBox } from '@zb/core/layout/forBox';
import { strataAfter, stratumNow } from '@zb/core/layout/strata';
import { formatIec } from '@zb/core/units/bytes';
import { Columns, DriveColumn, type Handle } from '../../drawing/DriveColumn';

/** So many drives stand side by side. */
const MOST = 3;
/** A drive is never drawn shorter than this share of the largest. */
const SHORTEST = 0.2;

/** The drives that could take the system, as they are, and the one that does as it becomes; on one scale. */
export function BeforeAfter({
  laid,
  onBorder,
}: {
  laid: LaidBox;
  /** A border is moved to a size of the part before it; `set` once it is let go. */
  onBorder: (border: Border, bytes: number, set: boolean) => void;
}) {
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
        <DriveColumn
          title="Afterwards"
          strata={after}
          tall={tall(drive.bytes)}
          handles={bordersOf(laid).map((b): Handle => ({
            key: b.before,
            at: heightOf(b, after),
            label: `Border of ${b.names[0]} and ${b.names[1]}`,
            says: `${b.names[0]} ${formatIec(b.bytes)}`,
            now: b.bytes,
            least: b.least,
            most: b.most,
            step: b.step,
            perHeight: drive.bytes,
            onMove: (to) => onBorder(b, to, false),
            onSet: (to) => onBorder(b, to, true),
          }))}
        />
      )}
    </Columns>
  );
}
