import { RadioCard } from '@chakra-ui/react';
import type { ReactNode } from 'react';

export interface Card {
  value: string;
  title: string;
  /** Its case, in a line or two. */
  words: ReactNode;
  /** What it means here, computed. */
  here?: ReactNode;
}

/** The cards of a school: one way out of several, each with its case. Arrow keys go from card to card. */
export function Cards({
  label,
  cards,
  value,
  onTake,
}: {
  label: string;
  cards: readonly Card[];
  value: string | null;
  onTake: (value: string) => void;
}) {
  return (
    <RadioCard.Root value={value} onValueChange={(e) => e.value !== null && onTake(e.value)}>
      <RadioCard.Label>{label}</RadioCard.Label>
      {cards.map((c) => (
        <RadioCard.Item key={c.value} value={c.value}>
          <RadioCard.ItemHiddenInput />
          <RadioCard.ItemControl>
            <RadioCard.ItemIndicator />
            <RadioCard.ItemContent>
              <RadioCard.ItemText>{c.title}</RadioCard.ItemText>
              <RadioCard.ItemDescription>{c.words}</RadioCard.ItemDescription>
              {c.here !== undefined && <RadioCard.ItemDescription>{c.here}</RadioCard.ItemDescription>}
            </RadioCard.ItemContent>
          </RadioCard.ItemControl>
        </RadioCard.Item>
      ))}
    </RadioCard.Root>
  );
}
