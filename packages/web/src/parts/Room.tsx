import { chakra } from '@chakra-ui/react';

/** The room of rows that are not drawn. */
export const Room = ({ height }: { height: number }) =>
  height > 0 ? (
    <chakra.tr aria-hidden="true">
      <chakra.td colSpan={99} padding="0" border="none" css={{ height: `${height}px` }} />
    </chakra.tr>
  ) : null;
