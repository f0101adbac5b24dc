import { useSyncExternalStore } from 'react';
import type { ImageRegion } from '@zb/core/image/types';
import { readableHeights } from '@zb/core/image/heights';
import { formatExact, formatIec } from '@zb/core/units/bytes';

/** Pixels that headline, foot and route take beside the section. */
const ROOM_BESIDE = 430;
const onResize = (tell: () => void): (() => void) => {
  window.addEventListener('resize', tell);
  return () => window.removeEventListener('resize', tell);
};

/** The parts of an image by offset, as a tall section on a readable scale; each part tells its exact place. */
export function Anatomy({ regions }: { regions: ImageRegion[] }) {
  // A tall screen gets a tall section: the picture is the point of the sheet.
  const height = useSyncExternalStore(onResize, () => Math.max(384, window.innerHeight - ROOM_BESIDE));
  const heights = readableHeights(regions, height);
  const end = regions[regions.length - 1];
  return (
    <div>
      <div className="anat" role="list" aria-label="Parts of the image by offset">
        {regions.map((r, i) => (
          <div key={r.start} role="listitem" style={{ display: 'contents' }}>
            <div className="o">
              {r.start === 0 ? '0' : r.start < 1024 ? `${r.start} B` : formatIec(r.start)}
            </div>
            <div
              className={`s p-${r.kind}${i === 0 ? ' first' : ''}${r.starts ? ' starts' : ''}`}
              style={{ minHeight: heights[i] }}
            />
            <div
              className="l"
              tabIndex={0}
              title={`${formatExact(r.start)} to ${formatExact(r.start + r.bytes)}`}
            >
              <b>{r.title}</b> <span className="m soft">{formatIec(r.bytes)}</span>
              <span className="sub">{r.detail}</span>
            </div>
          </div>
        ))}
        <div className="o end">{end ? formatIec(end.start + end.bytes) : ''}</div>
      </div>
    </div>
  );
}
