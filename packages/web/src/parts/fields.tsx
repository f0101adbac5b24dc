import type { ReactNode } from 'react';
import { Controller, type Control, type FieldPathByValue, type FieldValues } from 'react-hook-form';
import { Checkbox } from '../ui/Checkbox';
import { Ticks } from '../ui/Ticks';

/** A box to tick in a form. */
export const TickField = <T extends FieldValues, Out>({
  control,
  name,
  children,
}: {
  control: Control<T, unknown, Out>;
  name: FieldPathByValue<T, boolean>;
  children: ReactNode;
}) => (
  <Controller
    control={control}
    name={name}
    render={({ field }) => (
      <Checkbox checked={field.value} onChange={field.onChange}>
        {children}
      </Checkbox>
    )}
  />
);

/** Several of a few, ticked in a form. */
export const TicksField = <T extends FieldValues, Out>({
  control,
  name,
  ...rest
}: {
  control: Control<T, unknown, Out>;
  name: FieldPathByValue<T, string[]>;
  label: string;
  help?: string;
  options: readonly { value: string; words: string }[];
  across?: boolean;
}) => (
  <Controller
    control={control}
    name={name}
    render={({ field }) => <Ticks {...rest} value={field.value} onChange={field.onChange} />}
  />
);
