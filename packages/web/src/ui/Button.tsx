import { Button as Base, type ButtonProps } from '@chakra-ui/react';

/** The one filled act of a screen. */
export const Primary = (props: ButtonProps) => <Base variant="solid" {...props} />;

/** Every other act. */
export const Quiet = (props: ButtonProps) => <Base variant="outline" {...props} />;

/** An act that is a word among others. */
export const Word = (props: ButtonProps) => <Base variant="plain" size="word" {...props} />;
