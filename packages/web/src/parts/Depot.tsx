import { useState } from 'react';
import { formatIec } from '@zb/core/units/bytes';
import { Quiet, Word } from '../ui/Button';
import { Fold } from '../ui/Fold';
import { Cell, Line, LineHead, Num, Ruled } from '../ui/Ruled';
import { Said } from '../ui/Said';
import { Sub } from '../ui/Words';
import { Working } from '../ui/Working';
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
    <Fold title="Nothing at hand? The depot has small images that really start" open={open}>
      {problem !== '' && <Said kind="stop">{problem}</Said>}
      {depot.error && (
        <Said kind="check" loud>
          {depot.error.message} <Word onClick={() => void depot.refetch()}>Try again</Word>
        </Said>
      )}
      <Ruled label="Images of the depot">
        {depot.data?.map((d) => (
          <Line key={d.file}>
            <LineHead>
              {d.title}
              <Sub>{d.about}</Sub>
              {fetched?.file === d.file && <Working label="Fetching" done={fetched.bytes} whole={d.bytes} />}
            </LineHead>
            <Num>{formatIec(d.bytes)}</Num>
            <Cell textAlign="end">
              <Quiet
                onClick={() => void fetchEntry(d)}
                disabled={fetched !== null}
                aria-label={`Fetch ${d.file}`}
                size="sm"
              >
                Fetch
              </Quiet>
            </Cell>
          </Line>
        ))}
      </Ruled>
    </Fold>
  );
}
