import { Box, chakra, type HTMLChakraProps } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { Head } from '../ui/Words';

/** Groups of facts in as many columns as there is room for. */
export const FactColumns = (props: HTMLChakraProps<'div'>) => (
  <chakra.div css={{ columns: { base: 1, lg: '2 320px', wide: '3 320px' }, columnGap: '26px' }} {...props} />
);

/** One group under its head; its lines stay together where they can. */
export const FactGroup = ({ title, children }: { title: string; children: ReactNode }) => (
  <Box as="section" aria-label={title} marginBottom="3" css={{ breakInside: 'avoid-column' }}>
    <Head borderBottom="ink" paddingBottom="0.5">
      {title}
    </Head>
    {children}
  </Box>
);

/** What it is, its value, and what can be done about it. */
export const FactRow = ({ part = 'fact', ...rest }: { part?: string } & HTMLChakraProps<'div'>) => (
  <chakra.div
    data-part={part}
    display="grid"
    borderBottom="thin"
    alignItems="baseline"
    css={{
      gridTemplateColumns: 'minmax(90px, 36%) minmax(0, 1fr) auto',
      columnGap: '8px',
      paddingBlock: '1px',
      fontSize: '13px',
      overflowWrap: 'anywhere',
    }}
    {...rest}
  />
);
