import { Text } from '@chakra-ui/react';
import type { FieldValues } from 'react-hook-form';
import { Primary, Quiet, Word } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { Said } from '../ui/Said';
import { Acts } from '../ui/Words';
import type { DraftForm } from './useDraftForm';

/** What a form with a draft says: that something typed before is here again, and what becomes of it on leaving. */
export function DraftLines<T extends FieldValues, Out>({ of }: { of: DraftForm<T, Out> }) {
  const { blocker, restored, forget, submit } = of;
  const stay = (): void => blocker.reset?.();
  return (
    <>
      {restored && (
        <Said kind="check">
          What you typed here before is back, and not saved yet. <Word onClick={forget}>Throw it away</Word>
        </Said>
      )}
      <Dialog open={blocker.state === 'blocked'} onClose={stay} title="Not saved yet" size="sm">
        <Text marginBottom="3">What you typed on this sheet is not on the bench yet.</Text>
        <Acts>
          <Primary onClick={() => void submit().then((saved) => (saved ? blocker.proceed?.() : stay()))}>
            Save and go
          </Primary>
          <Quiet onClick={() => blocker.proceed?.()}>Go, and keep it as a draft</Quiet>
          <Quiet
            onClick={() => {
              forget();
              blocker.proceed?.();
            }}
          >
            Throw it away
          </Quiet>
          <Word onClick={stay}>Stay here</Word>
        </Acts>
      </Dialog>
    </>
  );
}
