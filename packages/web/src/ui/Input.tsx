import { Input as Base, Textarea, type InputProps, type TextareaProps } from '@chakra-ui/react';
import type { Ref } from 'react';
import { Field, type FieldWords } from './Field';

interface Typed {
  /** Serials, sizes and addresses, in the face that tells 0 and O apart. */
  data?: boolean;
}

/** A line to type into, with its label. */
export function Input({
  label,
  help,
  error,
  required,
  disabled,
  data,
  width,
  ...rest
}: FieldWords & Omit<InputProps, 'size' | 'variant'> & Typed & { ref?: Ref<HTMLInputElement> }) {
  return (
    <Field
      {...{ label, help, error, width }}
      {...(required ? { required } : {})}
      {...(disabled ? { disabled } : {})}
    >
      <Base variant={data ? 'data' : 'text'} autoComplete="off" {...rest} />
    </Field>
  );
}

/** Several lines to type into, with their label. */
export function Lines({
  label,
  help,
  error,
  data,
  width,
  ...rest
}: FieldWords & Omit<TextareaProps, 'size' | 'variant'> & Typed & { ref?: Ref<HTMLTextAreaElement> }) {
  return (
    <Field {...{ label, help, error, width }}>
      <Textarea variant={data ? 'data' : 'text'} {...rest} />
    </Field>
  );
}
