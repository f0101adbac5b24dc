import { Box } from '@chakra-ui/react';
import type { FolderLink, Sharing } from '@zb/core/model/sharing';
import { treeOf, type TreeNode } from '@zb/core/storage/share/links';
import { Quiet, Word } from '../../ui/Button';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Acts, Data, Head, Sub } from '../../ui/Words';

const flat = (nodes: readonly TreeNode[], depth = 0): { node: TreeNode; depth: number }[] =>
  nodes.flatMap((node) => [{ node, depth }, ...flat(node.below, depth + 1)]);

/** Shared folders and links as they lie in each other: one copy, seen in several places. */
export function ShareTree({
  sharing,
  onLink,
  onDrop,
}: {
  sharing: Sharing;
  onLink: (id: string | null) => void;
  onDrop: (link: FolderLink) => void;
}) {
  return (
    <Box as="section" aria-label="Where it lies">
      <Head marginBottom="1">Where it lies</Head>
      <Ruled label="Folders as a tree" heads={['Folder', 'What it is']} silent>
        {flat(treeOf(sharing)).map(({ node, depth }) => (
          <Line key={node.path}>
            <LineHead fontWeight={node.share === null ? 'normal' : 'strong'}>
              <Box css={{ paddingInlineStart: `${depth * 18}px` }}>
                <Data>{`${depth === 0 ? '/' : ''}${node.name}`}</Data>
              </Box>
            </LineHead>
            <Cell>
              {node.share !== null && `shared as “${node.share}”`}
              {node.link && (
                <>
                  the same as <Data overflowWrap="anywhere">{node.link.to}</Data>
                  {node.link.by === 'mount' ? ', mounted there' : ', a link'}{' '}
                  <Word onClick={() => onLink(node.link?.id ?? null)}>change</Word> ·{' '}
                  <Word onClick={() => node.link && onDrop(node.link)}>take away</Word>
                </>
              )}
            </Cell>
          </Line>
        ))}
      </Ruled>
      <Acts marginTop="2">
        <Quiet onClick={() => onLink(null)}>See one copy in another place</Quiet>
        <Sub>Circles and ends that nothing stands at are refused.</Sub>
      </Acts>
    </Box>
  );
}
