import { Fragment } from 'react';
import { Link } from 'react-router';
import { updateBox } from '@zb/core/acts/box';
import { amount } from '@zb/core/words/money';
import type { GatherLine } from '@zb/core/gather/line';
import { gatherList } from '@zb/core/gather/list';
import { gatherHeadline, safetyWords, thingWords } from '@zb/core/words/gather';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Quiet } from '../../ui/Button';
import { useAct } from '../../storage/hooks';

/** Everything that must lie on the bench before this box is begun. */
function GatherPage({ context }: { context: BoxContext }) {
  const { bench, box, machine, profile } = context;
  const act = useAct();
  const list = gatherList(bench, box);
  const toggle = (line: GatherLine): void => {
    const has = box.gathered.includes(line.key);
    const gathered = has ? box.gathered.filter((k) => k !== line.key) : [...box.gathered, line.key];
    const { what } = thingWords(line.thing);
    void act(updateBox(box, { gathered }, has ? `${what} not on the bench` : `${what} lies on the bench`));
  };
  const mine = list.lines.filter((l) => l.where === 'on the shelf' && l.group === 'Parts that go in');
  const loose = mine.flatMap((l) => (l.itemId && !box.parts.includes(l.itemId) ? [l.itemId] : []));
  return (
    <BoxFrame
      context={context}
      stop="gather"
      headline={gatherHeadline(list, box)}
      acts={
        <>
          {loose.length > 0 && (
            <Quiet
              onClick={() =>
                void act(
                  updateBox(box, { parts: [...box.parts, ...loose] }, `Parts put aside for “${box.name}”`),
                )
              }
            >
              Put the parts aside
            </Quiet>
          )}
          <Quiet onClick={() => window.print()}>Print</Quiet>
          <Link className="link" to="/shopping">
            Shopping list
          </Link>
        </>
      }
    >
      {!machine || !profile ? (
        <p>
          What must be gathered follows from machine and system.{' '}
          <Link className="link" to={`/box/${box.id}/${machine ? 'choose' : 'survey'}`}>
            {machine ? 'Choose a system' : 'Go to the survey'}
          </Link>
          .
        </p>
      ) : (
        <div className="stack">
          <table className="t rows gather">
            <thead>
              <tr>
                <th scope="col">
                  <span className="hidden-text">On the bench</span>
                </th>
                <th scope="col">What</th>
                <th scope="col">Why</th>
                <th scope="col">Where</th>
              </tr>
            </thead>
            <tbody>
              {list.lines
                .map((l, i) => ({ l, i, words: thingWords(l.thing) }))
                .map(({ l, i, words }) => (
                  <Fragment key={l.key}>
                    {l.group !== list.lines[i - 1]?.group && (
                      <tr className="grouprow">
                        <td />
                        <th scope="rowgroup" colSpan={3} className="h6">
                          {l.group}
                        </th>
                      </tr>
                    )}
                    <tr className={box.gathered.includes(l.key) ? 'done' : ''}>
                      <td>
                        <input
                          type="checkbox"
                          aria-label={`${words.what} lies on the bench`}
                          checked={box.gathered.includes(l.key)}
                          onChange={() => toggle(l)}
                        />
                      </td>
                      <th scope="row">
                        {l.count > 1 && l.group === 'Parts that go in' ? `${l.count} × ` : ''}
                        {words.what}
                      </th>
                      <td className="soft">{words.why}</td>
                      <td className="nowrap">
                        {l.where === 'to buy' || l.where === 'in use elsewhere' ? <b>{l.where}</b> : l.where}
                        {l.price !== undefined && (
                          <span className="sub">
                            {l.price === null ? 'no price noted' : amount(bench, l.price * l.count)}
                          </span>
                        )}
                        {l.itemId && box.parts.includes(l.itemId) && <span className="sub">put aside</span>}
                      </td>
                    </tr>
                  </Fragment>
                ))}
            </tbody>
          </table>
          {list.safety.length > 0 && (
            <section aria-label="Where it can hurt">
              <h2 className="h6">Where it can hurt</h2>
              <ul className="safety">
                {list.safety.map((s) => (
                  <li key={s.key}>{safetyWords(s)}</li>
                ))}
              </ul>
            </section>
          )}
        </div>
      )}
    </BoxFrame>
  );
}

export default withBox(GatherPage);
