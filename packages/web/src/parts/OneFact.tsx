import { useState } from 'react';
import type { z } from 'zod';
import { fieldProblemWords } from '@zb/core/words/fieldProblem';
import { Input } from '../ui/Input';
import { NumberField } from '../ui/NumberField';
import type { FieldWords } from '../ui/Field';

/**
 * A single fact: saved when its field is left, or by Enter, and said by the line at the foot. What is wrong stays in the field,
 * said there, and nothing is saved; Escape takes back what was typed.
 */
export function OneFact<Out>({
  label,
  value,
  schema,
  number,
  maxLength,
  width,
  onKeep,
}: Pick<FieldWords, 'label' | 'width'> & {
  value: string;
  schema: z.ZodType<Out, string>;
  /** A number, with its steps. */
  number?: { min?: number; max?: number; step?: number };
  maxLength?: number;
  onKeep: (out: Out) => Promise<boolean>;
}) {
  const [typed, setTyped] = useState(value);
  const [shown, setShown] = useState(value);
  const [error, setError] = useState<string>();
  // What another act or another tab made of it is shown, unless something else is being typed here.
  if (shown !== value) {
    setShown(value);
    setTyped(value);
  }
  const leave = async (): Promise<void> => {
    if (typed === value) return setError(undefined);
    const read = schema.safeParse(typed);
    if (!read.success)
      return setError(fieldProblemWords(read.error.issues[0] ?? { code: 'custom', message: '' }));
    setError(undefined);
    await onKeep(read.data);
  };
  const keys = (e: React.KeyboardEvent): void => {
    if (e.key === 'Enter') void leave();
    else if (e.key === 'Escape') {
      setTyped(value);
      setError(undefined);
    } else return;
    e.preventDefault();
  };
  if (number)
    return (
      <NumberField
        {...{ label, error, width }}
        {...number}
        value={typed}
        onValue={setTyped}
        onLeave={() => void leave()}
        onKeyDown={keys}
      />
    );
  return (
    <Input
      {...{ label, error, width }}
      value={typed}
      {...(maxLength === undefined ? {} : { maxLength })}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={() => void leave()}
      onKeyDown={keys}
    />
  );
}
