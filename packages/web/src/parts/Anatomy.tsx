import { loaderFaultWords } from '@zb/core/words/start';
import { useEffect, useRef, useState, useSyncExternalStore, type KeyboardEvent } from 'react';
import type { ImageReading, ImageRegion } from '@zb/core/model/inspection';
import { readableHeights } from '@zb/core/image/heights';
import { hexLines, loadersIn, trueScale, type LoaderMark } from '@zb/core/image/section';
import { formatExact, formatIec } from '@zb/core/units/bytes';

/** Pixels that headline, foot and route take beside the section. */
const ROOM_BESIDE = 430;
const onResize = (tell: () => void): (() => void) => {
  window.addEventListener('resize', tell);
  return () => window.removeEventListener('resize', tell);
};
const place = (bytes: number): string => (bytes === 0 ? '0' : bytes < 1024 ? `${bytes} B` : formatIec(bytes));

function LoaderLine({ mark }: { mark: LoaderMark }) {
  const { loader, secure } = mark;
  return (
    <span className="sub">
      <span className="m">{loader.path}</span> {loader.machine ?? 'not a loader'},{' '}
      {loader.fault ? loaderFaultWords(loader.fault) : loader.signed ? 'signed' : 'not signed'}
      {secure && ` · Secure Boot ${secure}`}
    </span>
  );
}

/** What a stretch holds, field by field, and its first bytes. */
function Stretch({ region }: { region: ImageRegion }) {
  const box = useRef<HTMLDivElement>(null);
  // It opens below a tall picture, so it is brought into view.
  useEffect(() => box.current?.scrollIntoView({ block: 'nearest' }), []);
  return (
    <div ref={box} className="stretch" role="region" aria-label={`Fields and bytes of ${region.title}`}>
      <p>
        <b>{region.title}</b>, {formatExact(region.start)} to {formatExact(region.start + region.bytes)}
      </p>
      {region.fields.length > 0 && (
        <dl>
          {region.fields.map((f) => (
            <div key={`${f.offset} ${f.name}`}>
              <dt>{f.name}</dt>
              <dd title={`byte ${f.offset}`}>{f.value}</dd>
            </div>
          ))}
        </dl>
      )}
      {region.hex !== '' && (
        <table className="hex">
          <caption className="hidden-text">First bytes of {region.title}</caption>
          <tbody>
            {hexLines(region.hex, region.start).map((l) => (
              <tr key={l.offset}>
                <th scope="row">{l.offset.toString(16).padStart(8, '0')}</th>
                <td>{l.hex}</td>
                <td aria-hidden="true">{l.text}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

/**
 * The image as a tall section with its parts by offset: a slim strip on the true scale, and beside it the same on a
 * scale that can be read. Arrow keys walk from part to part; Enter opens a part's fields and bytes.
 */
export function Anatomy({ reading }: { reading: ImageReading }) {
  const { regions } = reading;
  // A tall screen gets a tall section: the picture is the point of the sheet.
  const height = useSyncExternalStore(onResize, () => Math.max(384, window.innerHeight - ROOM_BESIDE));
  const [at, setAt] = useState(0);
  const [open, setOpen] = useState<number | null>(null);
  const labels = useRef<(HTMLButtonElement | null)[]>([]);
  const heights = readableHeights(regions, height);
  const strip = trueScale(regions);
  const end = regions[regions.length - 1];
  const shown = open === null ? undefined : regions[open];
  const walk = (e: KeyboardEvent): void => {
    const last = regions.length - 1;
    const to = { ArrowDown: Math.min(last, at + 1), ArrowUp: Math.max(0, at - 1), Home: 0, End: last }[e.key];
    if (to === undefined) return;
    e.preventDefault();
    setAt(to);
    labels.current[to]?.focus();
  };
  return (
    <div className="anatomy">
      <div className="strip" aria-hidden="true" title="True to scale">
        {regions.map((r, i) => (
          <i
            key={r.start}
            className={`p-${r.kind}${r.starts ? ' starts' : ''}${i === at ? ' at' : ''}`}
            style={{ top: `${(strip[i]?.top ?? 0) * 100}%`, height: `${(strip[i]?.height ?? 0) * 100}%` }}
          />
        ))}
      </div>
      <div className="anat" role="list" aria-label="Parts of the image by offset" onKeyDown={walk}>
        {regions.map((r, i) => {
          const marks = loadersIn(reading, r);
          return (
            <div key={r.start} role="listitem" style={{ display: 'contents' }}>
              <div className="o">{place(r.start)}</div>
              <div
                className={`s p-${r.kind}${i === 0 ? ' first' : ''}${r.starts ? ' starts' : ''}${i === at ? ' at' : ''}`}
                style={{ minHeight: heights[i] }}
              >
                {marks.map((m) => (
                  <i
                    key={m.loader.path}
                    className="loader"
                    style={{ top: `${m.at * 100}%` }}
                    title={m.loader.path}
                  />
                ))}
              </div>
              <div className="l">
                <button
                  type="button"
                  ref={(el) => void (labels.current[i] = el)}
                  tabIndex={i === at ? 0 : -1}
                  aria-expanded={open === i}
                  onFocus={() => setAt(i)}
                  onClick={() => setOpen(open === i ? null : i)}
                >
                  <b>{r.title}</b> <span className="m soft">{formatIec(r.bytes)}</span>
                  <span className="sub">{r.detail}</span>
                </button>
                {marks.slice(0, 3).map((m) => (
                  <LoaderLine key={m.loader.path} mark={m} />
                ))}
                {marks.length > 3 && <span className="sub">and {marks.length - 3} more loaders</span>}
              </div>
            </div>
          );
        })}
        <div className="o end">{end ? formatIec(end.start + end.bytes) : ''}</div>
      </div>
      {shown && <Stretch key={shown.start} region={shown} />}
      <p className="sub hint">
        Slim strip: true to scale. Beside it the same, so that it can be read. ↑ ↓ walk, Enter opens.
      </p>
    </div>
  );
}
