import { Heading, HStack, Text, type HeadingProps, type StackProps, type TextProps } from '@chakra-ui/react';

/** A small line of its own under what it belongs to. */
export const Sub = (props: TextProps) => (
  <Text as="span" display="block" textStyle="small" fontWeight="normal" {...props} />
);

/** Words that stand back. */
export const Soft = (props: TextProps) => <Text as="span" color="fg.muted" {...props} />;

/** Serials, sizes, addresses and hashes, in the face that tells 0 and O apart. */
export const Data = (props: TextProps) => <Text as="span" textStyle="data" {...props} />;

/** The head of a small group. */
export const Head = (props: HeadingProps) => <Heading as="h2" textStyle="label" {...props} />;

/** What can be done here, side by side, broken where there is no room. */
export const Acts = (props: StackProps) => <HStack gap="2" flexWrap="wrap" {...props} />;
