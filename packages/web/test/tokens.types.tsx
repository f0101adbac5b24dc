import { Box, Button } from '@chakra-ui/react';

/* Compiled, never run: what the theme does not have does not compile. */

export const right = (
  <Box color="fg.muted" padding="3" borderBottom="thin" textStyle="label">
    <Button variant="solid">it is there</Button>
  </Box>
);
export const wrong = [
  // @ts-expect-error a colour that is no token
  <Box key="a" color="rebeccapurple" />,
  // @ts-expect-error a space that is no token
  <Box key="b" padding="13px" />,
  // @ts-expect-error a text style that is not there
  <Box key="c" textStyle="shouted" />,
  // @ts-expect-error a variant that is not there
  <Button key="d" variant="glossy" />,
];
