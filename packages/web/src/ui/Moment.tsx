import { chakra, Popover, Portal } from '@chakra-ui/react';
import { formatExactMoment, formatMoment } from '@zb/core/units/date';
import { useState } from 'react';

/** A moment in short, by the clock of the place; hovered or tapped it is told to the second. `at` as the bench keeps it. */
export function Moment({ at }: { at: string }) {
  const [asked, setAsked] = useState(false);
  const short = (
    <chakra.button
      type="button"
      font="inherit"
      css={{ color: 'inherit', cursor: 'help', lineHeight: 'inherit' }}
      title={formatExactMoment(at)}
      onClick={() => setAsked(true)}
    >
      <time dateTime={at}>{formatMoment(at)}</time>
    </chakra.button>
  );
  // Of very many in a list only the one that is asked for is more than a word.
  if (!asked) return short;
  return (
    <Popover.Root
      defaultOpen
      onExitComplete={() => setAsked(false)}
      positioning={{ placement: 'bottom-start' }}
    >
      <Popover.Trigger asChild>{short}</Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content>
            <Popover.Body>{formatExactMoment(at)}</Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}
