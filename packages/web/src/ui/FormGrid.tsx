import { Grid, type GridProps } from '@chakra-ui/react';

/** Fields side by side, as many as there is room for; `gridColumn="1 / -1"` takes a line of its own. */
export const FormGrid = (props: GridProps) => (
  <Grid
    gap="3"
    columnGap="4"
    alignItems="start"
    css={{ gridTemplateColumns: 'repeat(auto-fill, minmax(min(220px, 100%), 1fr))' }}
    {...props}
  />
);
