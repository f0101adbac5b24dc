import { Box, List } from '@chakra-ui/react';
import { Data, Sub } from '../ui/Words';
import { VerdictMark, type MarkKind } from '../ui/Marks';
import { useWalk } from './walk';

export interface Frame {
  title: string;
  /** What happened from the frame before to this one. */
  because: string;
  mark: MarkKind;
  state: string;
}

/** A strip of states, one after another, with what led from each to the next. Arrow keys wind it. */
export function Reel({ label, frames }: { label: string; frames: readonly Frame[] }) {
  const walk = useWalk(frames.length);
  return (
    <List.Root
      as="ol"
      aria-label={label}
      onKeyDown={walk.onKeyDown}
      css={{
        display: 'flex',
        overflowX: 'auto',
        borderBlock: '1px solid {colors.fg}',
        // The perforation of a film, above and below.
        backgroundImage:
          'radial-gradient({colors.rule.strong} 1.6px, transparent 2px), radial-gradient({colors.rule.strong} 1.6px, transparent 2px)',
        backgroundSize: '12px 9px',
        backgroundRepeat: 'repeat-x',
        backgroundPosition: '0 0, 0 100%',
        paddingBlock: '11px',
        '& > li': {
          flex: '0 0 150px',
          borderInlineEnd: '1px solid {colors.rule.strong}',
          padding: '4px 10px',
        },
      }}
    >
      {frames.map((f, i) => (
        <List.Item key={`${i} ${f.title}`} {...walk.part(i)}>
          <Data color="fg.muted">{i + 1}</Data> <VerdictMark kind={f.mark}>{f.state}</VerdictMark>
          <Box>
            <b>{f.title}</b>
            <Sub>{f.because}</Sub>
          </Box>
        </List.Item>
      ))}
    </List.Root>
  );
}
