import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { noteCarried } from '@zb/core/acts/storage';
import { usuallyTaken } from '@zb/core/content/findings';
import { usualRules } from '@zb/core/content/usual';
import { stillOpen, type FindingView } from '@zb/core/content/view';
import type { Bench, Box as Build, Profile } from '@zb/core/model/bench';
import { contentTargets, type ContentCode, type ContentTarget } from '@zb/core/model/contentRules';
import { formatIec } from '@zb/core/units/bytes';
import { formatMoment } from '@zb/core/units/date';
import { contentEffect, contentTitle, remedyWords, targetWords } from '@zb/core/words/carry';
import { counted, plural } from '@zb/core/words/text';
import { stamp, useAct } from '../../storage/hooks';
import { Primary, Quiet, Word } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { HazardMark } from '../../ui/Marks';
import { Nothing } from '../../ui/Nothing';
import { PickFolder } from '../../ui/PickFolder';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import { Acts, Sub } from '../../ui/Words';
import { Working } from '../../ui/Working';
import type { LookAsk } from '../../workers/contentWorker';
import type { Folder } from '../../workers/folderHandle';
import { CarryPlan } from './CarryPlan';
import { FoundFiles } from './FoundFiles';
import { useContent, type AtWork } from './useContent';

const WORK: Record<AtWork['what'], string> = {
  seen: 'Looking through the folder',
  digested: 'Reading files',
  judged: 'Holding it against the rules',
  moved: 'Working in the folder',
};

/** What goes on a box: a folder looked through where it lies, what was found in it, and how it is carried. */
export function Carried({ bench, box, profile }: { bench: Bench; box: Build; profile: Profile | undefined }) {
  const act = useAct();
  const content = useContent();
  const [target, setTarget] = useState<ContentTarget>(box.carried?.target ?? 'smb');
  const [hash, setHash] = useState(false);
  const [into, setInto] = useState(false);
  const [taken, setTaken] = useState<ReadonlySet<ContentCode>>(
    () => new Set((box.carried?.taken ?? usuallyTaken) as ContentCode[]),
  );
  const [open, setOpen] = useState<number | null>(null);
  const rules = profile?.content ?? usualRules(box.purpose);
  const ask = (changed: Partial<LookAsk> = {}): LookAsk => ({ rules, target, hash, into, ...changed });
  const note = (
    name: string,
    view: { files: number; bytes: number; findings: readonly FindingView[] },
    to: ReadonlySet<ContentCode>,
  ): void =>
    void act(
      noteCarried(box, {
        folder: name,
        at: stamp().now,
        files: view.files,
        bytes: view.bytes,
        target,
        taken: [...to],
        open: stillOpen(view.findings, to),
      }),
    );
  const look = async (name: string, folder: Folder): Promise<void> => {
    const view = await content.look(name, folder, ask());
    if (view) note(name, view, taken);
  };
  const choose = async (): Promise<void> => {
    try {
      const handle = await window.showDirectoryPicker({ mode: 'read' });
      await look(handle.name, { handle });
    } catch (error) {
      // Nothing was chosen: nothing is said.
      if ((error as DOMException).name !== 'AbortError') throw error;
    }
  };
  const standIn = async (anew: boolean): Promise<void> => {
    const handle = await content.during((w, tell) => w.standIn(anew, tell));
    if (handle) await look('stand-in folder', { handle });
  };
  const { looked, work } = content;
  const acts = (first: boolean) => {
    const Act = first ? Primary : Quiet;
    return (
      <>
        {'showDirectoryPicker' in window && <Act onClick={() => void choose()}>Look through a folder</Act>}
        <PickFolder
          label="Open a folder to read"
          onFiles={(files) => void look(files[0]?.webkitRelativePath.split('/')[0] ?? 'folder', { files })}
        />
        <Quiet onClick={() => void standIn(false)}>The stand-in folder</Quiet>
      </>
    );
  };
  const working = work && (
    <Working
      label={WORK[work.what]}
      done={work.done}
      whole={work.whole ?? undefined}
      says={
        work.whole === null
          ? `${counted(work.done)} files`
          : `${counted(work.done)} of ${counted(work.whole)}`
      }
      onCancel={content.cancel}
    />
  );
  const fault = content.fault !== null && (
    <Said kind="check" title="It could not be looked through.">
      {content.fault}. Nothing in the folder was changed.
    </Said>
  );
  if (!looked && working) return working;
  if (!looked)
    return (
      <Stack gap="4">
        {fault}
        <Nothing
          title="What goes on it?"
          words={
            box.carried
              ? `“${box.carried.folder}” was looked through on ${formatMoment(box.carried.at)}: ${counted(box.carried.files)} files, ${formatIec(box.carried.bytes)}. Files are not kept here; open it again to go on.`
              : 'A folder is looked through where it lies: names, sizes and dates. Nothing leaves this machine, and nothing is changed unasked.'
          }
        >
          <Acts>{acts(true)}</Acts>
        </Nothing>
        <Text textStyle="small">Copy what you are entitled to; local law says what that is.</Text>
      </Stack>
    );
  const { view, name } = looked;
  const turn = (code: ContentCode, on: boolean): void => {
    const to = new Set(taken);
    if (on) to.add(code);
    else to.delete(code);
    setTaken(to);
    note(name, view, to);
  };
  return (
    <Stack gap="5">
      {working}
      {fault}
      <HStack gap="4" align="flex-end" flexWrap="wrap">
        <Box>
          <b>{name}</b>
          <Sub>
            {plural(view.files, 'file')}, {formatIec(view.bytes)}
          </Sub>
        </Box>
        <Box css={{ width: '150px' }}>
          <Select
            label="It goes on"
            value={target}
            options={contentTargets.map((t) => ({ value: t, words: targetWords(t) }))}
            onChange={(e) => {
              const to = contentTargets.find((t) => t === e.target.value) ?? 'smb';
              setTarget(to);
              void content.again(ask({ target: to }));
            }}
          />
        </Box>
        <Checkbox
          checked={hash}
          onChange={(on) => {
            setHash(on);
            void content.again(ask({ hash: on }));
          }}
        >
          tell what is there twice (reads files of one size)
        </Checkbox>
        <Checkbox
          checked={into}
          onChange={(on) => {
            setInto(on);
            void content.again(ask({ into: on }));
          }}
        >
          look into files: whether each is whole, what music says of itself
        </Checkbox>
      </HStack>
      {view.findings.length === 0 ? (
        <Said kind="proven">Nothing stands in the way of it.</Said>
      ) : (
        <Ruled
          stacked
          label="What was found"
          heads={[
            'Found',
            { words: 'Files', figure: true },
            'What it would do',
            { words: 'Do', width: '180px' },
          ]}
        >
          {view.findings.map((f, i) => (
            <Line key={`${f.fault.code} ${i}`}>
              <LineHead whole>
                <HStack align="baseline" gap="2">
                  <HazardMark grade={f.grade} />
                  <Word onClick={() => setOpen(i)} whiteSpace="normal" textAlign="start">
                    {contentTitle(f.fault)}
                  </Word>
                </HStack>
              </LineHead>
              <Num>{counted(f.count)}</Num>
              <Cell>{contentEffect(f.fault, f.bytes)}</Cell>
              <Cell>
                {f.act === null ? (
                  'for you to decide'
                ) : (
                  <Checkbox checked={taken.has(f.fault.code)} onChange={(on) => turn(f.fault.code, on)}>
                    {remedyWords(f.act)} {counted(f.remedies)}
                  </Checkbox>
                )}
              </Cell>
            </Line>
          ))}
        </Ruled>
      )}
      <CarryPlan
        key={name}
        bench={bench}
        box={box}
        content={content}
        taken={taken}
        onNote={() => note(name, view, taken)}
        onAgain={() => looked.handle && void look(name, { handle: looked.handle })}
      />
      <Acts>
        {acts(false)}
        {name === 'stand-in folder' && <Word onClick={() => void standIn(true)}>make the stand-in anew</Word>}
      </Acts>
      {open !== null && (
        <FoundFiles
          content={content}
          index={open}
          finding={view.findings[open]}
          onClose={() => setOpen(null)}
        />
      )}
    </Stack>
  );
}
