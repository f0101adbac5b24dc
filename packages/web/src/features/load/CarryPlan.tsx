import { Box, Stack } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import { carryFor, carryingSticks } from '@zb/core/content/forBox';
import { undone } from '@zb/core/content/plan';
import type { PlanView } from '@zb/core/content/view';
import { planForms, type PlanForm } from '@zb/core/content/written';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import type { ContentCode } from '@zb/core/model/contentRules';
import { formatIec } from '@zb/core/units/bytes';
import { formatSpan } from '@zb/core/units/duration';
import { tripsWords } from '@zb/core/words/carry';
import { counted, plural } from '@zb/core/words/text';
import { download } from '../../storage/download';
import { Quiet, Word } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { Facts } from '../../ui/Facts';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Acts, Data, Head, Sub } from '../../ui/Words';
import type { Content } from './useContent';

const FILES: Record<PlanForm, { name: string; words: string }> = {
  copy: { name: 'copy.sh', words: 'the copy, as a script' },
  moves: { name: 'rename.sh', words: 'the renames' },
  undo: { name: 'rename-back.sh', words: 'the renames, taken back' },
  list: { name: 'files.list', words: 'a list for a copier' },
};

type Move = { from: string; to: string };

/** How what was found is carried: what goes and what stays, trips, time, room, and what is saved for it. */
export function CarryPlan({
  bench,
  box,
  content,
  taken,
  onNote,
  onAgain,
}: {
  bench: Bench;
  box: Build;
  content: Content;
  taken: ReadonlySet<ContentCode>;
  onNote: () => void;
  onAgain: () => void;
}) {
  const sticks = carryingSticks(bench);
  const [stickId, setStick] = useState<string>(sticks[0]?.id ?? '');
  const [plan, setPlan] = useState<PlanView | null>(null);
  const [preview, setPreview] = useState<Move[] | null>(null);
  const [done, setDone] = useState<{ moves: Move[]; fault: string | null } | null>(null);
  const { get, during, looked } = content;
  const view = looked?.view;
  useEffect(() => {
    let here = true;
    void get()
      .plan([...taken], carryFor(bench, box, stickId || null))
      .then((p) => here && setPlan(p));
    return () => {
      here = false;
    };
    // What was judged anew is planned anew.
  }, [get, taken, stickId, bench, box, view]);
  if (!plan) return null;
  const save = async (form: PlanForm): Promise<void> => {
    onNote();
    download(FILES[form].name, await get().text(form), 'text/plain');
  };
  const manifest = async (): Promise<void> => {
    const text = await during((w, tell) => w.manifest(tell));
    if (text !== undefined) {
      onNote();
      // As a text it would be given another ending.
      download('SHA256SUMS', text, 'application/octet-stream');
    }
  };
  const apply = async (moves: Move[]): Promise<void> => {
    setPreview(null);
    // Until now it was opened to be read; the browser asks before anything is changed.
    if ((await looked?.handle?.requestPermission?.({ mode: 'readwrite' })) === 'denied') return;
    const out = await during((w, tell) => w.apply(moves, tell));
    if (out) setDone({ moves: out.done, fault: out.fault });
  };
  const back = async (): Promise<void> => {
    if (!done) return;
    const out = await during((w, tell) => w.apply(undone(done.moves), tell));
    if (out) setDone(out.fault === null ? null : { moves: done.moves, fault: out.fault });
  };
  const { stick } = plan;
  return (
    <Box as="section" aria-label="How it is carried">
      <Head marginBottom="1">How it is carried</Head>
      <Stack gap="3">
        <Box css={{ width: '300px', maxWidth: '100%' }}>
          <Select
            label="Carried on"
            none="no stick: over the wire"
            value={stickId}
            options={sticks.map((s) => ({ value: s.id, words: `${s.name}, ${formatIec(s.bytes)}` }))}
            onChange={(e) => setStick(e.target.value)}
          />
        </Box>
        <Facts
          lines={[
            {
              what: 'Goes',
              is: `${plural(plan.files, 'file')}, ${formatIec(plan.bytes)}${plan.left > 0 ? `; ${counted(plan.left)} stay behind` : ''}${plan.unpack > 0 ? `; ${counted(plan.unpack)} to unpack first` : ''}`,
            },
            { what: 'Renamed or moved', is: counted(plan.moves) },
            ...(stick
              ? [{ what: 'By stick', is: `${tripsWords(stick)}, ${formatSpan(stick.seconds)}` }]
              : []),
            { what: 'Over the wire', is: formatSpan(plan.overWire) },
            ...(plan.room
              ? [
                  {
                    what: 'Room on the pool',
                    is: `${formatIec(plan.room.free)}, of which it takes ${formatIec(plan.room.takes)} in whole blocks: ${formatIec(plan.room.after)} are left`,
                  },
                ]
              : []),
          ]}
        />
        {stick && stick.trips.length > 0 && (
          <Ruled label="Trips" heads={['Trip', 'Folders']}>
            {stick.trips.slice(0, 6).map((t, i) => (
              <Line key={i}>
                <LineHead>{i + 1}</LineHead>
                <Cell overflowWrap="anywhere">
                  {t
                    .slice(0, 8)
                    .map((f) => f || 'the files at the top')
                    .join(', ')}
                  {t.length > 8 && ` and ${t.length - 8} more`}
                </Cell>
              </Line>
            ))}
          </Ruled>
        )}
        {done && (
          <Said kind={done.fault === null ? 'proven' : 'check'}>
            {plural(done.moves.length, 'file')} renamed in the folder.
            {done.fault !== null && ` Then it ended: ${done.fault}. What was not reached is as it was.`}{' '}
            <Word onClick={() => void back()}>Take it back</Word> ·{' '}
            <Word onClick={onAgain}>look through it again</Word>
          </Said>
        )}
        <Acts>
          {planForms.map((f) => (
            <Quiet key={f} onClick={() => void save(f)}>
              Save {FILES[f].words}
            </Quiet>
          ))}
          <Quiet onClick={() => void manifest()}>Save a list of sums</Quiet>
          {looked?.handle && plan.moves > 0 && (
            <Quiet onClick={() => void get().moves().then(setPreview)}>Rename in the folder itself</Quiet>
          )}
        </Acts>
        <Sub>Nothing in your folder is changed but by the last of these, and that is shown first.</Sub>
      </Stack>
      {preview && (
        <Dialog
          open
          onClose={() => setPreview(null)}
          title={`${plural(preview.length, 'file')} of ${looked?.name ?? ''} get another name`}
          size="lg"
        >
          <Stack gap="3">
            <Said kind="check">
              This changes your folder. Every rename is kept with its way back; nothing is overwritten, and it
              ends at the first that does not go.
            </Said>
            <Ruled label="Renames" heads={['From', 'To']}>
              {preview.slice(0, 200).map((m) => (
                <Line key={m.from}>
                  <LineHead fontWeight="normal" overflowWrap="anywhere">
                    <Data>{m.from}</Data>
                  </LineHead>
                  <Cell overflowWrap="anywhere">
                    <Data>{m.to}</Data>
                  </Cell>
                </Line>
              ))}
            </Ruled>
            <Acts>
              <Quiet onClick={() => void apply(preview)}>Rename {counted(preview.length)} now</Quiet>
              <Word onClick={() => setPreview(null)}>Leave it as it is</Word>
            </Acts>
          </Stack>
        </Dialog>
      )}
    </Box>
  );
}
