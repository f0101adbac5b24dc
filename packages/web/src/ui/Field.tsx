import { Field as Base, type FieldRootProps } from '@chakra-ui/react';
import type { ReactNode } from 'react';

export interface FieldWords {
  label: string;
  /** What helps; what is wrong takes its place. */
  help?: ReactNode;
  error?: string | undefined;
  required?: boolean;
  disabled?: boolean;
  width?: FieldRootProps['width'];
}

/** A control with its label, help and error; the library ties them together for those who hear the page. */
export function Field({
  label,
  help,
  error,
  required,
  disabled,
  width,
  children,
}: FieldWords & { children: ReactNode }) {
  return (
    <Base.Root
      invalid={error !== undefined}
      {...(width === undefined ? {} : { width })}
      {...(required ? { required } : {})}
      {...(disabled ? { disabled } : {})}
    >
      <Base.Label>
        {label}
        <Base.RequiredIndicator />
      </Base.Label>
      {children}
      {error === undefined && help !== undefined && <Base.HelperText>{help}</Base.HelperText>}
      <Base.ErrorText role="alert">{error}</Base.ErrorText>
    </Base.Root>
  );
}
