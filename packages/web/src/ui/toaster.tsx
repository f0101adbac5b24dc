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

/** The line that is shown now. */
let last: string | undefined;

/** Says what was done, with the way to take it back; it takes the place of what was said before. */
export function sayDone(title: string, onUndo?: () => void): void {
  // A line of its own each time: one that is just going would swallow what it is told.
  if (last !== undefined) toaster.remove(last);
  last = toaster.create({
    title,
    duration: 7000,
    ...(onUndo ? { action: { label: 'Undo', onClick: onUndo } } : {}),
  });
}

/** Where it is said. */
export function Toaster() {
  return (
    <Portal>
      <Base toaster={toaster}>
        {(toast) => (
          <Toast.Root
            // The group, hearing of the focus, would send it back to where it came from on the next Tab: a circle
            // without end for whoever has no pointer. The line waits while the focus is on it, and that is all.
            onFocus={(e) => {
              e.stopPropagation();
              toaster.pause(toast.id);
            }}
            onBlur={(e) => {
              e.stopPropagation();
              toaster.resume(toast.id);
            }}
          >
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
