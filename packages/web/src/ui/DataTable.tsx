import { Box, Checkbox as Tick, HStack, Menu, Portal, Table, Text } from '@chakra-ui/react';
import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type RowSelectionState,
  type SortingState,
  type VisibilityState,
} from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, Columns3, Copy } from 'lucide-react';
import { useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { Word } from './Button';
import { asCsv, stepIn, type Column } from './dataTable';
import { IconButton } from './IconButton';
import { Input } from './Input';

/** More rows than this are drawn only where they are seen. */
const MANY = 60;
const ROW = 33;

/**
 * A table: sorted by its heads, found in by words, columns chosen, walked by the keys of a grid, copied as CSV. Of very many
 * rows only those are drawn that are seen. `onSelect` makes rows choosable, several at once.
 */
export function DataTable<T extends { id: string }>({
  label,
  rows,
  columns,
  empty,
  tools = true,
  onOpen,
  onSelect,
}: {
  label: string;
  rows: readonly T[];
  columns: readonly Column<T>[];
  /** What stands where there are no rows at all. */
  empty: ReactNode;
  /** Finding, choosing columns and copying above it. */
  tools?: boolean;
  onOpen?: (row: T) => void;
  onSelect?: (rows: T[]) => void;
}) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const [words, setWords] = useState('');
  const [selected, setSelected] = useState<RowSelectionState>({});
  const [shown, setShown] = useState<VisibilityState>(() =>
    Object.fromEntries(columns.map((c) => [c.id, c.hidden !== true])),
  );
  const [at, setAt] = useState({ row: 0, column: 0 });
  const data = useMemo(() => [...rows], [rows]);
  const defs = useMemo(
    () =>
      columns.map((c): ColumnDef<T> => ({
        id: c.id,
        header: c.head,
        accessorFn: c.value,
        sortingFn: 'alphanumeric',
        sortUndefined: 'last',
      })),
    [columns],
  );
  // eslint-disable-next-line react-hooks/incompatible-library -- it keeps its own memo; nothing it returns outlives a render
  const table = useReactTable({
    data,
    columns: defs,
    getRowId: (r) => r.id,
    state: { sorting, globalFilter: words, columnVisibility: shown, rowSelection: selected },
    onSortingChange: setSorting,
    onGlobalFilterChange: setWords,
    onColumnVisibilityChange: setShown,
    globalFilterFn: 'includesString',
    enableRowSelection: onSelect !== undefined,
    onRowSelectionChange: (change) => {
      const next = typeof change === 'function' ? change(selected) : change;
      setSelected(next);
      onSelect?.(rows.filter((r) => next[r.id]));
    },
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const found = table.getRowModel().rows;
  const seen = columns.filter((c) => shown[c.id] === true);
  const holder = useRef<HTMLDivElement>(null);
  const many = found.length > MANY;
  const virtual = useVirtualizer({
    count: many ? found.length : 0,
    getScrollElement: () => holder.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  const drawn = many ? virtual.getVirtualItems().map((v) => v.index) : found.map((_, i) => i);
  const before = many ? (virtual.getVirtualItems()[0]?.start ?? 0) : 0;
  const after = many ? virtual.getTotalSize() - (virtual.getVirtualItems().at(-1)?.end ?? 0) : 0;

  if (rows.length === 0) return <>{empty}</>;

  const focus = (to: { row: number; column: number }): void => {
    setAt(to);
    if (many) virtual.scrollToIndex(to.row);
    // What is not drawn yet is there once it was scrolled to.
    requestAnimationFrame(() =>
      holder.current?.querySelector<HTMLElement>(`[data-at="${to.row}-${to.column}"]`)?.focus(),
    );
  };
  const walk = (e: KeyboardEvent): void => {
    const row = found[at.row]?.original;
    if (e.key === 'Enter' && row && onOpen) onOpen(row);
    else if (e.key === ' ' && onSelect) found[at.row]?.toggleSelected();
    else {
      const to = stepIn(e, at, { rows: found.length, columns: seen.length, page: 12 });
      if (!to) return;
      focus(to);
    }
    e.preventDefault();
    e.stopPropagation();
  };
  const chosen = found.filter((r) => r.getIsSelected()).length;
  return (
    <Box>
      {tools && (
        <HStack gap="3" align="flex-end" marginBottom="2" flexWrap="wrap">
          <Box flex="1">
            <Input
              label={`Find in ${label.toLowerCase()}`}
              value={words}
              onChange={(e) => setWords(e.target.value)}
            />
          </Box>
          <Text textStyle="small" role="status">
            {found.length === rows.length ? `${rows.length} in all` : `${found.length} of ${rows.length}`}
            {chosen > 0 ? `, ${chosen} chosen` : ''}
          </Text>
          <Menu.Root closeOnSelect={false}>
            <Menu.Trigger asChild>
              <Word>
                <Columns3 aria-hidden="true" /> Columns
              </Word>
            </Menu.Trigger>
            <Portal>
              <Menu.Positioner>
                <Menu.Content>
                  {columns.map((c) => (
                    <Menu.CheckboxItem
                      key={c.id}
                      value={c.id}
                      checked={shown[c.id] === true}
                      onCheckedChange={(on) => setShown({ ...shown, [c.id]: on })}
                    >
                      {c.head}
                      <Menu.ItemIndicator>✓</Menu.ItemIndicator>
                    </Menu.CheckboxItem>
                  ))}
                </Menu.Content>
              </Menu.Positioner>
            </Portal>
          </Menu.Root>
          <IconButton
            word="Copy as CSV"
            icon={<Copy />}
            onClick={() =>
              void navigator.clipboard.writeText(
                asCsv(
                  seen,
                  found.map((r) => r.original),
                ),
              )
            }
          />
        </HStack>
      )}
      <Box ref={holder} overflow="auto" maxHeight={many ? 'table' : 'none'} onKeyDown={walk}>
        <Table.Root role="grid" aria-label={label} aria-rowcount={found.length + 1} stickyHeader>
          <Table.Header>
            <Table.Row>
              {onSelect && (
                <Table.ColumnHeader width="touch">
                  <Box srOnly>Chosen</Box>
                </Table.ColumnHeader>
              )}
              {seen.map((c) => {
                const sorted = table.getColumn(c.id)?.getIsSorted();
                return (
                  <Table.ColumnHeader
                    key={c.id}
                    scope="col"
                    textAlign={c.figure ? 'end' : 'start'}
                    aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                  >
                    <Word
                      onClick={() => table.getColumn(c.id)?.toggleSorting()}
                      color="fg.muted"
                      paddingInline="0"
                    >
                      {c.head}
                      {sorted === 'asc' && <ArrowUp aria-hidden="true" />}
                      {sorted === 'desc' && <ArrowDown aria-hidden="true" />}
                    </Word>
                  </Table.ColumnHeader>
                );
              })}
            </Table.Row>
          </Table.Header>
          <Table.Body>
            {before > 0 && (
              <Table.Row aria-hidden="true">
                <Table.Cell css={{ height: `${before}px`, padding: 0, border: 0 }} />
              </Table.Row>
            )}
            {drawn.map((i) => {
              const row = found[i];
              if (!row) return null;
              return (
                <Table.Row
                  key={row.id}
                  aria-rowindex={i + 2}
                  {...(onSelect ? { 'aria-selected': row.getIsSelected() } : {})}
                >
                  {onSelect && (
                    <Table.Cell>
                      <Tick.Root
                        checked={row.getIsSelected()}
                        onCheckedChange={() => row.toggleSelected()}
                        aria-label={`Choose row ${i + 1}`}
                      >
                        <Tick.HiddenInput tabIndex={-1} aria-label={`Choose row ${i + 1}`} />
                        <Tick.Control>
                          <Tick.Indicator />
                        </Tick.Control>
                      </Tick.Root>
                    </Table.Cell>
                  )}
                  {seen.map((c, column) => (
                    <Table.Cell
                      key={c.id}
                      role="gridcell"
                      data-at={`${i}-${column}`}
                      tabIndex={at.row === i && at.column === column ? 0 : -1}
                      onFocus={() => setAt({ row: i, column })}
                      onDoubleClick={() => onOpen?.(row.original)}
                      textAlign={c.figure ? 'end' : 'start'}
                      {...(c.figure ? { textStyle: 'data' as const } : {})}
                    >
                      {c.cell ? c.cell(row.original) : c.value(row.original)}
                    </Table.Cell>
                  ))}
                </Table.Row>
              );
            })}
            {after > 0 && (
              <Table.Row aria-hidden="true">
                <Table.Cell css={{ height: `${after}px`, padding: 0, border: 0 }} />
              </Table.Row>
            )}
          </Table.Body>
        </Table.Root>
      </Box>
    </Box>
  );
}
