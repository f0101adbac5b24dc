import { EmptyState } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** Nothing is here yet: why, and the first real act. */
export function Nothing({
  title,
  words,
  children,
}: {
  title: string;
  words?: ReactNode;
  children?: ReactNode;
}) {
  return (
    <EmptyState.Root>
      <EmptyState.Content>
        <EmptyState.Title>{title}</EmptyState.Title>
        {words !== undefined && <EmptyState.Description>{words}</EmptyState.Description>}
        {children}
      </EmptyState.Content>
    </EmptyState.Root>
  );
}
