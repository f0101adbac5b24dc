import { Grid, type GridProps } from '@chakra-ui/react';
import type { Ref } from 'react';

/** Two columns where there is room for them, one under the other where there is not; `wider` is the left one. */
export const Two = ({
  wider = false,
  ...rest
}: { wider?: boolean; ref?: Ref<HTMLDivElement> } & GridProps) => (
  <Grid
    gap="6"
    templateColumns={{
      base: 'minmax(0, 1fr)',
      ...(wider ? { lg: 'minmax(0, 1.3fr) minmax(0, 1fr)' } : { md: 'repeat(2, minmax(0, 1fr))' }),
    }}
    {...rest}
  />
);
