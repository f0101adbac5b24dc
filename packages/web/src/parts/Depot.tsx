import { useState } from 'react';
import { formatIec } from '@zb/core/units/bytes';
import { Quiet } from '../ui/Button';
import type { DepotFile } from '@zb/core/model/standIns';
import { useDepot } from './useImagePlace';

/** The stand-in depot: small images of the demo that really start. */
export function Depot({
  open,
  onDepot,
}: {
  /** Shown from the start; folded away where there is something else to look at. */
  open: boolean;
  onDepot: (entry: DepotFile, onProgress: (n: number) => void) => Promise<unknown>;
}) {
  const [fetched, setFetched] = useState<{ file: string; bytes: number } | null>(null);
  const [problem, setProblem] = useState('');
  const depot = useDepot();
  const fetchEntry = async (entry: DepotFile): Promise<void> => {
    setProblem('');
    setFetched({ file: entry.file, bytes: 0 });
    try {
      await onDepot(entry, (bytes) => setFetched({ file: entry.file, bytes }));
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      setFetched(null);
    }
  };
  return (
    <details className="why depot" open={open}>
      <summary>Nothing at hand? The depot has small images that really start</summary>
      {problem !== '' && (
        <p className="said said-stop" role="alert">
          {problem}
        </p>
      )}
      {depot.error && (
        <p className="said said-check" role="alert">
          {depot.error.message}{' '}
          <button type="button" className="link" onClick={() => void depot.refetch()}>
            Try again
          </button>
        </p>
      )}
      <table className="t">
        <tbody>
          {depot.data?.map((d) => (
            <tr key={d.file}>
              <th scope="row">
                {d.title}
                <span className="sub">{d.about}</span>
              </th>
              <td className="num">
                {fetched?.file === d.file
                  ? `${formatIec(fetched.bytes)} of ${formatIec(d.bytes)}`
                  : formatIec(d.bytes)}
              </td>
              <td style={{ width: 90, textAlign: 'right' }}>
                <Quiet
                  onClick={() => void fetchEntry(d)}
                  disabled={fetched !== null}
                  aria-label={`Fetch ${d.file}`}
                  size="sm"
                >
                  Fetch
                </Quiet>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
