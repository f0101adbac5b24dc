import { IconButton as Base, Portal, Tooltip, type IconButtonProps } from '@chakra-ui/react';
import type { ReactElement } from 'react';

/** An act shown as an icon; its word is told on hover, on focus and to those who hear the page. */
export function IconButton({
  word,
  icon,
  ...rest
}: { word: string; icon: ReactElement } & Omit<IconButtonProps, 'children' | 'size'>) {
  return (
    <Tooltip.Root openDelay={250} closeDelay={80}>
      <Tooltip.Trigger asChild>
        <Base aria-label={word} variant="outline" size="icon" {...rest}>
          {icon}
        </Base>
      </Tooltip.Trigger>
      <Portal>
        <Tooltip.Positioner>
          <Tooltip.Content>{word}</Tooltip.Content>
        </Tooltip.Positioner>
      </Portal>
    </Tooltip.Root>
  );
}
