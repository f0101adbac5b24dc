import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { useDeferredValue, useMemo, useState } from 'react';
import { removeBox, updateBox } from '@zb/core/acts/box';
import { buildSheet } from '@zb/core/words/buildSheet';
import { keepHeadline } from '@zb/core/words/logbook';
import { findBox, logOf } from '@zb/core/model/bench';
import { boxSchema } from '@zb/core/model/box';
import { useNavigate } from 'react-router';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Quiet } from '../../ui/Button';
import { BuildSheet } from './BuildSheet';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { LogBook } from '../../parts/LogBook';
import { OneFact } from '../../parts/OneFact';
import { Dialog } from '../../ui/Dialog';
import { usePrinting } from '../../parts/usePrinting';
import { download, fileName } from '../../storage/download';
import { useAct } from '../../storage/hooks';
import { Fold } from '../../ui/Fold';
import { Head } from '../../ui/Words';

function KeepPage({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const act = useAct();
  const go = useNavigate();
  const [viewing, setViewing] = useState(false);
  const printing = usePrinting();
  // What was done is on the screen first; the sheet for print and saving follows it.
  const later = useDeferredValue(bench);
  const sheet = useMemo(() => buildSheet(later, findBox(later, box.id) ?? box), [later, box]);
  return (
    <BoxFrame
      context={context}
      stop="keep"
      headline={keepHeadline(bench, box)}
      acts={
        <>
          <Quiet onClick={() => download(fileName(box.name, 'md'), sheet, 'text/markdown')}>
            Save the build sheet
          </Quiet>
          <Quiet onClick={() => setViewing(true)}>View it</Quiet>
          <Quiet onClick={() => window.print()}>Print</Quiet>
        </>
      }
    >
      {printing && (
        <Box data-part="paper" display="none" _print={{ display: 'block' }}>
          <BuildSheet text={sheet} />
        </Box>
      )}
      <Stack gap="4" _print={{ display: 'none' }}>
        {box.decisions.length > 0 && (
          <Box>
            <Head>Decisions</Head>
            {box.decisions.map((d) => (
              <Text key={d.id}>
                <b>
                  {d.what}: {d.value}.
                </b>{' '}
                {d.because}
              </Text>
            ))}
          </Box>
        )}
        <LogEntryForm box={box} stop="keep" />
        <LogBook entries={logOf(bench, box.id)} />
        <Fold title="Rename or remove this box">
          <HStack gap="2" align="flex-end" maxWidth="form">
            <OneFact
              label="Name of the box"
              value={box.name}
              schema={boxSchema.shape.name.refine((n) => n.trim() !== '', 'A box needs a name.')}
              maxLength={200}
              onKeep={(name) => act(updateBox(box, { name: name.trim() }, `Box renamed “${name.trim()}”`))}
            />
            <Quiet
              onClick={() => {
                void act(removeBox(bench, box));
                void go('/shelf');
              }}
            >
              Remove the box and its log
            </Quiet>
          </HStack>
        </Fold>
      </Stack>
      <Dialog open={viewing} onClose={() => setViewing(false)} title="Build sheet" size="lg">
        <BuildSheet text={sheet} />
      </Dialog>
    </BoxFrame>
  );
}

export default withBox(KeepPage);
