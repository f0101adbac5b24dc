import { Box, List } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Sub } from '../ui/Words';
import { VerdictMark, type MarkKind } from '../ui/Marks';
import { useWalk } from './walk';

export interface LadderRung {
  key: string;
  title: string;
  mark: MarkKind;
  state: string;
  lines: readonly ReactNode[];
  /** The rung that is started. */
  reached: boolean;
  /** Never looked at. */
  dim: boolean;
}

/** The boot ladder: entries from the top, each tried, skipped, refused or started. Arrow keys climb it. */
export function Ladder({ label, rungs }: { label: string; rungs: readonly LadderRung[] }) {
  const walk = useWalk(rungs.length);
  return (
    <List.Root
      as="ol"
      aria-label={label}
      onKeyDown={walk.onKeyDown}
      css={{
        borderInlineStart: '2px solid {colors.fg}',
        marginInlineStart: '12px',
        '& > li': {
          position: 'relative',
          padding: '9px 0 11px 24px',
          display: 'grid',
          gridTemplateColumns: { base: 'minmax(0, 1fr)', md: '104px minmax(0, 1fr)' },
          columnGap: '12px',
          borderBottom: '1px solid {colors.rule}',
        },
        '& > li > :first-of-type': { alignSelf: 'start' },
        // The rung itself.
        '& > li::before': {
          content: '""',
          position: 'absolute',
          insetInlineStart: 0,
          top: '18px',
          width: '16px',
          borderTop: '2px solid {colors.fg}',
        },
        '& > li[data-is=reached]': { bg: 'proven.wash' },
        '& > li[data-is=dim]': { color: 'fg.muted' },
      }}
    >
      {rungs.map((r, i) => (
        <List.Item key={r.key} data-is={r.reached ? 'reached' : r.dim ? 'dim' : 'tried'} {...walk.part(i)}>
          <VerdictMark kind={r.mark}>{r.state}</VerdictMark>
          <Box>
            <b>{r.title}</b>
            {r.lines.map((l, j) => (
              <Sub key={j}>{l}</Sub>
            ))}
          </Box>
        </List.Item>
      ))}
    </List.Root>
  );
}
