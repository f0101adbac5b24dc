import { RadioGroup } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Sub } from './Words';

export interface Choice<T extends string> {
  value: T;
  words: ReactNode;
  /** What it means, under it. */
  means?: ReactNode;
}

/** One of a few, all in sight; what is taken counts at once. */
export function Choices<T extends string>({
  label,
  choices,
  value,
  across = false,
  onTake,
}: {
  label: string;
  choices: readonly Choice<T>[];
  value: T | null;
  /** Side by side instead of one under another. */
  across?: boolean;
  onTake: (value: T) => void;
}) {
  return (
    <RadioGroup.Root
      value={value}
      onValueChange={(e) => e.value !== null && onTake(e.value as T)}
      across={across}
    >
      <RadioGroup.Label>{label}</RadioGroup.Label>
      {choices.map((c) => (
        <RadioGroup.Item key={c.value} value={c.value}>
          <RadioGroup.ItemHiddenInput />
          <RadioGroup.ItemControl />
          <RadioGroup.ItemText>
            {c.words}
            {c.means !== undefined && <Sub>{c.means}</Sub>}
          </RadioGroup.ItemText>
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
