import { useCallback, useEffect, useRef, useState } from 'react';
import {
  useForm,
  type DefaultValues,
  type FieldErrors,
  type FieldValues,
  type Resolver,
  type UseFormReturn,
} from 'react-hook-form';
import { useBlocker, type Blocker } from 'react-router';
import { recall, remember } from '../storage/remembered';

/** Drafts live as long as the tab: over a reload and a look elsewhere, and no longer than anybody remembers them. */
const keyOf = (draft: string): string => `zb-draft:${draft}`;
function kept<T>(draft: string | null): T | undefined {
  const text = draft === null ? null : recall(keyOf(draft), 'session');
  return text === null ? undefined : (JSON.parse(text) as T);
}
const keep = (draft: string | null, values: unknown): void => {
  if (draft !== null) remember(keyOf(draft), values === undefined ? null : JSON.stringify(values), 'session');
};

/** What a check of one's own answers where something is wrong. */
export const refused = <T extends FieldValues>(
  errors: FieldErrors<T>,
): { values: Record<string, never>; errors: FieldErrors<T> } => ({ values: {}, errors });

export interface DraftForm<T extends FieldValues, Out> {
  form: UseFormReturn<T, unknown, Out>;
  /** Checks all of it, and saves; the first field that is wrong gets the focus. True where it was kept. */
  submit: (e?: React.BaseSyntheticEvent) => Promise<boolean>;
  /** Was something typed before found again, and not saved yet? */
  restored: boolean;
  /** Lets go of all that was typed and not saved. */
  forget: () => void;
  blocker: Blocker;
}

/**
 * A form whose fields are checked together and saved by one act. What was typed and not saved survives a reload and a
 * look elsewhere; leaving with it is asked about. `save` answers whether it was kept, or what stands in the form from then on.
 */
export function useDraftForm<T extends FieldValues, Out = T>({
  values,
  resolver,
  draft,
  ask = true,
  save,
}: {
  values: T;
  resolver: Resolver<T, unknown, Out>;
  /** The name of the draft: one for each thing that is edited. Null where nothing typed is to be kept. */
  draft: string | null;
  /** Is leaving with something unsaved asked about? A page has one form that asks. */
  ask?: boolean;
  save: (out: Out, typed: T) => Promise<boolean | { now: T }> | boolean;
}): DraftForm<T, Out> {
  const form = useForm<T, unknown, Out>({ defaultValues: values as DefaultValues<T>, resolver });
  const [before] = useState(() => kept<T>(draft));
  const [restored, setRestored] = useState(before !== undefined);
  const { isDirty } = form.formState;
  useEffect(() => {
    if (before !== undefined) form.reset(before, { keepDefaultValues: true });
  }, [form, before]);
  useEffect(
    () =>
      form.subscribe({
        formState: { values: true, isDirty: true },
        callback: ({ values: now, isDirty: dirty }) => keep(draft, dirty ? now : undefined),
      }),
    [form, draft],
  );
  const forget = useCallback((): void => {
    keep(draft, undefined);
    form.reset();
    setRestored(false);
  }, [form, draft]);
  const leaving = useRef(false);
  const blocker = useBlocker(
    ({ currentLocation: from, nextLocation: to }) =>
      ask && isDirty && !leaving.current && from.pathname !== to.pathname,
  );
  const submit = async (e?: React.BaseSyntheticEvent): Promise<boolean> => {
    let done = false;
    await form.handleSubmit(async (out) => {
      const typed = form.getValues();
      // The act may lead to another screen, which is not to be asked about.
      leaving.current = true;
      try {
        const kept = await save(out, typed);
        done = kept !== false;
        if (!kept) return;
        keep(draft, undefined);
        // What was typed on while it was kept stays.
        if (kept === true) form.reset(typed, { keepValues: true });
        else form.reset(kept.now);
        setRestored(false);
      } finally {
        leaving.current = false;
      }
    })(e);
    return done;
  };
  return { form, submit, restored: restored && isDirty, forget, blocker };
}
