import { createToaster, Portal, Toast, Toaster as Base } from '@chakra-ui/react';
import { X } from 'lucide-react';

/** What was just done, at the foot of the page. */
export const toaster = createToaster({
  placement: 'bottom-end',
  // Above the acts at the foot and the stops of the route.
  offsets: { bottom: '76px', left: '12px', right: '12px', top: '12px' },
  pauseOnPageIdle: true,
  max: 1,
});

/** One line at a time: what was done last takes the place of what was done before it. */
const LAST = 'last-act';

/** Says what was done, with the way to take it back. */
export const sayDone = (title: string, onUndo?: () => void): string =>
  toaster.create({
    id: LAST,
    title,
    duration: 7000,
    // Without it, an undo of the act before would stay beside the words of this one.
    action: onUndo ? { label: 'Undo', onClick: onUndo } : undefined,
  } as Parameters<typeof toaster.create>[0]);

/** Where it is said. */
export function Toaster() {
  return (
    <Portal>
      <Base toaster={toaster}>
        {(toast) => (
          <Toast.Root data-part="toast">
            <Toast.Title>{toast.title}</Toast.Title>
            {toast.action && <Toast.ActionTrigger>{toast.action.label}</Toast.ActionTrigger>}
            <Toast.CloseTrigger aria-label="Close">
              <X size={16} aria-hidden="true" />
            </Toast.CloseTrigger>
          </Toast.Root>
        )}
      </Base>
    </Portal>
  );
}
