import { Box, Heading } from '@chakra-ui/react';
import { memo } from 'react';
import Markdown, { type Components } from 'react-markdown';
import gfm from 'remark-gfm';

const components: Components = {
  // The screen has its own first heading; the document stands one level below it.
  h1: ({ children }) => (
    <Heading as="h2" textStyle="headline">
      {children}
    </Heading>
  ),
  h2: ({ children }) => (
    <Heading as="h3" textStyle="strong" marginTop="4" marginBottom="1" borderBottom="ink">
      {children}
    </Heading>
  ),
  // A box that cannot be ticked here is a mark and a word, not a form field.
  input: ({ checked }) => (
    <span>
      <span aria-hidden="true">{checked ? '■ ' : '□ '}</span>
      <Box as="span" srOnly>
        {checked ? 'signed off: ' : 'open: '}
      </Box>
    </span>
  ),
};

/** The text comes as plain elements: their look is set from around them. */
const LOOK = {
  fontSize: '13px',
  '& p': { marginBlock: '4px' },
  '& ul, & ol': { paddingInlineStart: '18px', listStyle: 'square' },
  '& ul.contains-task-list': { listStyle: 'none', paddingInlineStart: 0 },
  '& table': { borderCollapse: 'collapse', width: '100%', marginBlock: '6px' },
  '& th': { textAlign: 'start', borderBottom: '1px solid {colors.fg}', paddingInlineEnd: '10px' },
  '& td': {
    verticalAlign: 'top',
    padding: '2px 10px 2px 0',
    borderBottom: '1px solid {colors.rule}',
    overflowWrap: 'anywhere',
  },
  '& code': { textStyle: 'data' },
  '& tr, & li': { breakInside: 'avoid' },
} as const;

/** The build sheet as it reads on paper. The same text is what “Save the build sheet” saves. */
export const BuildSheet = memo(function BuildSheet({ text }: { text: string }) {
  return (
    <Box css={LOOK}>
      <Markdown remarkPlugins={[gfm]} components={components}>
        {text}
      </Markdown>
    </Box>
  );
});
