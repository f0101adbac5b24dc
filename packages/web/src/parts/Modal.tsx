import { Dialog, Portal } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** A sheet laid over the sheet. Escape and the button close it; focus goes in and comes back. */
export function Modal({
  open,
  onClose,
  title,
  children,
  width = '640px',
  focusOn,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  width?: string;
  /** What takes the focus when it opens; without it, the first thing that can. */
  focusOn?: () => HTMLElement | null;
}) {
  return (
    <Dialog.Root
      open={open}
      onOpenChange={(e) => !e.open && onClose()}
      {...(focusOn ? { initialFocusEl: focusOn } : {})}
      lazyMount
      unmountOnExit
      placement="center"
      scrollBehavior="inside"
    >
      <Portal>
        <Dialog.Backdrop background="rgba(20,22,24,.45)" />
        <Dialog.Positioner>
          <Dialog.Content
            background="var(--sheet)"
            color="var(--ink)"
            border="1px solid var(--ink)"
            borderRadius="0"
            maxWidth={width}
            width="calc(100vw - 32px)"
            fontFamily="inherit"
          >
            <Dialog.Header
              padding="14px 20px 8px"
              display="flex"
              justifyContent="space-between"
              alignItems="baseline"
              borderBottom="1px solid var(--rule)"
            >
              <Dialog.Title fontSize="18px" fontWeight="720" margin="0">
                {title}
              </Dialog.Title>
              <Dialog.CloseTrigger asChild position="static">
                <button type="button" className="link">
                  Close
                </button>
              </Dialog.CloseTrigger>
            </Dialog.Header>
            <Dialog.Body padding="14px 20px 18px" tabIndex={0} role="region" aria-label={title}>
              {children}
            </Dialog.Body>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
