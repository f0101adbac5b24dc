import { Box, HStack, Stack } from '@chakra-ui/react';
import { useDeferredValue, useMemo, useState } from 'react';
import { removeBox, updateBox } from '@zb/core/acts/box';
import { judgedOn } from '@zb/core/box/today';
import { choresOf, isDue } from '@zb/core/keeping/chores';
import { knownFlag } from '@zb/core/model/known';
import { buildSheet } from '@zb/core/words/buildSheet';
import { keepHeadline } from '@zb/core/words/logbook';
import { findBox, logOf } from '@zb/core/model/bench';
import { boxSchema } from '@zb/core/model/box';
import { useNavigate } from 'react-router';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Label } from '../../parts/Label';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { LogBook } from '../../parts/LogBook';
import { OneFact } from '../../parts/OneFact';
import { Dialog } from '../../ui/Dialog';
import { usePrinting } from '../../parts/usePrinting';
import { download, fileName } from '../../storage/download';
import { useAct } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { Fold } from '../../ui/Fold';
import { Tabs } from '../../ui/Tabs';
import { BuildSheet } from './BuildSheet';
import { ComesRound } from './ComesRound';
import { CopyOrAgain } from './CopyOrAgain';
import { HandOver } from './HandOver';
import { Retire } from './Retire';

function KeepPage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  const go = useNavigate();
  const [open, setOpen] = useState<'sheet' | 'label' | null>(null);
  const printing = usePrinting();
  const today = judgedOn() ?? '';
  // What was done is on the screen first; the sheet for print and saving follows it.
  const later = useDeferredValue(bench);
  const sheet = useMemo(() => buildSheet(later, findBox(later, box.id) ?? box), [later, box]);
  const chores = useMemo(() => (today === '' ? [] : choresOf(bench, box, today)), [bench, box, today]);
  const due = chores.filter(isDue).length;
  const saveHtml = async (): Promise<void> => {
    const { sheetHtml } = await import('@zb/core/words/handOver/html');
    download(fileName(box.name, 'html'), sheetHtml(box.name, sheet), 'text/html');
  };
  return (
    <BoxFrame
      context={context}
      stop="keep"
      headline={keepHeadline(bench, box, today === '' ? null : due)}
      acts={
        <>
          <Quiet onClick={() => download(fileName(box.name, 'md'), sheet, 'text/markdown')}>
            Save the build sheet
          </Quiet>
          <Quiet onClick={() => setOpen('sheet')}>View it</Quiet>
          <Quiet onClick={() => window.print()}>Print</Quiet>
          <Quiet onClick={() => setOpen('label')}>Label</Quiet>
        </>
      }
    >
      {printing && (
        <Box data-part="paper" display="none" _print={{ display: 'block' }}>
          <BuildSheet text={sheet} />
        </Box>
      )}
      <Stack gap="4" _print={{ display: 'none' }}>
        <Tabs
          label="Keep"
          sides={[
            { id: 'hand-over', title: 'Hand over', body: <HandOver bench={bench} box={box} /> },
            ...(today === ''
              ? []
              : [
                  {
                    id: 'round',
                    title: due > 0 ? `Comes round, ${due} due` : 'Comes round',
                    body: <ComesRound bench={bench} box={box} chores={chores} today={today} />,
                  },
                ]),
            { id: 'copy', title: 'Copy or again', body: <CopyOrAgain bench={bench} box={box} /> },
            {
              id: 'retire',
              title: 'Retire',
              body: box.kept?.retired ? null : (
                <Retire
                  bench={bench}
                  box={box}
                  battery={machine !== undefined && knownFlag(machine, 'power.battery') === true}
                />
              ),
            },
          ]}
        />
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
      <Dialog open={open === 'sheet'} onClose={() => setOpen(null)} title="Build sheet" size="lg">
        <Box marginBottom="3">
          <Quiet onClick={() => void saveHtml()}>Save it as a page</Quiet>
        </Box>
        <BuildSheet text={sheet} />
      </Dialog>
      <Label open={open === 'label'} onClose={() => setOpen(null)} bench={bench} box={box} />
    </BoxFrame>
  );
}

export default withBox(KeepPage);
