import { NativeSelect } from '@chakra-ui/react';
import { ChevronDown } from 'lucide-react';
import type { ChangeEventHandler, FocusEventHandler, Ref } from 'react';
import { Field, type FieldWords } from './Field';

/** One of a few words, by the device’s own list: quick by keys and by touch. */
export function Select({
  label,
  help,
  error,
  width,
  options,
  none,
  ...rest
}: FieldWords & {
  options: readonly (string | { value: string; words: string })[];
  /** Words for no choice; without it one has to be made. */
  none?: string;
  name?: string;
  autoFocus?: boolean;
  disabled?: boolean;
  value?: string;
  defaultValue?: string;
  onChange?: ChangeEventHandler<HTMLSelectElement>;
  onBlur?: FocusEventHandler<HTMLSelectElement>;
  ref?: Ref<HTMLSelectElement>;
}) {
  return (
    <Field {...{ label, help, error, width }}>
      <NativeSelect.Root>
        <NativeSelect.Field {...rest}>
          {none !== undefined && <option value="">{none}</option>}
          {options
            .map((o) => (typeof o === 'string' ? { value: o, words: o } : o))
            .map((o) => (
              <option key={o.value} value={o.value}>
                {o.words}
              </option>
            ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator>
          <ChevronDown aria-hidden="true" />
        </NativeSelect.Indicator>
      </NativeSelect.Root>
    </Field>
  );
}
