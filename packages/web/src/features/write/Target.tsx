import { Box, HStack, List } from '@chakra-ui/react';
import type { GuardedTarget } from '@zb/core/write/guard';
import { contentTitle, isBlank } from '@zb/core/model/content';
import { columnHeights } from '@zb/core/write/columns';
import { formatBoth, formatExact, formatIec } from '@zb/core/units/bytes';
import { Columns, DriveColumn, type Stratum } from '../../drawing/DriveColumn';
import { Word } from '../../ui/Button';
import { Facts } from '../../ui/Facts';
import { Two } from '../../ui/Two';
import { Data, Head, Sub } from '../../ui/Words';

const holdsOf = (guarded: GuardedTarget): string =>
  guarded.known ? contentTitle(guarded.known) || 'empty' : 'not known';

/** Image and free rest, as a column's parts from the bottom up. */
function filled(imageName: string, imageBytes: number, targetBytes: number): Stratum[] {
  const heights = columnHeights(imageBytes, targetBytes);
  const name = imageName.length > 24 ? `${imageName.slice(0, 22)}…` : imageName;
  return [
    { share: heights.image, pattern: 'new', word: `new: ${name}` },
    { share: heights.rest, pattern: 'gap', word: `${formatIec(targetBytes - imageBytes)} free` },
  ];
}

const Details = ({ guarded: { target, known, tail }, guarded }: { guarded: GuardedTarget }) => (
  <Facts
    lines={[
      {
        what: 'Size',
        is: (
          <>
            {formatBoth(target.bytes)}
            <Sub textStyle="data">{formatExact(target.bytes)}</Sub>
          </>
        ),
      },
      {
        what: 'Serial',
        is: (
          <Data whiteSpace="nowrap">
            {target.serial?.slice(0, -4)}
            <Data as="b" css={{ fontSize: '16px' }}>
              {tail}
            </Data>
          </Data>
        ),
      },
      { what: 'Label', is: known?.label || 'none' },
      { what: 'Port', is: target.port },
      { what: 'On it', is: holdsOf(guarded) },
    ]}
  />
);

/** The stick before and after, as columns on one scale, with the words that say what becomes of it. */
export function BeforeAfter({
  guarded,
  imageBytes,
  imageName,
}: {
  guarded: GuardedTarget;
  imageBytes: number;
  imageName: string;
}) {
  const { target, known } = guarded;
  const erased = known && isBlank(known.content) ? 'empty, overwritten' : `erased: ${holdsOf(guarded)}`;
  return (
    <HStack align="flex-start" gap="3" flexWrap={{ base: 'wrap', xl: 'nowrap' }}>
      <Columns bytes={target.bytes}>
        <DriveColumn title="Now" strata={[{ share: 1, pattern: 'erased', word: erased }]} />
        <DriveColumn title="After" strata={filled(imageName, imageBytes, target.bytes)} />
      </Columns>
      <Details guarded={guarded} />
    </HStack>
  );
}

/** A stick that holds the proven image, and what to do with it next. */
export function Written({
  guarded,
  image,
  steps,
  onAgain,
}: {
  guarded: GuardedTarget;
  image: { name: string; bytes: number };
  steps: readonly string[];
  onAgain: () => void;
}) {
  return (
    <Two wider alignItems="start">
      <HStack align="flex-start" gap="3" flexWrap={{ base: 'wrap', xl: 'nowrap' }}>
        <Columns bytes={guarded.target.bytes}>
          <DriveColumn title="On it now" strata={filled(image.name, image.bytes, guarded.target.bytes)} />
        </Columns>
        <Details guarded={guarded} />
      </HStack>
      <Box>
        <Head>What to do with it</Head>
        <List.Root as="ol" marks="steps">
          {steps.map((s) => (
            <List.Item key={s}>{s}</List.Item>
          ))}
        </List.Root>
        <Word onClick={onAgain}>Write it once more</Word>
      </Box>
    </Two>
  );
}
