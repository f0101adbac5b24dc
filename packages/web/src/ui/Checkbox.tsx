import { Checkbox as Base, Switch as BaseSwitch } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Ticked {
  checked?: boolean;
  defaultChecked?: boolean;
  onChange?: (checked: boolean) => void;
  disabled?: boolean;
  /** What is ticked, where no words stand beside it. */
  label?: string;
  children?: ReactNode;
}
const given = ({ checked, defaultChecked, disabled }: Ticked) => ({
  ...(checked === undefined ? {} : { checked }),
  ...(defaultChecked === undefined ? {} : { defaultChecked }),
  ...(disabled === undefined ? {} : { disabled }),
});

/** A box to tick, with its words beside it. */
export function Checkbox(props: Ticked) {
  return (
    <Base.Root {...given(props)} onCheckedChange={(e) => props.onChange?.(e.checked === true)}>
      <Base.HiddenInput {...(props.label === undefined ? {} : { 'aria-label': props.label })} />
      <Base.Control>
        <Base.Indicator />
      </Base.Control>
      {props.children !== undefined && <Base.Label>{props.children}</Base.Label>}
    </Base.Root>
  );
}

/** Something that is on or off at once, without saving. */
export function Switch(props: Ticked) {
  return (
    <BaseSwitch.Root {...given(props)} onCheckedChange={(e) => props.onChange?.(e.checked)}>
      <BaseSwitch.HiddenInput />
      <BaseSwitch.Control>
        <BaseSwitch.Thumb />
      </BaseSwitch.Control>
      <BaseSwitch.Label>{props.children}</BaseSwitch.Label>
    </BaseSwitch.Root>
  );
}
