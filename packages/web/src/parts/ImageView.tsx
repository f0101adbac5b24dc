import { Box, Grid, Stack } from '@chakra-ui/react';
import { imageFaultWords } from '@zb/core/words/imageFinding';
import type { ReactNode } from 'react';
import type { ImageItem, Machine } from '@zb/core/model/bench';
import { contentOf, type Inspection } from '@zb/core/model/inspection';
import { formatExact, formatIec } from '@zb/core/units/bytes';
import type { OpenImage } from '../workers/openImages';
import { Anatomy } from '../drawing/Anatomy';
import { Word } from '../ui/Button';
import { HazardMark } from '../ui/Marks';
import { Said } from '../ui/Said';
import { Data, Head } from '../ui/Words';
import { ForBox } from './ForBox';
import { HashPanel } from './HashPanel';
import { Identity } from './Identity';
import { Packed } from './Packed';
import { OutcomeGrid, type GridMachine } from './OutcomeGrid';

/** Anatomy beside digest, findings and outcomes; the same for a box and for the image room. */
export function ImageView({
  name,
  bytes,
  inspection,
  open,
  image,
  machine,
  boxMachine,
  evidence,
  onEvidence,
  onList,
  onCancel,
  children,
}: {
  name: string;
  bytes: number;
  inspection: Inspection;
  open: OpenImage | undefined;
  image: ImageItem | undefined;
  machine?: GridMachine | undefined;
  /** The machine of the box, for what to do with the image there. */
  boxMachine?: Machine | undefined;
  evidence: boolean;
  onEvidence: () => void;
  onList: (text: string, from: string) => string | null;
  onCancel: () => void;
  children?: ReactNode;
}) {
  const content = contentOf(inspection);
  return (
    <Grid gap="6" templateColumns={{ base: 'minmax(0, 1fr)', xl: '318px minmax(0, 1fr)' }}>
      <Box minWidth="0" order={{ base: 1, xl: 0 }}>
        <Head overflowWrap="anywhere" title={formatExact(bytes)} marginBottom="3">
          {name} <Data>{formatIec(bytes)}</Data>
        </Head>
        <Anatomy key={`${name} ${content.bytes}`} reading={content} />
      </Box>
      <Stack gap="3" minWidth="0">
        <HashPanel open={open} image={image} onList={onList} onCancel={onCancel} />
        <Packed inspection={inspection} />
        {content.findings.map((f) => (
          <Said key={imageFaultWords(f.fault)} kind={f.grade}>
            <HazardMark grade={f.grade} /> {imageFaultWords(f.fault)}{' '}
            {f.offset !== undefined && evidence && <Data>byte {f.offset}</Data>}
          </Said>
        ))}
        {boxMachine && !content.findings.some((f) => f.grade === 'stop') && (
          <ForBox machine={boxMachine} reading={content} />
        )}
        <OutcomeGrid outcomes={content.outcomes} machine={machine} evidence={evidence} />
        <Identity identity={content.identity} />
        <Box>
          <Word onClick={onEvidence}>
            {evidence ? 'Hide the evidence' : 'Show the evidence: offsets, fields, standards'}
          </Word>
        </Box>
        {children}
      </Stack>
    </Grid>
  );
}
