import type { FileProblem } from '@zb/core/model/file';

/** Where a bench file or a kept bench is wrong, and why; the first few, and how many more. */
export function FileProblems({
  list,
  most,
  count = list.length,
}: {
  list: readonly FileProblem[];
  most: number;
  /** How many there are, where only the first are in the list. */
  count?: number;
}) {
  if (list.length === 0) return null;
  return (
    <ul>
      {list.slice(0, most).map((p) => (
        <li key={p.path + p.why}>
          <span className="m">{p.path}</span>: {p.why}
        </li>
      ))}
      {count > most && <li>and {count - most} more</li>}
    </ul>
  );
}
