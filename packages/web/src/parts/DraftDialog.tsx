import { HStack } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { FieldValues } from 'react-hook-form';
import type { Act } from '@zb/core/model/changes';
import { useAct } from '../storage/hooks';
import { Primary, Quiet } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { DraftLines } from './DraftLines';
import type { DraftForm } from './useDraftForm';

/** Does an act, and closes what it was done from where it was kept. */
export function useActAndClose(onClose: () => void): (act: Act) => Promise<boolean> {
  const act = useAct();
  return async (what) => {
    const kept = await act(what);
    if (kept) onClose();
    return kept;
  };
}

/** A form on a sheet of its own: what was typed before, its fields, and under them what saves it and what takes it away. */
export function DraftDialog<T extends FieldValues, Out>({
  title,
  size,
  draft,
  remove,
  onClose,
  children,
}: {
  title: string;
  size?: 'sm' | 'md' | 'lg';
  draft: DraftForm<T, Out>;
  remove?: { words: string; act: () => void } | undefined;
  onClose: () => void;
  children: ReactNode;
}) {
  return (
    <Dialog open onClose={onClose} title={title} {...(size === undefined ? {} : { size })}>
      <DraftLines of={draft} />
      <form onSubmit={(e) => void draft.submit(e)}>
        {children}
        <HStack justify="space-between" marginTop="4">
          <Primary type="submit">Save</Primary>
          {remove && <Quiet onClick={remove.act}>{remove.words}</Quiet>}
        </HStack>
      </form>
    </Dialog>
  );
}
