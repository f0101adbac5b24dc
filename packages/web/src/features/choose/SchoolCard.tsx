import type { Purpose } from '@zb/core/model/profile';
import type { ReleaseCard } from '@zb/core/system/school';
import { judgedShort } from '@zb/core/words/fit/finding';
import { channelCase, supportWords, usualWords } from '@zb/core/words/fit/school';
import { VerdictMark } from '../../parts/Marks';

/** Long support, newest, development: each school's case, and what it means for this machine. */
export function SchoolCard({
  card,
  purpose,
  machine,
  onTake,
}: {
  card: ReleaseCard;
  purpose: Purpose;
  machine: string;
  onTake: (releaseId: string, variantId: string) => void;
}) {
  const release = card.releases.find((r) => r.taken)?.release.id ?? card.releases[0]?.release.id ?? '';
  const variant = card.variants.find((v) => v.taken)?.variant.id ?? card.variants[0]?.variant.id ?? '';
  return (
    <div className="school">
      <h3 className="h6">Which release? {usualWords(purpose)}</h3>
      <table className="t">
        <thead>
          <tr>
            <th scope="col">Release</th>
            <th scope="col">Its case</th>
            <th scope="col">On {machine}</th>
            <th scope="col">
              <span className="hidden-text">Take it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {card.releases.map((r) => (
            <tr key={r.release.id} className={r.taken ? 'here' : ''}>
              <th scope="row">
                {r.release.version}
                <span className="sub">{r.channel}</span>
              </th>
              <td>
                {channelCase(r.channel)}
                <span className="sub">{supportWords(r.release, r.supportDays)}</span>
              </td>
              <td>
                <VerdictMark verdict={r.judged.verdict} />
                <span className="sub">{r.judged.verdict === 'fits' ? '' : judgedShort(r.judged)}</span>
              </td>
              <td style={{ textAlign: 'right' }}>
                {r.taken ? (
                  <b>taken</b>
                ) : (
                  <button
                    type="button"
                    className="link"
                    aria-label={`Take release ${r.release.version}`}
                    onClick={() => onTake(r.release.id, variant)}
                  >
                    take
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {card.variants.length > 1 && (
        <p style={{ marginTop: 6 }}>
          <span className="h6">Variant</span>{' '}
          {card.variants.map((v) => (
            <span key={v.variant.id} style={{ marginRight: 14 }}>
              {v.taken ? (
                <b>{v.variant.name}</b>
              ) : (
                <button
                  type="button"
                  className="link"
                  aria-label={`Take the variant ${v.variant.name}`}
                  onClick={() => onTake(release, v.variant.id)}
                >
                  {v.variant.name}
                </button>
              )}{' '}
              <span className="soft">
                ({v.variant.drivers.join(' and ')} drivers, {v.judged.verdict})
              </span>
            </span>
          ))}
        </p>
      )}
    </div>
  );
}
