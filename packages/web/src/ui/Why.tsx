import { Popover, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Word } from './Button';

/** A reason behind what is shown: opened by a tap, a click or a key, closed by Escape or a tap elsewhere. */
export function Why({ of, children }: { of: ReactNode; children: ReactNode }) {
  return (
    <Popover.Root lazyMount unmountOnExit positioning={{ placement: 'bottom-start' }}>
      <Popover.Trigger asChild>
        <Word
          textDecorationStyle="dotted"
          color="fg"
          fontWeight="normal"
          paddingInline="0"
          whiteSpace="nowrap"
        >
          {of}
        </Word>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content>
            <Popover.Body>{children}</Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
