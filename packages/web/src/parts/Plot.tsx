import { Box } from '@chakra-ui/react';
import { lazy, Suspense, type ReactNode } from 'react';
import type { PlotData } from './plotData';
import { Fold } from '../ui/Fold';
import { Line, LineHead, Num, Ruled } from '../ui/Ruled';
import { Data } from '../ui/Words';

/** The same as a table: its heads and its rows. */
export interface PlotTable {
  heads: readonly string[];
  rows: readonly (readonly string[])[];
}

const Drawn = lazy(() => import('./PlotDrawn'));

/** A plot and, folded under it, all of it as a table for those who would rather read. */
export function Plot({
  title,
  data,
  table,
  height = 200,
  children,
}: {
  title: string;
  data: PlotData;
  table: PlotTable;
  height?: number;
  children?: ReactNode;
}) {
  return (
    <Box as="figure" margin="0" minWidth="0" aria-label={title}>
      <Box as="figcaption" textStyle="label" marginBottom="1">
        {title}
      </Box>
      <Box aria-hidden="true" css={{ minHeight: `${height}px` }}>
        <Suspense fallback={null}>
          <Drawn data={data} height={height} />
        </Suspense>
      </Box>
      {children}
      <Fold title="As a table">
        <Box maxHeight="table" overflow="auto" tabIndex={0} role="region" aria-label={`${title}, as a table`}>
          <Ruled dense label={title} heads={table.heads.map((words, i) => ({ words, figure: i > 0 }))}>
            {table.rows.map((r, k) => (
              <Line key={k}>
                {r.map((cell, i) =>
                  i === 0 ? (
                    <LineHead key={i}>
                      <Data>{cell}</Data>
                    </LineHead>
                  ) : (
                    <Num key={i}>{cell}</Num>
                  ),
                )}
              </Line>
            ))}
          </Ruled>
        </Box>
      </Fold>
    </Box>
  );
}
