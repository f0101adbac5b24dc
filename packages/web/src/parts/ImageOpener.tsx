import { useRef, useState, type ReactNode } from 'react';
import { formatIec } from '@zb/core/units/bytes';
import { Primary, Quiet } from './Button';
import { useDepot, type DepotEntry } from './useImagePlace';

/** Opens a file by button, by drop, or from the stand-in depot. */
export function ImageOpener({
  onFile,
  onDepot,
  children,
}: {
  onFile: (file: File) => void;
  onDepot: (entry: DepotEntry, onProgress: (n: number) => void) => Promise<unknown>;
  children?: ReactNode;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const [fetched, setFetched] = useState<{ file: string; bytes: number } | null>(null);
  const [problem, setProblem] = useState('');
  const depot = useDepot();
  const take = async (entry: DepotEntry): Promise<void> => {
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
    <div
      className={over ? 'drop over stack' : 'drop stack'}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        const file = e.dataTransfer.files[0];
        if (file) onFile(file);
      }}
    >
      {children}
      <div className="actions">
        <Primary onClick={() => input.current?.click()}>Open an image file</Primary>
        <span className="soft">or drop it here. It stays on this machine; any size.</span>
        <input
          ref={input}
          type="file"
          className="hidden-text"
          aria-label="Image file"
          tabIndex={-1}
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = '';
            if (file) onFile(file);
          }}
        />
      </div>
      <h2 className="h6">Nothing at hand? The depot has small images that really start</h2>
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
                  onClick={() => void take(d)}
                  disabled={fetched !== null}
                  aria-label={`Fetch ${d.file}`}
                  paddingBlock="3px"
                >
                  Fetch
                </Quiet>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
