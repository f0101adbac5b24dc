import { Portal, Tooltip } from '@chakra-ui/react';
import type { RefObject } from 'react';

/** The word of an icon, beside it. */
export default function Tip({ of, words }: { of: RefObject<HTMLElement | null>; words: string }) {
  return (
    <Tooltip.Root open positioning={{ getAnchorElement: () => of.current }}>
      <Portal>
        <Tooltip.Positioner>
          {/* The button tells its own word to those who hear the page. */}
          <Tooltip.Content aria-hidden="true">{words}</Tooltip.Content>
        </Tooltip.Positioner>
      </Portal>
    </Tooltip.Root>
  );
}
