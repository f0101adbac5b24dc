import { Box, HStack } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** A slim line above the sheet, and what can be done about it at its end. */
export const Notice = ({
  bad = false,
  told = false,
  end,
  children,
}: {
  bad?: boolean;
  /** Those who hear the page are told of it when they have heard the rest. */
  told?: boolean;
  end: ReactNode;
  children: ReactNode;
}) => (
  <HStack
    {...(bad ? { role: 'alert' } : told ? { role: 'status' } : {})}
    bg={bad ? 'stop.wash' : 'bg.margin'}
    borderBottom="firm"
    paddingBlock="1"
    paddingInline={{ base: '4', lg: '5' }}
    columnGap="4"
    rowGap="0"
    flexWrap="wrap"
    css={{ fontSize: '12.5px' }}
  >
    <Box css={{ flex: '1 1 320px' }}>{children}</Box>
    <HStack columnGap="4" rowGap="0" flexWrap="wrap" whiteSpace="nowrap">
      {end}
    </HStack>
  </HStack>
);
