import { createToaster, Portal, Toast, Toaster as Base } from '@chakra-ui/react';

/** What was just done, at the foot of the page. */
export const toaster = createToaster({ placement: 'bottom-end', pauseOnPageIdle: true, max: 3 });

/** Says what was done, with the way to take it back. */
export const sayDone = (title: string, onUndo?: () => void): string =>
  toaster.create({
    title,
    duration: 6000,
    ...(onUndo ? { action: { label: 'Undo', onClick: onUndo } } : {}),
  });

/** Where it is said. */
export function Toaster() {
  return (
    <Portal>
      <Base toaster={toaster} insetInline={{ mdDown: '3' }}>
        {(toast) => (
          <Toast.Root>
            <Toast.Title>{toast.title}</Toast.Title>
            {toast.action && <Toast.ActionTrigger>{toast.action.label}</Toast.ActionTrigger>}
            <Toast.CloseTrigger aria-label="Close" />
          </Toast.Root>
        )}
      </Base>
    </Portal>
  );
}
