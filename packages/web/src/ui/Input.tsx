import { Input as Base, Textarea, type InputProps, type TextareaProps } from '@chakra-ui/react';
import { Field, type FieldWords } from './Field';

/** A line to type into, with its label. `data` sets serials, sizes and addresses in the face that tells 0 and O apart. */
export function Input({
  label,
  help,
  error,
  required,
  disabled,
  data,
  ...rest
}: FieldWords & Omit<InputProps, 'size' | 'variant'> & { data?: boolean }) {
  return (
    <Field
      {...{ label, help, error }}
      {...(required ? { required } : {})}
      {...(disabled ? { disabled } : {})}
    >
      <Base variant={data ? 'data' : 'text'} {...rest} />
    </Field>
  );
}

/** Several lines to type into, with their label. */
export function Lines({ label, help, error, ...rest }: FieldWords & Omit<TextareaProps, 'size' | 'variant'>) {
  return (
    <Field {...{ label, help, error }}>
      <Textarea {...rest} />
    </Field>
  );
}
