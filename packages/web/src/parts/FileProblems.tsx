import { List } from '@chakra-ui/react';
import type { FileProblem } from '@zb/core/model/problems';
import { Data } from '../ui/Words';

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
    <List.Root>
      {list.slice(0, most).map((p) => (
        <List.Item key={p.path + p.why}>
          <Data>{p.path}</Data>: {p.why}
        </List.Item>
      ))}
      {count > most && <List.Item>and {count - most} more</List.Item>}
    </List.Root>
  );
}
