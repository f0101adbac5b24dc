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
export type MarkKind = Parameters<typeof VerdictMark>[0]['kind'];

const WORD = { stop: 'Stop', check: 'Check', note: 'Note' } as const;
/** How grave a hazard is; `words` where its name stands elsewhere, such as how many there are. */
export function HazardMark({ grade, words = WORD[grade] }: { grade: keyof typeof WORD; words?: string }) {
  const recipe = useRecipe({ key: 'hazardMark' });
  return <chakra.span css={recipe({ grade })}>{words}</chakra.span>;
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
  return (
    <chakra.span data-part="stamp" css={recipe({ kind })}>
      {children}
    </chakra.span>
  );
}
