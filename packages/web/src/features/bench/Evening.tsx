import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { addSeconds, format, parse } from 'date-fns';
import { useEffect, useMemo, useRef, useState } from 'react';
import { boxesOfEvening, eveningOf, stretchesOf, type Stretch } from '@zb/core/box/evening';
import type { Bench } from '@zb/core/model/bench';
import { chanceWords, eveningCalendar, eveningHeadline, provenWords } from '@zb/core/words/evening';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { ScheduleFrame, type Row, type Stint } from '../../drawing/ScheduleFrame';
import { download, fileName } from '../../storage/download';
import { recall, remember } from '../../storage/remembered';
import { useEvening } from '../../workers/evening';
import { Quiet } from '../../ui/Button';
import { Input } from '../../ui/Input';
import { Said } from '../../ui/Said';
import { Working } from '../../ui/Working';
import { Acts } from '../../ui/Words';
import { Pinned } from './Pinned';
import { Pins } from './pins';
import { Wanted } from './Wanted';

const KEPT = 'zb-evening-until';
/** So long a first evening is, hours. */
const USUAL_HOURS = 3;

/** Work without a break is one piece, and so is a wait by itself. */
function stintsOf(row: readonly Stretch[], pins: ReadonlyMap<string, unknown>): Stint[] {
  const out: (Stint & { key: string })[] = [];
  const add = (key: string, what: string, from: number, to: number, hands: boolean): void => {
    const last = out.at(-1);
    if (to <= from) return;
    // What is pinned stands by itself.
    if (hands && last?.hands && !pins.has(key) && from - (last.from + last.seconds) < 1) {
      last.seconds = to - last.from;
      last.what += `; ${what}`;
    } else out.push({ key, what, from, seconds: to - from, hands, pinned: pins.has(key) });
  };
  for (const { key, step, from, free, end } of row) {
    const { title } = runStepWords(step.what);
    add(key, title, from, free, true);
    add(`${key} alone`, title, free, end, false);
  }
  return out;
}

/** So long after its end a stretch that is not done counts as late, seconds. Common practice, no source. */
const LATE_SECONDS = 60;

/** The evening on all boxes that are open: who wants hands when, what goes on alone meanwhile, when it is done. */
export default function Evening({ bench }: { bench: Bench }) {
  const [from, setFrom] = useState(() => new Date());
  const [until, setUntil] = useState(
    () => recall(KEPT) ?? format(addSeconds(from, USUAL_HOURS * 3600), 'HH:mm'),
  );
  const [pins, keepPins] = useState(Pins.recalled);
  const setPins = (to: Pins): void => {
    to.remember();
    keepPins(to);
  };
  const end = parse(until, 'HH:mm', from);
  // An end that lies before now is of the next day.
  const seconds = Number.isNaN(end.getTime())
    ? null
    : ((end.getTime() - from.getTime()) / 1000 + 86_400) % 86_400;
  const evening = useMemo(
    () => eveningOf(bench, boxesOfEvening(bench), seconds, pins.secondsFrom(from)),
    [bench, seconds, pins, from],
  );
  const { found, share, stale, cancel, again, fault } = useEvening(evening.problem);
  // Something was done, here or in another tab, earlier or later than planned: the rest is planned from now.
  const done = bench.boxes.reduce((n, b) => n + Object.keys(b.run?.steps ?? {}).length, 0);
  const before = useRef(done);
  useEffect(() => {
    if (before.current !== done) setFrom(new Date());
    before.current = done;
  }, [done]);
  const clock = (s: number): string => format(addSeconds(from, s), 'HH:mm');
  // What was found of another question has other steps.
  const shown = found && !stale ? found : null;
  const rows = useMemo((): Row[] => {
    if (!shown) return [];
    return stretchesOf(evening, shown.plan).map((row, i) => ({
      title: evening.problem.boxes[i]?.name ?? '',
      stints: stintsOf(row, pins.at),
    }));
  }, [evening, shown, pins]);
  // The first stretch should be over and is not: it is late, and so is what comes after it.
  const first = shown ? Math.min(...shown.plan.placed.map((x) => x.end)) : null;
  useEffect(() => {
    if (first === null || !Number.isFinite(first)) return undefined;
    const late = setTimeout(
      () => setFrom(new Date()),
      (first + LATE_SECONDS) * 1000 - (Date.now() - from.getTime()),
    );
    return () => clearTimeout(late);
  }, [first, from]);
  return (
    <Box as="section" aria-label="The evening" borderBlock="thin" marginBottom="4" paddingBlock="3">
      <Stack gap="3">
        <HStack gap="3" align="flex-end" flexWrap="wrap">
          <Input
            label="Done by"
            type="time"
            width="auto"
            value={until}
            onChange={(e) => {
              setUntil(e.target.value);
              remember(KEPT, e.target.value);
            }}
          />
          <Text textStyle="title" flex="1" minWidth="0" role="status">
            {shown ? eveningHeadline(evening, shown.plan, clock) : ''}
          </Text>
        </HStack>
        {share !== null && (
          <Working
            label="Planning the evening"
            done={Math.round(share * 100)}
            whole={100}
            says=""
            onCancel={cancel}
          />
        )}
        {fault !== null && (
          <Said kind="check">
            Planning was stopped; nothing was changed. <Quiet onClick={again}>Plan again</Quiet>
          </Said>
        )}
        {shown && (
          <>
            <ScheduleFrame
              label="Boxes over the evening"
              rows={rows}
              tick={clock}
              end={seconds === null ? null : { at: seconds, word: until }}
              onPin={(key, to) => setPins(pins.with(key, to === null ? null : addSeconds(from, to)))}
            />
            <Pinned evening={evening} plan={shown.plan} from={from} pins={pins} onPins={setPins} />
            <Text textStyle="small">
              Filled: your hands; drag one, or Shift with an arrow, to move it; Enter pins it. Ruled: it goes
              on alone. {provenWords(shown.plan)}. {chanceWords(shown.chance, clock)}.
            </Text>
            <Acts>
              <Quiet onClick={() => setFrom(new Date())}>Plan again from now</Quiet>
              <Quiet
                onClick={() =>
                  download(
                    fileName(`evening ${format(from, 'yyyy-MM-dd')}`, 'ics'),
                    eveningCalendar(evening, shown.plan, from.toISOString(), new Date().toISOString()),
                    'text/calendar',
                  )
                }
              >
                Save to a calendar
              </Quiet>
            </Acts>
          </>
        )}
        {/* It stays while what it says is planned anew. */}
        <Wanted bench={bench} boxIds={evening.problem.boxes.map((b) => b.id)} />
      </Stack>
    </Box>
  );
}
