import { useNavigate } from 'react-router';
import { Box } from '@chakra-ui/react';
import type { Box as Build } from '@zb/core/model/bench';
import { Segments } from '../../ui/Segments';

const VIEWS = ['Layout', 'Rehearsal'] as const;

/** The two sheets of the stop: what becomes of the drive, and whether it is the right drive in every world. */
export function InstallViews({ box, at }: { box: Build; at: (typeof VIEWS)[number] }) {
  const go = useNavigate();
  return (
    <Box alignSelf="flex-start">
      <Segments
        label="Sheet of this stop"
        options={VIEWS}
        value={at}
        onTake={(to) => void go(`/box/${box.id}/install${to === 'Rehearsal' ? '/rehearsal' : ''}`)}
      />
    </Box>
  );
}
