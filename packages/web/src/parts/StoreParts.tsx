import type { Content } from '@zb/core/model/content';
import { formatIec } from '@zb/core/units/bytes';
import { Cell, Line, LineHead, Num, Ruled } from '../ui/Ruled';
import { Data, Soft } from '../ui/Words';

/** The parts on a drive, and what on it starts. */
export const StoreParts = ({ content }: { content: Content }) => (
  <Ruled label="Parts on it" heads={['Part', 'File system', { words: 'Size', figure: true }, 'Mounted at']}>
    {content.parts.map((p, i) => (
      <Line key={i}>
        <LineHead>{p.label ?? (p.name || i + 1)}</LineHead>
        <Cell>{p.filesystem ?? <Soft>none told</Soft>}</Cell>
        <Num>{p.bytes === null ? '—' : formatIec(p.bytes)}</Num>
        <Cell textStyle="data">{p.mount ?? '—'}</Cell>
      </Line>
    ))}
    {content.starts?.map((s) => (
      <Line key={s.by + s.title + s.path}>
        <LineHead>starts</LineHead>
        <Cell colSpan={3}>
          {s.title} <Data color="fg.muted">{s.path}</Data>
        </Cell>
      </Line>
    ))}
  </Ruled>
);
