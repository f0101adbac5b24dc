import { Box, chakra, Menu, Portal } from '@chakra-ui/react';
import { MoreVertical } from 'lucide-react';
import { memo, useLayoutEffect, useRef, type KeyboardEvent, type ReactNode } from 'react';
import type { BriefCell } from '@zb/core/system/sheet';
import { cellShort } from '@zb/core/words/fit/match';
import type { Machine } from '@zb/core/model/bench';
import { verdictMark } from '../../parts/Marks';
import { Room } from '../../parts/Room';
import { useSeenRows } from '../../parts/useSeenRows';
import { unseen } from '../../theme/cards';
import { verdictBase, verdictLooks } from '../../theme/recipes/mark';
import { stepIn } from '../../ui/dataTable';
import { IconButton } from '../../ui/IconButton';

export interface At {
  row: number;
  column: number;
}

export interface CellProps {
  /** What a screen reader hears first: which column on which machine. */
  title: string;
  /** Undefined while it is being judged, null where no system answers. */
  cell: BriefCell | null | undefined;
  /** What stands under the mark where it fits. */
  fits: string;
  chosen: boolean;
  /** A word of the user's own: pinned or forbidden. */
  flag?: 'pinned' | 'forbidden' | undefined;
  scored?: boolean;
}

/** What can be done with the crossing under the cursor, by its menu: the same as by keys. */
export interface CellAct {
  word: string;
  keys: string;
  act: () => void;
}

/** One crossing. Its look is set from around it: there are very many, and each key step draws two of them. */
const Cell = memo(function Cell({
  title,
  cell,
  fits,
  chosen,
  flag,
  scored,
  row,
  column,
  here,
  onAt,
  menu,
}: CellProps & At & { here: boolean; onAt: (at: At) => void; menu: ReactNode }) {
  const { kind, short } = verdictMark(cell?.verdict);
  const score = scored ? cell?.score?.toFixed(0) : undefined;
  return (
    <td
      role="gridcell"
      id={`cell-${row}-${column}`}
      tabIndex={here ? 0 : -1}
      aria-selected={here}
      onClick={() => onAt({ row, column })}
      onFocus={() => onAt({ row, column })}
      {...(chosen ? { 'data-chosen': '' } : {})}
      {...(flag === 'forbidden' ? { 'data-forbidden': '' } : {})}
    >
      <span data-told="">{title}: </span>
      <span data-top="">
        {cell === undefined ? <span data-soft="">judging…</span> : <span data-mark={kind}>{short}</span>}
        {score !== undefined && <span data-score="">{score}</span>}
      </span>
      <span data-sub="">
        {cell === null ? 'no system' : cell?.verdict === 'fits' ? fits : cell && cellShort(cell)}
      </span>
      {flag && <b data-sub="">{flag}</b>}
      {here && menu}
    </td>
  );
});

const rule = '1px solid {colors.rule}';
/** The marks of verdicts, as they look everywhere. */
const MARKS = Object.fromEntries(
  Object.entries(verdictLooks).map(([kind, look]) => [`& [data-mark=${kind}]`, look]),
);
const LOOK = {
  '& table': { borderCollapse: 'separate', borderSpacing: 0, tableLayout: 'fixed' },
  // Heads stay in sight both ways.
  '& thead th': {
    position: 'sticky',
    top: 0,
    zIndex: 2,
    bg: 'bg',
    verticalAlign: 'bottom',
    textAlign: 'start',
    fontSize: '11.5px',
    lineHeight: 1.2,
    padding: '4px 3px 4px 6px',
    overflowWrap: 'anywhere',
    borderBottom: '1px solid {colors.fg}',
  },
  '& tbody th, & thead th:first-of-type': { position: 'sticky', insetInlineStart: 0, bg: 'bg', zIndex: 1 },
  '& thead th:first-of-type': { zIndex: 3 },
  '& tbody th': {
    textAlign: 'start',
    verticalAlign: 'top',
    fontWeight: 'strong',
    fontSize: '12.5px',
    padding: '5px 6px 5px 0',
    borderBottom: rule,
    overflowWrap: 'anywhere',
  },
  '& td': {
    position: 'relative',
    verticalAlign: 'top',
    height: '46px',
    padding: '5px 3px 4px 6px',
    borderBottom: rule,
    borderInlineStart: rule,
    fontSize: '12px',
    cursor: 'pointer',
  },
  '& td:focus-visible': { outlineOffset: '-2px' },
  '& td[aria-selected=true] [data-sub]': { paddingInlineEnd: '22px' },
  '& td[data-chosen]': { bg: 'proven.wash', boxShadow: 'inset 0 0 0 2px {colors.fg}' },
  '& td[aria-selected=true]': { bg: 'work.wash' },
  '& td[data-forbidden]': {
    backgroundImage: 'repeating-linear-gradient(45deg, {colors.rule.strong} 0 1px, transparent 1px 7px)',
  },
  '& [data-told]': unseen,
  '& [data-top]': { display: 'flex', justifyContent: 'space-between', alignItems: 'baseline' },
  '& [data-sub]': {
    display: 'block',
    fontSize: '11px',
    lineHeight: 1.2,
    color: 'fg.muted',
    fontWeight: 'normal',
    overflowWrap: 'anywhere',
  },
  '& b[data-sub]': { color: 'fg', fontWeight: 'strong' },
  '& [data-score], & [data-soft]': { fontSize: '11px', color: 'fg.muted' },
  '& [data-score]': { textStyle: 'data', fontSize: '11px', paddingInlineEnd: '3px' },
  '& [data-mark]': { ...verdictBase, gap: '1' },
  ...MARKS,
} as const;

/** A sheet of crossings: one row for each machine, arrows move between them, heads stay in sight. */
export function SheetGrid({
  label,
  heads,
  machines,
  at,
  onAt,
  cell,
  acts = [],
}: {
  label: string;
  heads: { id: string; head: ReactNode }[];
  machines: Machine[];
  at: At;
  onAt: (at: At) => void;
  cell: (machine: Machine, row: number, column: number) => CellProps;
  acts?: readonly CellAct[];
}) {
  const { holder, measure, seen: drawn, before, after } = useSeenRows(machines.length, 58);
  // The row under the cursor is drawn wherever it is, so that the arrows always have a place to go.
  const seen = drawn.includes(at.row) || at.row >= machines.length ? drawn : [...drawn, at.row];
  const wanted = useRef<At | null>(null);
  // A cell takes the focus once it is drawn as the one under the cursor.
  useLayoutEffect(() => {
    if (!wanted.current) return;
    wanted.current = null;
    document.getElementById(`cell-${at.row}-${at.column}`)?.focus();
  }, [at]);
  const walk = (e: KeyboardEvent): void => {
    if (!(e.target instanceof HTMLElement) || e.target.getAttribute('role') !== 'gridcell') return;
    const to = stepIn(e, at, { rows: machines.length, columns: heads.length, page: 8 });
    if (!to) return;
    e.preventDefault();
    e.stopPropagation();
    wanted.current = to;
    onAt(to);
  };
  const menu =
    acts.length === 0 ? null : (
      <Menu.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-end' }}>
        <Menu.Trigger asChild>
          <IconButton
            small
            word="What can be done with this crossing"
            icon={<MoreVertical />}
            position="absolute"
            css={{ insetInlineEnd: '1px', bottom: '1px' }}
            bg="bg"
          />
        </Menu.Trigger>
        <Portal>
          <Menu.Positioner>
            <Menu.Content>
              {acts.map((a) => (
                <Menu.Item key={a.word} value={a.word} onClick={a.act}>
                  <Menu.ItemText>{a.word}</Menu.ItemText>
                  <Menu.ItemCommand>{a.keys}</Menu.ItemCommand>
                </Menu.Item>
              ))}
            </Menu.Content>
          </Menu.Positioner>
        </Portal>
      </Menu.Root>
    );
  return (
    <Box overflow="auto" minHeight="0" maxHeight="full" position="relative" flex={{ md: '1 1 0' }} css={LOOK}>
      <chakra.table
        role="grid"
        aria-label={label}
        aria-rowcount={machines.length + 1}
        aria-colcount={heads.length + 1}
        onKeyDown={walk}
        css={{ width: '100%', minWidth: `${96 + heads.length * 90}px` }}
      >
        <thead>
          <tr role="row">
            <chakra.th scope="col" css={{ width: '96px' }}>
              <span data-told="">Machine</span>
            </chakra.th>
            {heads.map((h) => (
              <th key={h.id} scope="col" role="columnheader">
                {h.head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody ref={holder}>
          <Room height={before} />
          {seen
            .flatMap((row) => {
              const m = machines[row];
              return m ? [{ m, row }] : [];
            })
            .map(({ m, row }) => (
              <tr key={m.id} role="row" ref={measure} data-index={row} aria-rowindex={row + 2}>
                <th scope="row" role="rowheader">
                  {m.name}
                  <span data-sub="">{m.form}</span>
                </th>
                {heads.map((h, column) => {
                  const here = row === at.row && column === at.column;
                  return (
                    <Cell
                      key={h.id}
                      {...cell(m, row, column)}
                      row={row}
                      column={column}
                      here={here}
                      onAt={onAt}
                      menu={here ? menu : null}
                    />
                  );
                })}
              </tr>
            ))}
          <Room height={after} />
        </tbody>
      </chakra.table>
    </Box>
  );
}
