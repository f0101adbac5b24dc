import { IconButton as Base, Portal, Tooltip, type IconButtonProps } from '@chakra-ui/react';
import type { ReactElement } from 'react';

/** An act shown as an icon; its word is told on hover, on focus and to those who hear the page. */
export function IconButton({
  word,
  icon,
  keys,
  small = false,
  ...rest
}: {
  word: string;
  icon: ReactElement;
  /** The key that does the same, told with the word. */
  keys?: string;
  /** Within a line of text: no frame of its own. */
  small?: boolean;
} & Omit<IconButtonProps, 'children' | 'size'>) {
  return (
    <Tooltip.Root openDelay={250} closeDelay={80} lazyMount unmountOnExit>
      <Tooltip.Trigger asChild>
        <Base
          aria-label={word}
          {...(small ? { variant: 'bare', size: 'small' } : { variant: 'outline', size: 'icon' })}
          {...rest}
        >
          {icon}
        </Base>
      </Tooltip.Trigger>
      <Portal>
        <Tooltip.Positioner>
          <Tooltip.Content>
            {word}
            {keys !== undefined && ` (${keys})`}
          </Tooltip.Content>
        </Tooltip.Positioner>
      </Portal>
    </Tooltip.Root>
  );
}
