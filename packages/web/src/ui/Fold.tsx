import { Collapsible } from '@chakra-ui/react';
import { ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';

/** What is folded away until it is asked for. `plain`: a line of figures that opens to where it came from. */
export function Fold({
  title,
  open = false,
  plain = false,
  children,
}: {
  title: ReactNode;
  open?: boolean;
  plain?: boolean;
  children: ReactNode;
}) {
  return (
    <Collapsible.Root defaultOpen={open} lazyMount variant={plain ? 'line' : 'word'}>
      <Collapsible.Trigger>
        {!plain && (
          <Collapsible.Indicator>
            <ChevronRight aria-hidden="true" />
          </Collapsible.Indicator>
        )}
        {title}
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
