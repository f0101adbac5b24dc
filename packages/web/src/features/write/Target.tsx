import type { GuardedTarget } from '@zb/core/write/guard';
import { contentTitle, isBlank } from '@zb/core/model/content';
import { columnHeights } from '@zb/core/write/columns';
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

const Scale = ({ bytes }: { bytes: number }) => (
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
    <span className="nowrap">{formatIec(bytes)}</span>
    <span>0</span>
  </div>
);

const holdsOf = (guarded: GuardedTarget): string =>
  guarded.known ? contentTitle(guarded.known) || 'empty' : 'not known';

/** Image and free rest, as a column's parts from the bottom up. */
function filled(imageName: string, imageBytes: number, targetBytes: number) {
  const heights = columnHeights(imageBytes, targetBytes);
  const name = imageName.length > 24 ? `${imageName.slice(0, 22)}…` : imageName;
  return [
    { share: heights.image, pattern: 'p-new', word: `new: ${name}` },
    { share: heights.rest, pattern: 'p-gap', word: `${formatIec(targetBytes - imageBytes)} free` },
  ];
}

function Details({ guarded }: { guarded: GuardedTarget }) {
  const { target, known } = guarded;
  return (
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
      <dd>{holdsOf(guarded)}</dd>
    </dl>
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
  const erased = known && isBlank(known.content) ? 'empty, overwritten' : `erased: ${holdsOf(guarded)}`;
  return (
    <div style={{ display: 'flex', gap: 12 }}>
      <Scale bytes={target.bytes} />
      <div className="columns" style={{ alignItems: 'flex-start' }}>
        <Column title="Now" parts={[{ share: 1, pattern: 'p-erased', word: erased }]} />
        <Column title="After" parts={filled(imageName, imageBytes, target.bytes)} />
      </div>
      <Details guarded={guarded} />
    </div>
  );
}

/** A stick that holds the proven image, and what to do with it next. */
export function Written({
  guarded,
  image,
  steps,
  onAgain,
}: {
  guarded: GuardedTarget;
  image: { name: string; bytes: number };
  steps: readonly string[];
  onAgain: () => void;
}) {
  return (
    <div className="two wide-left">
      <div style={{ display: 'flex', gap: 12 }}>
        <Scale bytes={guarded.target.bytes} />
        <Column title="On it now" parts={filled(image.name, image.bytes, guarded.target.bytes)} />
        <Details guarded={guarded} />
      </div>
      <div>
        <h2 className="h6">What to do with it</h2>
        <ol className="steps">
          {steps.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ol>
        <button type="button" className="link" onClick={onAgain}>
          Write it once more
        </button>
      </div>
    </div>
  );
}
