import type { FileProblem } from '@zb/core/schema/file';

/** Where a bench file or a kept bench is wrong, and why; the first few, and how many more. */
export function FileProblems({ list, most }: { list: readonly FileProblem[]; most: number }) {
  if (list.length === 0) return null;
  return (
    <ul>
      {list.slice(0, most).map((p) => (
        <li key={p.path + p.why}>
          <span className="m">{p.path}</span>: {p.why}
        </li>
      ))}
      {list.length > most && <li>and {list.length - most} more</li>}
    </ul>
  );
}
