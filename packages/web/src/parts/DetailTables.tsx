import type { Machine } from '@zb/core/model/bench';
import { noDetails } from '@zb/core/model/details';
import { detailTables } from '@zb/core/machine/tables';
import { Grade } from './Marks';

/** The parts lists of the last survey, each as a small table. */
export function DetailTables({ machine }: { machine: Machine }) {
  const tables = detailTables(machine.details ?? noDetails(), machine.networkPorts);
  if (tables.length === 0) return null;
  return (
    <div className="facts">
      {tables.map((t) => (
        <section className="factgroup" key={t.title}>
          <h2 className="h6">{t.title}</h2>
          {t.lines.map((l) => (
            <div className="fact" key={l.what + l.is}>
              <span className="value m">{l.what}</span>
              <span className="value" style={{ gridColumn: '2 / 4' }}>
                {l.grade && (
                  <>
                    <Grade grade={l.grade} />{' '}
                  </>
                )}
                {l.is}
              </span>
            </div>
          ))}
        </section>
      ))}
    </div>
  );
}
