import { Collapsible } from '@chakra-ui/react';
import { ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';

/** What is folded away until it is asked for. */
export function Fold({
  title,
  open = false,
  children,
}: {
  title: ReactNode;
  open?: boolean;
  children: ReactNode;
}) {
  return (
    <Collapsible.Root defaultOpen={open} lazyMount>
      <Collapsible.Trigger>
        <Collapsible.Indicator>
          <ChevronRight aria-hidden="true" />
        </Collapsible.Indicator>
        {title}
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
