import type { GuardedTarget } from '@zb/core/media/guard';
import { columnHeights } from '@zb/core/media/columns';
import { formatBoth, formatExact, formatIec } from '@zb/core/units/bytes';

function Column({
  title,
  parts,
}: {
  title: string;
  parts: { share: number; pattern: string; word: string }[];
}) {
  return (
    <figure className="column">
      <div className="body" aria-hidden="true">
        {parts.map((p) => (
          <div key={p.word} className={p.pattern} style={{ height: `${p.share * 100}%` }} />
        ))}
      </div>
      <figcaption>
        <b>{title}</b>
        <span className="sub">{parts.map((p) => p.word).join(', ')}</span>
      </figcaption>
    </figure>
  );
}

/** The stick before and after, as columns on one scale, with the words that say what becomes of it. */
export function BeforeAfter({
  guarded,
  imageBytes,
  imageName,
}: {
  guarded: GuardedTarget;
  imageBytes: number;
  imageName: string;
}) {
  const { target, known } = guarded;
  const heights = columnHeights(imageBytes, target.bytes);
  const holds = known ? known.holds || 'empty' : 'not known';
  return (
    <div style={{ display: 'flex', gap: 12 }}>
      <div
        className="scale"
        style={{
          height: 150,
          display: 'flex',
          flexDirection: 'column',
          justifyContent: 'space-between',
          textAlign: 'right',
        }}
      >
        <span className="nowrap">{formatIec(target.bytes)}</span>
        <span>0</span>
      </div>
      <div className="columns" style={{ alignItems: 'flex-start' }}>
        <Column
          title="Now"
          parts={[
            {
              share: 1,
              pattern: 'p-erased',
              word: known && known.holds === '' ? 'empty, overwritten' : `erased: ${holds}`,
            },
          ]}
        />
        <Column
          title="After"
          parts={[
            {
              share: heights.image,
              pattern: 'p-new',
              word: `new: ${imageName.length > 24 ? `${imageName.slice(0, 22)}…` : imageName}`,
            },
            { share: heights.rest, pattern: 'p-gap', word: `${formatIec(target.bytes - imageBytes)} free` },
          ]}
        />
      </div>
      <dl
        style={{
          fontSize: 13,
          display: 'grid',
          gridTemplateColumns: 'auto 1fr',
          gap: '3px 10px',
          alignContent: 'start',
        }}
      >
        <dt className="soft">Size</dt>
        <dd>
          <span className="nowrap">{formatBoth(target.bytes)}</span>
          <span className="sub m nowrap">{formatExact(target.bytes)}</span>
        </dd>
        <dt className="soft">Serial</dt>
        <dd className="m nowrap">
          {target.serial?.slice(0, -4)}
          <b style={{ fontSize: 16 }}>{guarded.tail}</b>
        </dd>
        <dt className="soft">Label</dt>
        <dd>{known?.label || 'none'}</dd>
        <dt className="soft">Port</dt>
        <dd>{target.port}</dd>
        <dt className="soft">On it</dt>
        <dd>{holds}</dd>
      </dl>
    </div>
  );
}
