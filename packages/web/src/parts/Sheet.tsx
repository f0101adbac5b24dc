import { Box, Heading, HStack, Text } from '@chakra-ui/react';
import { useEffect, useLayoutEffect, useRef, type ReactNode } from 'react';
import { useLocation } from 'react-router';
import { useNarrow } from '../ui/useMedia';
import { InBar } from './slots';

export interface SheetProps {
  /** Left of the tab line: whose sheet this is. */
  title: string;
  mid?: ReactNode;
  right?: ReactNode;
  /** What of the tab line a phone has room for. */
  short?: ReactNode;
  /** The one question or finding. */
  headline: string;
  children: ReactNode;
  foot?: ReactNode;
  hint?: string;
  /** The last child takes the height that is left and scrolls by itself. */
  fill?: boolean;
}

/** The ruled sheet in the middle: tab line, headline, the working picture, and the acts at its foot. */
export function Sheet({
  title,
  mid,
  right,
  short,
  headline,
  children,
  foot,
  hint,
  fill = false,
}: SheetProps) {
  const main = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  const narrow = useNarrow();
  useEffect(() => {
    document.title = `${title} · Zealous Box`;
  }, [title]);
  // A new screen takes the focus, so that its keys work and a screen reader hears it.
  useLayoutEffect(() => {
    if (!main.current?.contains(document.activeElement)) main.current?.focus({ preventScroll: true });
  }, [pathname]);
  return (
    <Box
      as="main"
      id="sheet"
      tabIndex={-1}
      ref={main}
      aria-labelledby="headline"
      gridArea="sheet"
      bg="bg"
      borderTop={{ base: 'none', lg: 'firm' }}
      borderLeft={{ base: 'none', lg: 'firm' }}
      marginTop={{ lg: '3' }}
      display="flex"
      flexDirection="column"
      minHeight="0"
      minWidth="0"
      _print={{ border: 'none', overflow: 'visible', display: 'block' }}
    >
      <Box
        position="relative"
        flex="1"
        minHeight="0"
        overflow="auto"
        paddingBlock="3"
        paddingInline={{ base: '4', lg: '5' }}
        _print={{ overflow: 'visible', padding: '0' }}
        {...(fill ? { display: 'flex', flexDirection: 'column' as const } : {})}
        css={fill ? {} : { '& > *': { maxWidth: { wide: '1240px' } } }}
      >
        {narrow ? (
          <InBar slot="title">
            <Text as="span" textStyle="strong" truncate>
              {title}
            </Text>
            <Text as="span" textStyle="small" flexShrink="0">
              {short}
            </Text>
          </InBar>
        ) : (
          <HStack
            data-part="tab"
            align="baseline"
            gap="2.5"
            borderBottom="thin"
            paddingBottom="1.5"
            color="fg.muted"
          >
            <Text as="b" textStyle="strong" color="fg" truncate title={title}>
              {title}
            </Text>
            <Text as="span" textStyle="small" truncate minWidth="0">
              {mid}
            </Text>
            <Text as="span" textStyle="small" marginLeft="auto" whiteSpace="nowrap">
              {right}
            </Text>
          </HStack>
        )}
        <Heading
          as="h1"
          id="headline"
          textStyle="headline"
          marginBlock="3"
          textWrap="balance"
          overflowWrap="anywhere"
        >
          {headline}
        </Heading>
        {children}
      </Box>
      {foot !== undefined && (
        <HStack
          gap="2.5"
          // On a phone one row, the first act at the thumb, the others beside it.
          flexWrap={{ base: 'nowrap', md: 'wrap' }}
          overflowX={{ base: 'auto', md: 'visible' }}
          borderTop="firm"
          paddingBlock="2"
          paddingInline={{ base: '4', lg: '5' }}
          _print={{ display: 'none' }}
        >
          {foot}
          {hint !== undefined && (
            <Text textStyle="small" marginLeft="auto" hideBelow="lg">
              {hint}
            </Text>
          )}
        </HStack>
      )}
    </Box>
  );
}
