import { chakra, Table } from '@chakra-ui/react';
import { useRef, useState, type KeyboardEvent, type ReactNode } from 'react';

/** What one crossing shows and does; null where a side would meet itself. */
export interface CrossCell {
  key: string;
  /** Which crossing it is, for those who hear the page. */
  label: string;
  body: ReactNode;
  /** It asks to be looked at. */
  marked?: boolean;
}

const STEP: Record<string, readonly [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** Sides against sides, every crossing one press; arrows go from one to the next, Enter opens it. */
export function CrossGrid({
  label,
  corner,
  columns,
  rows,
  onOpen,
}: {
  label: string;
  corner: string;
  columns: readonly ReactNode[];
  rows: readonly { key: string; head: ReactNode; cells: readonly (CrossCell | null)[] }[];
  onOpen: (key: string) => void;
}) {
  const [at, setAt] = useState<readonly [number, number] | null>(null);
  const cells = useRef(new Map<string, HTMLElement>());
  const first = rows.flatMap((r, i) => r.cells.flatMap((c, j) => (c ? [[i, j] as const] : [])))[0];
  const here = at ?? first;
  const move = (event: KeyboardEvent, i: number, j: number): void => {
    const step = STEP[event.key];
    if (!step) return;
    event.preventDefault();
    let [r, c] = [i + step[0], j + step[1]];
    // A side does not meet itself: its own crossing is stepped over.
    while (rows[r] && rows[r]?.cells[c] === null) [r, c] = [r + step[0], c + step[1]];
    const to = rows[r]?.cells[c];
    if (!to) return;
    setAt([r, c]);
    cells.current.get(to.key)?.focus();
  };
  return (
    <Table.ScrollArea maxWidth="full">
      <Table.Root
        aria-label={label}
        css={{ tableLayout: 'fixed', minWidth: `${columns.length * 116 + 104}px` }}
      >
        <Table.Header>
          <Table.Row>
            <Table.ColumnHeader scope="col" css={{ width: '104px' }}>
              {corner}
            </Table.ColumnHeader>
            {columns.map((c, i) => (
              <Table.ColumnHeader key={i} scope="col">
                {c}
              </Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {rows.map((row, i) => (
            <Table.Row key={row.key}>
              <Table.ColumnHeader
                as="th"
                scope="row"
                color="fg"
                border="thin"
                verticalAlign="top"
                padding="2"
              >
                {row.head}
              </Table.ColumnHeader>
              {row.cells.map((cell, j) =>
                cell === null ? (
                  <Table.Cell key={j} bg="bg.margin" />
                ) : (
                  <Table.Cell key={j} padding="0" border="thin" verticalAlign="top" css={{ height: '1px' }}>
                    <chakra.button
                      type="button"
                      tabIndex={here?.[0] === i && here[1] === j ? 0 : -1}
                      ref={(el: HTMLElement | null) => {
                        if (el) cells.current.set(cell.key, el);
                        else cells.current.delete(cell.key);
                      }}
                      onFocus={() => setAt([i, j])}
                      onKeyDown={(e) => move(e, i, j)}
                      onClick={() => onOpen(cell.key)}
                      display="block"
                      width="full"
                      height="full"
                      textAlign="start"
                      padding="2"
                      {...(cell.marked ? { bg: 'stop.wash' as const } : {})}
                      _hover={{ bg: 'work.wash' }}
                      css={{ minHeight: '48px', cursor: 'pointer', whiteSpace: 'normal' }}
                    >
                      <chakra.span srOnly>{cell.label} </chakra.span>
                      {cell.body}
                    </chakra.button>
                  </Table.Cell>
                ),
              )}
            </Table.Row>
          ))}
        </Table.Body>
      </Table.Root>
    </Table.ScrollArea>
  );
}
