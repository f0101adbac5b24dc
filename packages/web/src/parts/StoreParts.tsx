import type { Content } from '@zb/core/model/content';
import { formatIec } from '@zb/core/units/bytes';

/** The parts on a drive, and what on it starts. */
export const StoreParts = ({ content }: { content: Content }) => (
  <table className="t">
    <thead>
      <tr>
        <th scope="col">Part</th>
        <th scope="col">File system</th>
        <th scope="col" className="num">
          Size
        </th>
        <th scope="col">Mounted at</th>
      </tr>
    </thead>
    <tbody>
      {content.parts.map((p, i) => (
        <tr key={i}>
          <th scope="row">{p.label ?? (p.name || i + 1)}</th>
          <td>{p.filesystem ?? <span className="soft">none told</span>}</td>
          <td className="num">{p.bytes === null ? '—' : formatIec(p.bytes)}</td>
          <td className="m">{p.mount ?? '—'}</td>
        </tr>
      ))}
      {content.starts?.map((s) => (
        <tr key={s.by + s.title + s.path}>
          <th scope="row">starts</th>
          <td colSpan={3}>
            {s.title} <span className="m soft">{s.path}</span>
          </td>
        </tr>
      ))}
    </tbody>
  </table>
);
