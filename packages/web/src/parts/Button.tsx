import { Button as Base, type ButtonProps } from '@chakra-ui/react';

const SHAPE = {
  borderRadius: '2px',
  fontWeight: 650,
  fontFamily: 'inherit',
  fontSize: '14px',
  height: 'auto',
  minWidth: 0,
  paddingInline: '14px',
  paddingBlock: '7px',
  lineHeight: 1.35,
  // A half-faded button is hard to read; it changes at once.
  transition: 'none',
} as const;

/** The one filled act of a screen. */
export const Primary = (props: ButtonProps) => (
  <Base
    {...SHAPE}
    background="var(--blue)"
    color="var(--blue-ink)"
    _hover={{ filter: 'brightness(1.12)' }}
    {...props}
  />
);

/** Every other act. */
export const Quiet = (props: ButtonProps) => (
  <Base
    {...SHAPE}
    background="transparent"
    color="var(--blue)"
    border="1px solid var(--blue)"
    _hover={{ background: 'var(--bluew)' }}
    {...props}
  />
);
