import { useParams } from 'react-router';
import { logOf } from '@zb/core/model/bench';
import { stopSchema } from '@zb/core/model/stops';
import { outlookOf } from '@zb/core/box/summary';
import NotFound from '../../parts/NotFound';
import { BoxFrame, useBoxContext } from '../../parts/BoxFrame';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { LogTable } from '../../parts/LogTable';

/** A stop whose own screen is still to come: one honest sentence, what is known, and the log. */
export default function StopPage() {
  const { stop: named } = useParams();
  const context = useBoxContext();
  const stop = stopSchema.safeParse(named);
  if (!context) return <NotFound what="This box is not on the bench" />;
  if (!stop.success) return <NotFound what="A box has no such stop" />;
  const outlook = outlookOf(context.bench, context.box, stop.data);
  return (
    <BoxFrame context={context} stop={stop.data} headline={outlook.headline}>
      <div className="stack">
        <p className="said">{outlook.later}</p>
        {outlook.known.length > 0 && (
          <table className="t">
            <thead>
              <tr>
                <th scope="col" style={{ width: 190 }}>
                  Known already
                </th>
                <th scope="col" />
              </tr>
            </thead>
            <tbody>
              {outlook.known.map((k) => (
                <tr key={k.what + k.is}>
                  <th scope="row" style={{ fontWeight: 500 }}>
                    {k.what}
                  </th>
                  <td>{k.is}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <LogEntryForm box={context.box} stop={stop.data} />
        <LogTable entries={logOf(context.bench, context.box.id).filter((e) => e.stop === stop.data)} />
      </div>
    </BoxFrame>
  );
}
