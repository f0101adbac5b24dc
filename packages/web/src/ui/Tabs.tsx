import { Tabs as Base } from '@chakra-ui/react';
import type { ReactNode } from 'react';

export interface Side {
  id: string;
  title: ReactNode;
  body: ReactNode;
}

/** Sides of one sheet; what is not seen is not made. `upright`: their names stand in a column, where there is room. */
export function Tabs({
  label,
  sides,
  at,
  onAt,
  upright = false,
}: {
  label: string;
  sides: readonly Side[];
  /** Which side is up, where the screen says so. */
  at?: string;
  onAt?: (id: string) => void;
  upright?: boolean;
}) {
  return (
    <Base.Root
      {...(at === undefined ? { defaultValue: sides[0]?.id ?? null } : { value: at })}
      onValueChange={(e) => onAt?.(e.value)}
      orientation={upright ? 'vertical' : 'horizontal'}
      lazyMount
      unmountOnExit
      variant={upright ? 'upright' : 'line'}
    >
      <Base.List aria-label={label}>
        {sides.map((s) => (
          <Base.Trigger key={s.id} value={s.id}>
            {s.title}
          </Base.Trigger>
        ))}
      </Base.List>
      {sides.map((s) => (
        <Base.Content key={s.id} value={s.id} minWidth="0">
          {s.body}
        </Base.Content>
      ))}
    </Base.Root>
  );
}
