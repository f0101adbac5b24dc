import { Alert } from '@chakra-ui/react';
import type { ReactNode } from 'react';

const STATUS = { note: 'info', check: 'warning', stop: 'error', proven: 'success' } as const;

/** A line that is said: what happened, what is unharmed, what to do. What stops is told at once to those who hear the page. */
export function Said({
  kind = 'note',
  title,
  loud = kind === 'stop',
  children,
}: {
  kind?: keyof typeof STATUS;
  title?: string;
  /** Told at once, whatever else is being told. */
  loud?: boolean;
  children: ReactNode;
}) {
  return (
    <Alert.Root status={STATUS[kind]} role={loud ? 'alert' : 'status'} data-part={`said-${kind}`}>
      <Alert.Content>
        <Alert.Description as="div">
          {title !== undefined && (
            <>
              <b>{title}</b>{' '}
            </>
          )}
          {children}
        </Alert.Description>
      </Alert.Content>
    </Alert.Root>
  );
}
