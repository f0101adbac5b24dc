import { chakra, HStack } from '@chakra-ui/react';
import type { PlaceGroup } from '@zb/core/machine/schematic';
import { Mouth } from './Schematic';

/** The places of a machine in one line: what is taken is filled, what is free is open. */
export const Places = ({ groups, name }: { groups: readonly PlaceGroup[]; name: string }) => (
  <HStack
    role="img"
    aria-label={`Places of ${name}: ${groups
      .map((g) => `${g.title}, ${g.places.filter((p) => p.holds === null).length} of ${g.places.length} free`)
      .join('; ')}`}
    columnGap="3"
    rowGap="0.5"
    flexWrap="wrap"
    color="fg.muted"
  >
    {groups.map((g) => (
      <chakra.span key={g.title} display="inline-flex" alignItems="center" gap="0.5" title={g.title}>
        {g.places.slice(0, 8).map((p, i) => (
          <Mouth key={i} of={g.title} taken={p.holds !== null} />
        ))}
      </chakra.span>
    ))}
  </HStack>
);
