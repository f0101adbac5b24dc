import { useNavigate } from 'react-router';
import { Box } from '@chakra-ui/react';
import type { Box as Build } from '@zb/core/model/bench';
import { Segments } from '../../ui/Segments';

const VIEWS = ['Layout', 'Rehearsal', 'Opening'] as const;
const PATH = { Layout: '', Rehearsal: '/rehearsal', Opening: '/opening' } as const;

/** The sheets of the stop: what becomes of the drive, whether it is the right one in every world, and the machine's inside. */
export function InstallViews({ box, at }: { box: Build; at: (typeof VIEWS)[number] }) {
  const go = useNavigate();
  return (
    <Box alignSelf="flex-start">
      <Segments
        label="Sheet of this stop"
        options={VIEWS}
        value={at}
        onTake={(to) => void go(`/box/${box.id}/install${PATH[to]}`)}
      />
    </Box>
  );
}
