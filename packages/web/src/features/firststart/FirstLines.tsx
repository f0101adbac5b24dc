import { Box, HStack, Text } from '@chakra-ui/react';
import { leaveFirst, setFirst, tickFirst } from '@zb/core/acts/firstStart';
import type { FirstLine } from '@zb/core/firststart/line';
import type { Box as Build } from '@zb/core/model/bench';
import type { FirstRecord } from '@zb/core/model/firstStart';
import { formatSpan } from '@zb/core/units/duration';
import { firstLineTitle, firstWhyWords } from '@zb/core/words/firstStart';
import { useState } from 'react';
import { useAct } from '../../storage/hooks';
import { Word } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { Input } from '../../ui/Input';
import { VerdictMark } from '../../ui/Marks';
import { Data, Soft, Sub } from '../../ui/Words';
import { KeyCheck } from './KeyCheck';

/** Lines of which it is worth knowing later what was set. */
const SETTABLE: ReadonlySet<FirstLine['code']> = new Set([
  'language',
  'zone',
  'keyboard',
  'set of software',
  'user',
  'network',
  'sound output',
  'rotation',
]);

/** What was set at a line, typed where it stands. */
function Setting({ box, line, value, title }: { box: Build; line: FirstLine; value: string; title: string }) {
  const act = useAct();
  const [text, setText] = useState(value);
  return (
    <Input
      label={`${title}: what was set`}
      value={text}
      onChange={(e) => setText(e.target.value)}
      onBlur={() => {
        if (text !== value)
          void act(setFirst(box, line.key, text.trim(), `${title}: ${text.trim() || 'not noted'}`));
      }}
    />
  );
}

/** The list: what is done is ticked, what is not wanted is left out, and the first open line is the one to do. */
export function FirstLines({
  box,
  lines,
  record,
}: {
  box: Build;
  lines: readonly FirstLine[];
  record: FirstRecord;
}) {
  const act = useAct();
  const [open, setOpen] = useState<string | null>(null);
  const next = lines.find((l) => !l.done && !l.left)?.key;
  const titleOf = (key: string): string => {
    const line = lines.find((l) => l.key === key);
    return line ? firstLineTitle(line) : key;
  };
  const waits = new Set(lines.filter((l) => !l.done && !l.left).map((l) => l.key));
  return (
    <Box role="list" aria-label="First start">
      {lines.map((l, i) => {
        const title = firstLineTitle(l);
        const blocked = l.after.filter((a) => waits.has(a));
        const set = record.set[l.key];
        const measured = l.code === 'updates' || l.code === 'password' || l.code === 'default password';
        return (
          <Box
            key={l.key}
            role="listitem"
            borderBottom="thin"
            paddingBlock="1.5"
            {...(l.key === next ? { bg: 'work.wash', marginInline: '-2', paddingInline: '2' } : {})}
          >
            <HStack justify="space-between" align="flex-start" gap="3">
              {l.left ? (
                <Text color="fg.muted">
                  {i + 1}. {title}, left out{' '}
                  <Word onClick={() => void act(leaveFirst(box, l.key, false, `${title}: taken in again`))}>
                    take it in
                  </Word>
                </Text>
              ) : measured && !l.done ? (
                <Text>
                  <VerdictMark kind="ask">{i + 1}.</VerdictMark> <b>{title}</b>
                  <Sub>{firstWhyWords(l.why)} Done when its own field beside says so.</Sub>
                </Text>
              ) : (
                <Checkbox
                  checked={l.done}
                  onChange={(done) =>
                    void act(tickFirst(box, l.key, done, `${title}: ${done ? 'done' : 'open again'}`))
                  }
                >
                  {i + 1}. <b>{title}</b>
                  {set === undefined ? '' : `: ${set}`}
                  {!l.done && <Sub _empty={{ display: 'none' }}>{firstWhyWords(l.why)}</Sub>}
                </Checkbox>
              )}
              {!l.done && !l.left && <Data whiteSpace="nowrap">{formatSpan(l.seconds)}</Data>}
            </HStack>
            {!l.left && !l.done && (
              <HStack gap="3" rowGap="0" flexWrap="wrap" paddingLeft="6">
                {blocked.length > 0 && (
                  <Soft css={{ fontSize: '12px' }}>after “{titleOf(blocked[blocked.length - 1] ?? '')}”</Soft>
                )}
                {SETTABLE.has(l.code) && (
                  <Word onClick={() => setOpen(open === l.key ? null : l.key)}>
                    {l.code === 'keyboard' ? 'press the keys' : 'note what was set'}
                  </Word>
                )}
                {l.may && (
                  <Word onClick={() => void act(leaveFirst(box, l.key, true, `${title}: left out`))}>
                    leave it out
                  </Word>
                )}
              </HStack>
            )}
            {open === l.key && (
              <Box paddingLeft="6" paddingTop="1">
                {l.code === 'keyboard' && <KeyCheck />}
                <Setting box={box} line={l} value={set ?? ''} title={title} />
              </Box>
            )}
          </Box>
        );
      })}
    </Box>
  );
}
