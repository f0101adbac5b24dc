import { Box, Checkbox as Tick, chakra, HStack, Menu, Portal, Table, Text } from '@chakra-ui/react';
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
import { memo, useMemo, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { lineAsCard, unseen } from '../theme/cards';
import { Word } from './Button';
import { asCsv, stepIn, type Column } from './dataTable';
import { IconButton } from './IconButton';
import { Input } from './Input';

/** More rows than this are drawn only where they are seen. */
const MANY = 60;
const ROW = 34;

/**
 * The look of the lines, set once from around them: there may be thousands. On a phone each is a card, its cells one under
 * another with their heads.
 */
const LINES = {
  '& tbody td': {
    padding: '5px 12px 5px 0',
    borderBottom: '1px solid {colors.rule}',
    verticalAlign: 'top',
    textAlign: 'start',
    overflowWrap: 'break-word',
  },
  '& tbody td[data-first]': { overflowWrap: 'anywhere', minWidth: '120px' },
  '& tbody td[data-figure]': { textStyle: 'data', textAlign: 'end', whiteSpace: 'nowrap' },
  '& tbody td:focus-visible': { outlineOffset: '-2px' },
  '& tbody tr[aria-selected=true] td': { bg: 'work.wash' },
  smDown: {
    '& thead': unseen,
    '& tbody tr': { ...lineAsCard, alignItems: 'normal', rowGap: 0 },
    '& tbody td': { border: 0, padding: 0, '&:empty': { display: 'none' } },
    '& tbody td[data-first]': { flex: '1 0 70%' },
    '& tbody td[data-head]:not([data-first])::before': {
      content: 'attr(data-head) " "',
      color: 'fg.muted',
      fontSize: '12px',
      fontFamily: 'body',
    },
  },
} as const;

interface LineProps<T> {
  row: T;
  i: number;
  columns: readonly Column<T>[];
  /** Undefined where lines cannot be chosen. */
  picked: boolean | undefined;
  /** The column under the cursor; undefined where the cursor is in another line. */
  at: number | undefined;
  onFocus: (row: number, column: number) => void;
  onPick: (i: number) => void;
  onOpen: ((row: T) => void) | undefined;
  measure: (el: HTMLElement | null) => void;
}

function DrawnLine<T>({ row, i, columns, picked, at, onFocus, onPick, onOpen, measure }: LineProps<T>) {
  return (
    <tr
      role="row"
      ref={measure}
      data-index={i}
      aria-rowindex={i + 2}
      {...(picked === undefined ? {} : { 'aria-selected': picked })}
    >
      {picked !== undefined && (
        <td role="gridcell">
          <Tick.Root checked={picked} onCheckedChange={() => onPick(i)}>
            <Tick.HiddenInput tabIndex={-1} aria-label={`Choose row ${i + 1}`} />
            <Tick.Control>
              <Tick.Indicator />
            </Tick.Control>
          </Tick.Root>
        </td>
      )}
      {columns.map((c, column) => (
        <td
          key={c.id}
          role="gridcell"
          data-at={`${i}-${column}`}
          data-head={c.head}
          {...(column === 0 ? { 'data-first': '' } : {})}
          {...(c.figure ? { 'data-figure': '' } : {})}
          tabIndex={column === at ? 0 : -1}
          onFocus={() => onFocus(i, column)}
          onDoubleClick={() => onOpen?.(row)}
        >
          {c.cell ? c.cell(row) : c.value(row)}
        </td>
      ))}
    </tr>
  );
}
// What memo gives back has forgotten of which rows it is.
const Line = memo(DrawnLine) as typeof DrawnLine;

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
  fill = false,
  beside,
  onOpen,
  selected: given,
  onSelect,
}: {
  label: string;
  rows: readonly T[];
  columns: readonly Column<T>[];
  /** What stands where there are no rows at all. */
  empty: ReactNode;
  /** Finding, choosing columns and copying above it. */
  tools?: boolean;
  /** Takes the height that is left of its sheet, and scrolls by itself. */
  fill?: boolean;
  /** Stands beside the tools: what can be done with the rows that are chosen. */
  beside?: ReactNode;
  onOpen?: (row: T) => void;
  /** Ids of the rows that are chosen, where the screen keeps them. */
  selected?: readonly string[];
  onSelect?: (rows: T[]) => void;
}) {
  const [sorting, setSorting] = useState<SortingState>([]);
  const [words, setWords] = useState('');
  const [own, setOwn] = useState<RowSelectionState>({});
  const selected = useMemo(
    () => (given ? Object.fromEntries(given.map((id) => [id, true])) : own),
    [given, own],
  );
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
  const select = (next: RowSelectionState): void => {
    setOwn(next);
    onSelect?.(rows.filter((r) => next[r.id]));
  };

  const table = useReactTable({
    data,
    columns: defs,
    getRowId: (r) => r.id,
    state: { sorting, globalFilter: words, columnVisibility: shown, rowSelection: selected },
    onSortingChange: setSorting,
    onGlobalFilterChange: setWords,
    onColumnVisibilityChange: setShown,
    globalFilterFn: 'includesString',
    getColumnCanGlobalFilter: () => true,
    enableRowSelection: onSelect !== undefined,
    onRowSelectionChange: (change) => select(typeof change === 'function' ? change(selected) : change),
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const found = table.getRowModel().rows;
  const seen = useMemo(() => columns.filter((c) => shown[c.id] === true), [columns, shown]);
  const holder = useRef<HTMLDivElement>(null);
  const many = found.length > MANY;
  const virtual = useVirtualizer({
    count: many ? found.length : 0,
    getScrollElement: () => holder.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  const items = many ? virtual.getVirtualItems() : [];
  const drawn = many ? items.map((v) => v.index) : found.map((_, i) => i);
  const before = items[0]?.start ?? 0;
  const after = many ? virtual.getTotalSize() - (items.at(-1)?.end ?? 0) : 0;
  const latest = useRef({ found, select, selected });
  latest.current = { found, select, selected };
  const onPick = useMemo(
    () => (i: number) => {
      const id = latest.current.found[i]?.id;
      if (id === undefined) return;
      const { [id]: was, ...rest } = latest.current.selected;
      latest.current.select(was ? rest : { ...rest, [id]: true });
    },
    [],
  );
  const onFocus = useMemo(() => (row: number, column: number) => setAt({ row, column }), []);
  const measure = many ? virtual.measureElement : NOTHING;

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
    if (!(e.target instanceof HTMLElement) || e.target.dataset.at === undefined) return;
    const row = found[at.row]?.original;
    if (e.key === 'Enter' && row && onOpen) onOpen(row);
    else if (e.key === ' ' && onSelect) onPick(at.row);
    else {
      const to = stepIn(e, at, { rows: found.length, columns: seen.length, page: 12 });
      if (!to) return;
      focus(to);
    }
    e.preventDefault();
    e.stopPropagation();
  };
  const chosen = found.filter((r) => selected[r.id]).length;
  return (
    <Box {...(fill ? { display: 'flex', flexDirection: 'column', flex: '1 1 0', minHeight: '0' } : {})}>
      {tools && (
        <HStack gap="3" align="flex-end" marginBottom="2" flexWrap="wrap">
          <Input
            label={`Find in ${label.toLowerCase()}`}
            width={{ base: 'full', md: 'field' }}
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
          <Text textStyle="small" role="status">
            {found.length === rows.length ? `${rows.length} in all` : `${found.length} of ${rows.length}`}
            {chosen > 0 ? `, ${chosen} chosen` : ''}
          </Text>
          {beside}
          <HStack gap="2" marginLeft="auto">
            <Menu.Root closeOnSelect={false} lazyMount unmountOnExit>
              <Menu.Trigger asChild>
                <IconButton word="Choose columns" icon={<Columns3 />} />
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
        </HStack>
      )}
      {found.length === 0 && <Text color="fg.muted">Nothing here has these words.</Text>}
      <Box
        ref={holder}
        overflow="auto"
        position="relative"
        {...(fill ? { flex: '1 1 0', minHeight: '0' } : { maxHeight: many ? 'table' : 'none' })}
        onKeyDown={walk}
        css={LINES}
      >
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
                    <Word onClick={() => table.getColumn(c.id)?.toggleSorting()} color="fg.muted">
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
              <chakra.tr aria-hidden="true">
                <chakra.td css={{ height: `${before}px`, padding: 0, border: 0 }} />
              </chakra.tr>
            )}
            {drawn.map((i) => {
              const row = found[i];
              return (
                row && (
                  <Line
                    key={row.id}
                    row={row.original}
                    i={i}
                    columns={seen}
                    picked={onSelect ? selected[row.id] === true : undefined}
                    at={at.row === i ? at.column : undefined}
                    onFocus={onFocus}
                    onPick={onPick}
                    onOpen={onOpen}
                    measure={measure}
                  />
                )
              );
            })}
            {after > 0 && (
              <chakra.tr aria-hidden="true">
                <chakra.td css={{ height: `${after}px`, padding: 0, border: 0 }} />
              </chakra.tr>
            )}
          </Table.Body>
        </Table.Root>
      </Box>
    </Box>
  );
}

const NOTHING = (): void => undefined;
