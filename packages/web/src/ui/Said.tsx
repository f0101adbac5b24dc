import { Alert } from '@chakra-ui/react';
import type { ReactNode } from 'react';

const STATUS = { note: 'info', check: 'warning', stop: 'error', proven: 'success' } as const;

/** A line that is said: what happened, what is unharmed, what to do. What stops is told at once to those who hear the page. */
export function Said({
  kind = 'note',
  title,
  children,
}: {
  kind?: keyof typeof STATUS;
  title?: string;
  children: ReactNode;
}) {
  return (
    <Alert.Root status={STATUS[kind]} role={kind === 'stop' ? 'alert' : 'status'}>
      <Alert.Content>
        {title !== undefined && <Alert.Title>{title}</Alert.Title>}
        <Alert.Description>{children}</Alert.Description>
      </Alert.Content>
    </Alert.Root>
  );
}
