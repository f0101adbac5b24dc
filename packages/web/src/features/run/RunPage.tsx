import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { ChevronLeft, ChevronRight, Maximize, X } from 'lucide-react';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { doneStep, leaveStep, photographStep, undoneStep } from '@zb/core/acts/run';
import { planOf } from '@zb/core/box/plan';
import { isOpen, untilAlone } from '@zb/core/box/runSheet';
import { currentStop } from '@zb/core/box/summary';
import { stopTitle } from '@zb/core/model/stops';
import { formatDuration } from '@zb/core/units/duration';
import { asksWords } from '@zb/core/words/runsheet/around';
import { withBox, type BoxContext } from '../../parts/BoxFrame';
import { smallPhoto } from '../../parts/photo';
import { RouteStrip } from '../../parts/RouteStrip';
import { Shortcuts } from '../../parts/Shortcuts';
import { stamp, useAct } from '../../storage/hooks';
import { Primary, Quiet } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Input } from '../../ui/Input';
import { PickFile } from '../../ui/PickFile';
import { Said } from '../../ui/Said';
import { usePhone } from '../../ui/useMedia';
import { Finished } from './Finished';
import { LeaveOut } from './LeaveOut';
import { ownClock } from './ownClock';
import { RunMargin } from './RunMargin';
import { StepFace } from './StepFace';
import { useAwake } from './useAwake';
import { DONE_PART, useOneButton } from './useOneButton';

const AllSteps = lazy(() => import('./AllSteps').then((m) => ({ default: m.AllSteps })));
const LooksDifferent = lazy(() => import('./LooksDifferent').then((m) => ({ default: m.LooksDifferent })));

function RunPage({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const act = useAct();
  const go = useNavigate();
  const phone = usePhone();
  const awake = useAwake();
  const plan = useMemo(() => planOf(bench, box), [bench, box]);
  const { sheet } = plan;
  const [looking, setLooking] = useState<string | null>(null);
  // What was typed, and what went wrong, belong to the step they were of.
  const [typed, setTyped] = useState({ of: '', text: '' });
  const [all, setAll] = useState(false);
  const [leaving, setLeaving] = useState(false);
  const [different, setDifferent] = useState(false);
  const [trouble, setTrouble] = useState({ of: '', text: '' });
  const keyed = (key: string | null | undefined) => sheet.steps.find((s) => s.key === key);
  // Leaving and returning lands on the step whose clock runs.
  const step = keyed(looking) ?? keyed(sheet.clock?.key) ?? sheet.next ?? undefined;
  const at = step?.key;

  useEffect(() => {
    document.title = `${box.name}, step by step · Zealous Box`;
  }, [box.name]);
  const noted = typed.of === at ? typed.text : '';
  const problem = trouble.of === at ? trouble.text : '';
  const since =
    step?.state !== 'ready'
      ? null
      : sheet.clock === null
        ? ownClock(box.id, step.key)
        : sheet.clock.key === step.key
          ? sheet.clock.since
          : null;

  // Going on against a Stop, or without what must be so first, wants a reason.
  const lacks = step && isOpen(step) ? step.must.filter((m) => m.holds === false) : [];
  const despite = (step?.against.length ?? 0) + lacks.length > 0;
  const mayBegin = step?.state === 'ready' || step?.state === 'not recorded';
  const may = mayBegin && (!despite || noted.trim() !== '');
  const done = (): void => {
    if (!step || !may) return;
    setLooking(null);
    void act(doneStep(bench, box, step, noted, stamp(), since));
  };
  const leave = (): void => void go(`/box/${box.id}/${currentStop(box)}`);
  const by = (n: number) => () => {
    const next = step && sheet.steps[step.number - 1 + n];
    if (next) setLooking(next.key);
  };
  const photo = async (file: File): Promise<void> => {
    if (!step) return;
    try {
      const data = await smallPhoto(file);
      await act(photographStep(box, step, data, stamp()));
      setTrouble({ of: step.key, text: '' });
    } catch (error) {
      setTrouble({ of: step.key, text: error instanceof Error ? error.message : String(error) });
    }
  };
  const fullScreen = (): void =>
    void (document.fullscreenElement
      ? document.exitFullscreen()
      : document.documentElement.requestFullscreen());
  const differs = (): void => setDifferent(step !== undefined);
  useOneButton(done, differs);

  const alone = untilAlone(sheet);
  const margin = step && (
    <RunMargin plan={plan} step={step} since={since} onGo={setLooking} onAll={() => setAll(true)} />
  );
  return (
    <>
      <Shortcuts
        list={[
          { keys: 'd', does: 'it looks different', act: differs },
          { keys: 'l', does: 'all steps', act: () => setAll(true) },
          { keys: 'f', does: 'full screen, and back', act: fullScreen },
          { keys: 'x', does: 'leave run mode', act: leave },
          { keys: 'arrowleft', does: 'look at the step before', act: by(-1) },
          { keys: 'arrowright', does: 'look at the step after', act: by(1) },
          { keys: 'home', does: 'to the step that is next', act: () => setLooking(sheet.next?.key ?? null) },
        ]}
      />
      <Box
        as="main"
        id="sheet"
        tabIndex={-1}
        aria-labelledby="headline"
        gridArea="sheet"
        bg="bg"
        display="flex"
        flexDirection="column"
        minHeight="0"
        minWidth="0"
      >
        <Box
          flex="1"
          minHeight="0"
          overflow="auto"
          paddingBlock={{ base: '3', md: '5' }}
          paddingInline={{ base: '4', md: '10' }}
        >
          <HStack
            borderBottom="thin"
            paddingBottom="2"
            marginBottom={{ base: '4', md: '8' }}
            gap="3"
            align="center"
          >
            <Text textStyle="strong" truncate>
              {box.name}
            </Text>
            <Text textStyle="small" whiteSpace="nowrap">
              {step ? `step ${step.number} of ${sheet.steps.length} · ${stopTitle[step.stop]}` : ''}
            </Text>
            <Text textStyle="small" marginLeft="auto" truncate hideBelow="md">
              {alone !== null && alone > 0 && `next wait in ${formatDuration(alone)}`}
              {awake ? ' · the screen stays on' : ''}
            </Text>
            <HStack
              gap="1"
              marginLeft={{ base: 'auto', md: '0' }}
              flexShrink="0"
              _print={{ display: 'none' }}
            >
              <IconButton word="Full screen" boxSize="touch" icon={<Maximize />} onClick={fullScreen} />
              <IconButton word="Leave run mode" boxSize="touch" icon={<X />} onClick={leave} />
            </HStack>
          </HStack>
          {step ? (
            <Stack gap="5" key={step.key}>
              <StepFace step={step} onMend={({ stage }) => void go(`/box/${box.id}/${stage}`)} />
              {mayBegin && (step.asks !== null || despite) && (
                <Box maxWidth="form">
                  <Input
                    label={
                      despite ? 'Why you go on all the same' : step.asks === null ? '' : asksWords(step.asks)
                    }
                    maxLength={500}
                    value={noted}
                    onChange={(e) => setTyped({ of: step.key, text: e.target.value })}
                    minHeight="touch"
                    textStyle="near"
                  />
                </Box>
              )}
              {problem !== '' && <Said kind="stop">{problem}</Said>}
              {phone && margin}
            </Stack>
          ) : (
            <Finished context={context} plan={plan} onGo={setLooking} />
          )}
        </Box>
        <HStack
          gap="2.5"
          borderTop="firm"
          paddingBlock="3"
          paddingInline={{ base: '4', md: '10' }}
          overflowX={{ base: 'auto', md: 'visible' }}
          flexWrap={{ base: 'nowrap', md: 'wrap' }}
          // On paper there is nothing to press.
          _print={{ display: 'none' }}
        >
          {step?.state === 'done' && step.done?.ticked ? (
            <Quiet size="lg" onClick={() => void act(undoneStep(bench, box, step))}>
              Not done after all
            </Quiet>
          ) : step?.state === 'left out' ? (
            <Quiet size="lg" onClick={() => void act(leaveStep(box, step, null, stamp()))}>
              Take it in again
            </Quiet>
          ) : (
            <Primary size="lg" data-part={DONE_PART} onClick={done} disabled={!may}>
              Done
            </Primary>
          )}
          {step && (
            <Quiet size="lg" onClick={differs}>
              It looks different
            </Quiet>
          )}
          {step && <PickFile large label="Photo" accept={['image/*']} onFile={(f) => void photo(f)} />}
          {step && isOpen(step) && (
            <Quiet size="lg" onClick={() => setLeaving(true)}>
              Leave it out
            </Quiet>
          )}
          <Quiet size="lg" onClick={() => setAll(true)}>
            All steps
          </Quiet>
          <HStack gap="1" flexShrink="0">
            <IconButton
              word="Step before"
              boxSize="touch"
              icon={<ChevronLeft />}
              onClick={by(-1)}
              disabled={step === undefined || step.number === 1}
            />
            <IconButton
              word="Step after"
              boxSize="touch"
              icon={<ChevronRight />}
              onClick={by(1)}
              disabled={step === undefined || step.number === sheet.steps.length}
            />
          </HStack>
          <Text textStyle="small" marginLeft="auto" hideBelow="wide">
            Space · D · L
          </Text>
        </HStack>
      </Box>
      {!phone && (
        <Box
          as="aside"
          aria-label="This step"
          tabIndex={0}
          gridArea="ledger"
          bg="bg.margin"
          borderLeft="firm"
          padding="5"
          overflow="auto"
          minHeight="0"
          overflowWrap="anywhere"
        >
          {margin}
        </Box>
      )}
      <RouteStrip bench={bench} box={box} />
      <Suspense fallback={null}>
        {all && (
          <AllSteps
            context={context}
            plan={plan}
            at={at}
            onGo={(key) => {
              setLooking(key);
              setAll(false);
            }}
            onClose={() => setAll(false)}
          />
        )}
      </Suspense>
      <Suspense fallback={null}>
        {different && step && (
          <LooksDifferent context={context} step={step} onClose={() => setDifferent(false)} />
        )}
      </Suspense>
      {leaving && step && <LeaveOut box={box} step={step} onClose={() => setLeaving(false)} />}
    </>
  );
}

export default withBox(RunPage);
