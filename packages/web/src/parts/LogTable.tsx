import { useMemo } from 'react';
import { Link } from 'react-router';
import { findPhoto, type Bench, type LogEntry } from '@zb/core/model/bench';
import { stopTitle } from '@zb/core/model/stops';
import { formatMoment } from '@zb/core/units/date';
import { formatDuration, formatSpan } from '@zb/core/units/duration';
import { useBench } from '../storage/hooks';
import { Room } from './Room';
import { useSeenRows } from './useSeenRows';

function LogPhoto({ id, what }: { id: string | null; what: string }) {
  const photo = findPhoto(useBench(), id);
  return photo ? (
    <img className="photo" src={photo.data} alt={what} />
  ) : (
    <span className="sub">the photo is gone</span>
  );
}

/** The log, newest first; predictions stand beside what was measured. */
export function LogTable({ entries, bench }: { entries: readonly LogEntry[]; bench?: Bench }) {
  const sorted = useMemo(() => [...entries].sort((a, b) => (a.at < b.at ? 1 : -1)), [entries]);
  const boxes = useMemo(() => new Map(bench?.boxes.map((b) => [b.id, b])), [bench?.boxes]);
  const { holder, measure, seen, before, after } = useSeenRows(sorted.length, 38);
  if (sorted.length === 0)
    return <p className="soft">Nothing yet. Lines arise by themselves as you work; add your own above.</p>;
  return (
    <div className="scroll-x">
      <table className="t rows" aria-rowcount={sorted.length + 1}>
        <thead>
          <tr>
            <th scope="col">When</th>
            {bench && <th scope="col">Box</th>}
            <th scope="col">Stop</th>
            <th scope="col">What happened</th>
            <th scope="col" className="num">
              Foretold
            </th>
            <th scope="col" className="num">
              Took
            </th>
          </tr>
        </thead>
        <tbody ref={holder}>
          <Room height={before} />
          {seen.map((at) => {
            const e = sorted[at];
            if (!e) return null;
            const box = e.boxId === null ? undefined : boxes.get(e.boxId);
            return (
              <tr key={e.id} ref={measure} data-index={at} aria-rowindex={at + 2}>
                <td className="m nowrap soft">{formatMoment(e.at)}</td>
                {bench && (
                  <td>
                    {box ? (
                      <Link className="link" to={`/box/${box.id}/keep`}>
                        {box.name}
                      </Link>
                    ) : (
                      <span className="soft">bench</span>
                    )}
                  </td>
                )}
                <td className="nowrap">{e.stop ? stopTitle[e.stop] : '—'}</td>
                <td className="whole" style={{ overflowWrap: 'anywhere' }}>
                  {e.text}
                  {e.kind === 'setting' && (
                    <>
                      : <span className="m">{e.from}</span> → <span className="m">{e.to}</span>
                    </>
                  )}
                  {e.kind === 'photo' && <LogPhoto id={e.photoId} what={e.text} />}
                </td>
                <td className="num said-in-text">
                  {e.kind === 'write' && e.predicted ? formatSpan(e.predicted) : ''}
                </td>
                <td className="num said-in-text">
                  {(e.kind === 'write' || e.kind === 'hash') && e.seconds > 0
                    ? formatDuration(e.seconds)
                    : ''}
                </td>
              </tr>
            );
          })}
          <Room height={after} />
        </tbody>
      </table>
    </div>
  );
}
