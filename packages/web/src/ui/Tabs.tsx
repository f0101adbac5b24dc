import { Tabs as Base } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** Sides of one sheet; what is not seen is not made. */
export function Tabs({
  label,
  sides,
}: {
  label: string;
  sides: readonly { title: string; body: ReactNode }[];
}) {
  return (
    <Base.Root defaultValue={sides[0]?.title ?? null} lazyMount>
      <Base.List aria-label={label}>
        {sides.map((s) => (
          <Base.Trigger key={s.title} value={s.title}>
            {s.title}
          </Base.Trigger>
        ))}
      </Base.List>
      {sides.map((s) => (
        <Base.Content key={s.title} value={s.title}>
          {s.body}
        </Base.Content>
      ))}
    </Base.Root>
  );
}
