import type { Store } from '@zb/core/model/bench';
import { contentTitle } from '@zb/core/model/content';
import { formatBoth } from '@zb/core/units/bytes';
import { Cell, Line, LineHead, Num, Ruled } from '../ui/Ruled';
import { To } from '../ui/To';
import { Soft } from '../ui/Words';

/** Drives, sticks and cards with what tells them apart. */
export const StoreTable = ({ stores, caption }: { stores: readonly Store[]; caption: string }) => (
  <Ruled stacked label={caption} heads={[caption, { words: 'Size', figure: true }, 'Serial', 'On it now']}>
    {stores.map((s) => (
      <Line key={s.id}>
        <LineHead whole>
          <To to={`/shelf/${s.id}`}>{s.name}</To>
        </LineHead>
        <Num>{formatBoth(s.bytes)}</Num>
        <Cell textStyle="data">{s.serial ?? '—'}</Cell>
        <Cell whole>
          {contentTitle(s) || <Soft>empty</Soft>} {s.fate !== 'may be lost' && <b>{s.fate}</b>}
        </Cell>
      </Line>
    ))}
  </Ruled>
);
