import { Box, List, Text } from '@chakra-ui/react';
import type { RuleFinding } from '@zb/core/system/finding';
import type { Judgement } from '@zb/core/system/judge';
import { findingWords } from '@zb/core/words/fit/finding';
import { Word } from '../ui/Button';
import { To } from '../ui/To';
import { Soft } from '../ui/Words';

/** The deciding findings, what mends them, what to find out, and soft limits that can be set aside. */
export function FindingList({
  judged,
  onOverrule,
  onTakeBack,
  machineId,
}: {
  judged: Judgement;
  onOverrule: (finding: RuleFinding) => void;
  onTakeBack: (finding: RuleFinding) => void;
  machineId?: string;
}) {
  const aside = judged.all.filter((f) => f.overruled !== undefined);
  return (
    <>
      {judged.binding
        .slice(0, 4)
        .map((f) => ({ f, words: findingWords(f) }))
        .map(({ f, words }) => (
          <Text key={f.rule + words.because} paddingBlock="0.5">
            {words.because} {words.repair && <b>{words.repair}</b>}
            {f.soft && f.outcome === 'no' && (
              <>
                {' '}
                <Soft>A limit of the trade, not of the machine.</Soft>{' '}
                <Word onClick={() => onOverrule(f)}>Set it aside</Word>
              </>
            )}
          </Text>
        ))}
      {aside.map((f) => (
        <Text key={`aside-${f.rule}`} paddingBlock="0.5">
          {findingWords(f).because} <Word onClick={() => onTakeBack(f)}>Let it count again</Word>
        </Text>
      ))}
      {judged.missing.length > 0 && (
        <Box>
          <b>To find out:</b>
          <List.Root>
            {judged.missing.map((m) => (
              <List.Item key={m.fact}>
                {m.ask} {machineId && <To to={`/shelf/${machineId}`}>answer</To>}
              </List.Item>
            ))}
          </List.Root>
          {judged.likely !== judged.verdict && (
            <Text color="fg.muted">If the assumed facts are true: {judged.likely}.</Text>
          )}
        </Box>
      )}
    </>
  );
}
