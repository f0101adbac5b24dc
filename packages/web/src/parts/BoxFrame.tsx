import { HStack } from '@chakra-ui/react';
import { ChevronLeft, ChevronRight, Play } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { useNavigate, useParams } from 'react-router';
import { againstSignoff, toggleSignoff } from '@zb/core/acts/box';
import { isClosed } from '@zb/core/keeping/closed';
import { profileLine } from '@zb/core/system/options';
import { summaryOf } from '@zb/core/box/summary';
import { hazardWords } from '@zb/core/words/hazard';
import {
  findBox,
  findMachine,
  findProfile,
  type Bench,
  type Box,
  type Machine,
  type Profile,
} from '@zb/core/model/bench';
import { stops, stopTitle, type Stop } from '@zb/core/model/stops';
import NotFound from './NotFound';
import { RouteStrip } from './RouteStrip';
import { stamp, useAct, useBench } from '../storage/hooks';
import { Primary, Quiet, Word } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { Closed } from './Closed';
import { BoxLedger } from './LedgerPane';
import { Sheet } from './Sheet';
import { Shortcuts, type Shortcut } from './Shortcuts';
import { SignDespite } from './SignDespite';
import { TradeLines } from './TradeLines';

export interface BoxContext {
  bench: Bench;
  box: Box;
  machine: Machine | undefined;
  profile: Profile | undefined;
}

/** The box named by the address, or undefined where it is not on the bench. */
export function useBoxContext(): BoxContext | undefined {
  const { boxId } = useParams();
  const bench = useBench();
  const box = findBox(bench, boxId);
  return (
    box && {
      bench,
      box,
      machine: findMachine(bench, box.machineId),
      profile: findProfile(bench, box.profileId),
    }
  );
}

interface FrameProps {
  context: BoxContext;
  stop: Stop;
  headline: string;
  children: ReactNode;
  /** Further acts, between the sign-off and the hint. */
  acts?: ReactNode;
  hint?: string;
  /** Why the stop cannot be signed off at this moment. */
  busy?: string | undefined;
  signWords?: string;
  shortcuts?: readonly Shortcut[];
  /** What stands above the ledger in the margin. */
  margin?: ReactNode;
}

/** Sheet, ledger and route of one stop; signing off is the same everywhere. */
export function BoxFrame({
  context,
  stop,
  headline,
  children,
  acts,
  hint,
  busy,
  signWords,
  shortcuts = [],
  margin,
}: FrameProps) {
  const { bench, box, machine, profile } = context;
  const act = useAct();
  const go = useNavigate();
  const number = stops.indexOf(stop) + 1;
  const signed = box.signoffs.some((s) => s.stop === stop);
  const next = stops[number];
  const [against, setAgainst] = useState<string[]>([]);
  const signNow = (despite?: string): void => {
    setAgainst([]);
    void act(toggleSignoff(bench, box, stop, stamp(), despite));
    if (!signed && next) void go(`/box/${box.id}/${next}`);
  };
  const sign = (): void => {
    if (busy !== undefined) return;
    const found = againstSignoff(bench, box, stop).map(hazardWords);
    if (found.length > 0) setAgainst(found);
    else signNow();
  };
  // A held arrow key outruns the drawing, so a step goes from the address that counts now, not from what is drawn.
  const step = (by: 1 | -1) => () => {
    const at = stops.findIndex((s) => window.location.pathname.split('/')[3] === s);
    const other = stops[at + by];
    if (other) void go(`/box/${box.id}/${other}`);
  };
  const run = (): void => void go(`/box/${box.id}/run`);
  const mid = [machine?.name, profile && profileLine(profile, box)].filter(Boolean).join(' · ');
  return (
    <>
      <Shortcuts
        list={[
          { keys: 'mod+enter', does: signed ? 'open the stop again' : 'sign off the stop', act: sign },
          { keys: 'r', does: 'run mode: one step at a time', act: run },
          { keys: 'arrowleft', does: 'to the stop before', act: step(-1) },
          { keys: 'arrowright', does: 'to the stop after', act: step(1) },
          ...shortcuts,
        ]}
      />
      <Sheet
        title={box.name}
        mid={mid || box.purpose}
        right={
          <>
            Stop {number} of 12 · {stopTitle[stop]} · <Word onClick={run}>Run mode</Word>
          </>
        }
        short={`${stopTitle[stop]}, ${number} of 12`}
        headline={headline}
        hint={hint ?? `Ctrl Enter ${signed ? 'opens the stop again' : 'signs off'} · ← → change stops`}
        foot={
          <>
            {signed ? (
              <Quiet onClick={sign} disabled={busy !== undefined || isClosed(box)}>
                Signed off; open again
              </Quiet>
            ) : (
              <Primary onClick={sign} disabled={busy !== undefined} title={busy}>
                {signWords ?? (next ? `Sign off and go to ${stopTitle[next].toLowerCase()}` : 'Sign off')}
              </Primary>
            )}
            {acts}
            <HStack gap="1" hideFrom="lg" marginLeft="auto" flexShrink="0">
              <IconButton word="Run mode" icon={<Play />} onClick={run} />
            </HStack>
            <HStack gap="1" hideFrom="md" flexShrink="0">
              <IconButton
                word="Stop before"
                icon={<ChevronLeft />}
                onClick={step(-1)}
                disabled={number === 1}
              />
              <IconButton word="Stop after" icon={<ChevronRight />} onClick={step(1)} disabled={!next} />
            </HStack>
          </>
        }
      >
        <Closed box={box} />
        {children}
        <TradeLines bench={bench} box={box} stop={stop} />
      </Sheet>
      <BoxLedger ledger={summaryOf(bench, box)} above={margin} />
      <RouteStrip bench={bench} box={box} />
      {against.length > 0 && (
        <SignDespite
          title={stopTitle[stop]}
          against={against}
          onSign={signNow}
          onClose={() => setAgainst([])}
        />
      )}
    </>
  );
}

/** Renders a stop for the box in the address, or says that it is not there. */
export function withBox(Page: (props: { context: BoxContext }) => ReactNode) {
  return function BoxPage() {
    const context = useBoxContext();
    return context ? (
      <Page context={context} key={context.box.id} />
    ) : (
      <NotFound what="This box is not on the bench" />
    );
  };
}
