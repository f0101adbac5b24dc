import { Fieldset, Stack } from '@chakra-ui/react';
import { Checkbox } from './Checkbox';
import { Sub } from './Words';

/** Several of a few, ticked. */
export function Ticks({
  label,
  help,
  options,
  value,
  across = false,
  onChange,
}: {
  label: string;
  help?: string;
  options: readonly { value: string; words: string }[];
  value: readonly string[];
  across?: boolean;
  onChange: (value: string[]) => void;
}) {
  return (
    <Fieldset.Root>
      <Fieldset.Legend textStyle="label">{label}</Fieldset.Legend>
      {help !== undefined && <Sub>{help}</Sub>}
      <Stack direction={across ? 'row' : 'column'} gap={across ? '3' : '1'} flexWrap="wrap">
        {options.map((o) => (
          <Checkbox
            key={o.value}
            checked={value.includes(o.value)}
            onChange={(on) =>
              onChange(options.map((p) => p.value).filter((v) => (v === o.value ? on : value.includes(v))))
            }
          >
            {o.words}
          </Checkbox>
        ))}
      </Stack>
    </Fieldset.Root>
  );
}
