import { identityLines } from '@zb/core/words/identity';
import type { ImageReading } from '@zb/core/model/inspection';

/** What the image says of itself, each with the place where it says it. */
export function Identity({ identity }: { identity: ImageReading['identity'] }) {
  const lines = identity ? identityLines(identity) : [];
  if (lines.length === 0) return null;
  return (
    <section aria-label="What it says of itself">
      <h2 className="h6">What it says of itself</h2>
      <table className="t">
        <tbody>
          {lines.map((l) => (
            <tr key={`${l.title} ${l.value}`}>
              <th scope="row">{l.title}</th>
              <td style={{ overflowWrap: 'anywhere' }}>
                {l.value}
                <span className="sub">{l.from}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
