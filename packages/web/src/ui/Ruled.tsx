import { Box, Table, type TableCellProps, type TableRowProps } from '@chakra-ui/react';
import type { ReactNode } from 'react';

export interface HeadCell {
  words: ReactNode;
  /** Figures stand on the right. */
  figure?: boolean;
  width?: string;
  /** Told to those who hear the page, not shown. */
  silent?: boolean;
}

/** A ruled table that is set out by hand: heads over it, lines in it. For what is sorted and found in, see DataTable. */
export function Ruled({
  label,
  heads,
  silent = false,
  stacked = false,
  dense = false,
  rowCount,
  body,
  children,
}: {
  /** What it is, for those who hear the page. */
  label?: string;
  heads?: readonly (string | HeadCell)[];
  /** All heads are told and not shown. */
  silent?: boolean;
  /** On a phone each line becomes a block. */
  stacked?: boolean;
  dense?: boolean;
  /** How many lines there are with the heads, where not all are drawn. */
  rowCount?: number;
  /** Gets the element that holds the lines. */
  body?: (el: HTMLElement | null) => void;
  children: ReactNode;
}) {
  return (
    <Table.Root
      stacked={stacked}
      dense={dense}
      {...(label === undefined ? {} : { 'aria-label': label })}
      {...(rowCount === undefined ? {} : { 'aria-rowcount': rowCount })}
    >
      {heads && (
        // Said only where it holds: `srOnly={false}` would show again what a stacked table hides.
        <Table.Header {...(silent ? { srOnly: true } : {})}>
          <Table.Row>
            {heads
              .map((h): HeadCell => (typeof h === 'string' ? { words: h } : h))
              .map((h, i) => (
                <Table.ColumnHeader
                  key={i}
                  scope="col"
                  textAlign={h.figure ? 'end' : 'start'}
                  css={h.width === undefined ? {} : { width: h.width }}
                >
                  {h.silent ? <Box srOnly>{h.words}</Box> : h.words}
                </Table.ColumnHeader>
              ))}
          </Table.Row>
        </Table.Header>
      )}
      <Table.Body {...(body ? { ref: body } : {})}>{children}</Table.Body>
    </Table.Root>
  );
}

const flags = ({ whole, told }: { whole?: boolean | undefined; told?: boolean | undefined }) => ({
  ...(whole ? { 'data-whole': '' } : {}),
  ...(told ? { 'data-told': '' } : {}),
});

/** A line of a table; `here` marks the one this machine meets, or the one that is taken. */
export const Line = ({ here = false, ...rest }: { here?: boolean | undefined } & TableRowProps) => (
  <Table.Row {...(here ? { 'data-here': '' } : {})} {...rest} />
);

/** Whose line it is. */
export const LineHead = ({ whole, ...rest }: { whole?: boolean } & TableCellProps) => (
  <Table.Cell as="th" scope="row" fontWeight="strong" {...flags({ whole })} {...rest} />
);

/** `whole`: a line of its own where the table is a list; `told`: left out there, because the line says it. */
export const Cell = ({ whole, told, ...rest }: { whole?: boolean; told?: boolean } & TableCellProps) => (
  <Table.Cell {...flags({ whole, told })} {...rest} />
);

/** A figure with its unit. */
export const Num = (props: { told?: boolean } & TableCellProps) => (
  <Cell textAlign="end" textStyle="data" whiteSpace="nowrap" {...props} />
);
