import { Drawer as Base, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Word } from './Button';

/** A margin that comes in from the side, for what a phone has no room for. */
export default function Drawer({
  open,
  onClose,
  title,
  from = 'start',
  children,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  from?: 'start' | 'end';
  children: ReactNode;
}) {
  return (
    <Base.Root
      open={open}
      onOpenChange={(e) => !e.open && onClose()}
      placement={from}
      lazyMount
      unmountOnExit
    >
      <Portal>
        <Base.Backdrop />
        <Base.Positioner>
          <Base.Content>
            <Base.Header>
              <Base.Title>{title}</Base.Title>
              <Base.CloseTrigger asChild position="static">
                <Word>Close</Word>
              </Base.CloseTrigger>
            </Base.Header>
            <Base.Body>{children}</Base.Body>
          </Base.Content>
        </Base.Positioner>
      </Portal>
    </Base.Root>
  );
}
