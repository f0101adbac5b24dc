import { chakra, useRecipe, type HTMLChakraProps } from '@chakra-ui/react';
import type { ReactNode } from 'react';

type Span = Omit<HTMLChakraProps<'span'>, 'children'>;

/** A verdict: a shape and a word together; neither stands alone. */
export function VerdictMark({
  kind,
  children,
  ...rest
}: Span & { kind: 'yes' | 'no' | 'ask' | 'change' | 'stop'; children: ReactNode }) {
  const recipe = useRecipe({ key: 'verdictMark' });
  return (
    <chakra.span css={recipe({ kind })} {...rest}>
      {children}
    </chakra.span>
  );
}

const WORD = { stop: 'Stop', check: 'Check', note: 'Note' } as const;
/** How grave a hazard is. */
export function HazardMark({ grade }: { grade: keyof typeof WORD }) {
  const recipe = useRecipe({ key: 'hazardMark' });
  return <chakra.span css={recipe({ grade })}>{WORD[grade]}</chakra.span>;
}

/** A stamp on the sheet. */
export function Stamp({
  kind = 'good',
  children,
}: {
  kind?: 'good' | 'stop' | 'check';
  children: ReactNode;
}) {
  const recipe = useRecipe({ key: 'stamp' });
  return <chakra.span css={recipe({ kind })}>{children}</chakra.span>;
}
