import { Dialog as Base, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Word } from './Button';

/** A sheet laid over the sheet. Escape and the button close it; focus goes in and comes back. */
export function Dialog({
  open,
  onClose,
  title,
  children,
  size = 'md',
  focusOn,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  size?: 'sm' | 'md' | 'lg';
  /** What takes the focus when it opens; without it, the first thing that can. */
  focusOn?: () => HTMLElement | null;
}) {
  return (
    <Base.Root
      open={open}
      onOpenChange={(e) => !e.open && onClose()}
      {...(focusOn ? { initialFocusEl: focusOn } : {})}
      lazyMount
      unmountOnExit
      size={size}
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
            <Base.Body tabIndex={0} role="region" aria-label={title}>
              {children}
            </Base.Body>
          </Base.Content>
        </Base.Positioner>
      </Portal>
    </Base.Root>
  );
}
