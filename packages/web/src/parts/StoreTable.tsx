import { Link } from 'react-router';
import type { Store } from '@zb/core/model/bench';
import { contentTitle } from '@zb/core/model/content';
import { formatBoth } from '@zb/core/units/bytes';

/** Drives, sticks and cards with what tells them apart. */
export const StoreTable = ({ stores, caption }: { stores: readonly Store[]; caption: string }) => (
  <table className="t">
    <caption className="hidden-text">{caption}</caption>
    <thead>
      <tr>
        <th scope="col">{caption}</th>
        <th scope="col" className="num">
          Size
        </th>
        <th scope="col">Serial</th>
        <th scope="col">On it now</th>
      </tr>
    </thead>
    <tbody>
      {stores.map((s) => (
        <tr key={s.id}>
          <th scope="row">
            <Link className="link" to={`/shelf/${s.id}`}>
              {s.name}
            </Link>
          </th>
          <td className="num">{formatBoth(s.bytes)}</td>
          <td className="m">{s.serial ?? '—'}</td>
          <td>
            {contentTitle(s) || <span className="soft">empty</span>}{' '}
            {s.fate !== 'may be lost' && <b>{s.fate}</b>}
          </td>
        </tr>
      ))}
    </tbody>
  </table>
);
