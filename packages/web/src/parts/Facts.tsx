import { Box, HStack } from '@chakra-ui/react';
import { Check, Pencil, Undo2 } from 'lucide-react';
import { useRef, useState } from 'react';
import { enterFact, settingChanged } from '@zb/core/acts/shelf';
import { isInWork } from '@zb/core/keeping/closed';
import { isSetting } from '@zb/core/machine/settings';
import { factApplies } from '@zb/core/machine/applies';
import { knownFact } from '@zb/core/model/known';
import type { Machine } from '@zb/core/model/bench';
import { FACT_GROUPS } from '@zb/core/model/factTable';
import { factDefinition, factKeys, type FactKey } from '@zb/core/model/facts';
import { factText, parseFact } from '@zb/core/machine/text';
import { stamp, useAct, useBench } from '../storage/hooks';
import { Quiet, Word } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { Input } from '../ui/Input';
import { Select } from '../ui/Select';
import { Soft, Sub } from '../ui/Words';
import { FactColumns, FactGroup, FactRow } from './FactSheet';
import { refused, useDraftForm } from './useDraftForm';

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

function Editor({ machine, fact, onDone }: { machine: Machine; fact: FactKey; onDone: () => void }) {
  const act = useAct();
  const definition = factDefinition(fact);
  const known = knownFact(machine, fact);
  const bench = useBench();
  // Of a setting another value is a change, or the survey was wrong: the buttons ask which.
  const asks = isSetting(fact) && known !== undefined && known.origin !== 'assumed';
  const changed = useRef(false);
  const { form, submit } = useDraftForm<{ text: string }>({
    values: {
      text: known
        ? Array.isArray(known.value)
          ? known.value.join(definition.kind === 'slots' ? '; ' : ', ')
          : factText(fact, known.value).replace('-bit', '').toLowerCase()
        : '',
    },
    // What is typed is read as the fact it is; the reader of core says what is wrong with it.
    resolver: ({ text }) => {
      try {
        parseFact(fact, text);
        return { values: { text }, errors: {} };
      } catch (error) {
        return refused({ text: { type: 'custom', message: messageOf(error) } });
      }
    },
    draft: `fact ${machine.id} ${fact}`,
    ask: false,
    save: async ({ text }) => {
      const value = parseFact(fact, text);
      const box = bench.boxes.find((b) => b.machineId === machine.id && isInWork(b)) ?? null;
      const kept = await act(
        changed.current
          ? settingChanged(machine, fact, value, box, stamp())
          : enterFact(machine, fact, value, stamp()),
      );
      if (kept) onDone();
      return kept;
    },
  });
  const options =
    definition.kind === 'choice'
      ? definition.choices
      : definition.kind === 'flag'
        ? ['yes', 'no']
        : undefined;
  const help =
    definition.kind === 'slots'
      ? 'Such as “M 2280 nvme x4”; several with semicolons; “none” for none.'
      : definition.kind === 'list'
        ? `Of ${definition.choices?.join(', ')}; in order, with commas.`
        : undefined;
  const error = form.formState.errors.text?.message;
  return (
    <Box css={{ gridColumn: '1 / 4' }} paddingBlock="1">
      <form onSubmit={(e) => void submit(e)}>
        {options ? (
          <Select
            label={definition.ask}
            options={options}
            none="choose"
            autoFocus
            help={help}
            error={error}
            {...form.register('text')}
          />
        ) : (
          <Input label={definition.ask} autoFocus help={help} error={error} {...form.register('text')} />
        )}
        <HStack gap="2" marginTop="1.5">
          {asks ? (
            <>
              <Quiet size="sm" type="submit" onClick={() => (changed.current = false)}>
                The record was wrong
              </Quiet>
              <Quiet size="sm" type="submit" onClick={() => (changed.current = true)}>
                I have changed it
              </Quiet>
            </>
          ) : (
            <Quiet size="sm" type="submit">
              Enter
            </Quiet>
          )}
          <Word onClick={onDone}>Leave</Word>
        </HStack>
      </form>
    </Box>
  );
}

function FactLine({ machine, fact }: { machine: Machine; fact: FactKey }) {
  const act = useAct();
  const [editing, setEditing] = useState(false);
  const known = knownFact(machine, fact);
  const record = machine.facts[fact];
  const label = factDefinition(fact).label;
  const enter = (value: Parameters<typeof enterFact>[2]): void =>
    void act(enterFact(machine, fact, value, stamp()));
  if (editing) {
    return (
      <FactRow>
        <Editor machine={machine} fact={fact} onDone={() => setEditing(false)} />
      </FactRow>
    );
  }
  return (
    <FactRow>
      <span>{label}</span>
      <Box as="span">
        {known ? <b>{factText(fact, known.value)}</b> : <Soft>not known</Soft>}
        {known && (
          <Sub title={known.source} truncate>
            {known.origin === 'entered' ? (
              <Box as="span" color="work">
                by hand
              </Box>
            ) : known.origin === 'assumed' ? (
              <Box as="span" data-part="assumed" color="check">
                assumed: {known.source}
              </Box>
            ) : (
              known.source
            )}
            {known.origin === 'entered' &&
              record?.surveyed &&
              ` (survey: ${factText(fact, record.surveyed.value)})`}
          </Sub>
        )}
      </Box>
      <HStack gap="0" as="span">
        {known?.origin === 'assumed' && (
          <IconButton small word={`${label}: so it is`} icon={<Check />} onClick={() => enter(known.value)} />
        )}
        {record?.entered && (
          <IconButton small word={`Take back ${label}`} icon={<Undo2 />} onClick={() => enter(undefined)} />
        )}
        <IconButton
          small
          word={`${known ? 'Correct' : 'Enter'} ${label}`}
          icon={<Pencil />}
          onClick={() => setEditing(true)}
        />
      </HStack>
    </FactRow>
  );
}

/** Inside a sentence only the first letter changes: HDMI stays HDMI. */
const lowerFirst = (t: string): string =>
  /^[A-Z][a-z]/.test(t) ? t.charAt(0).toLowerCase() + t.slice(1) : t;

/** Facts of a group that nobody knows yet, in one line: each is a press away from being entered. */
function Unknown({ machine, facts }: { machine: Machine; facts: readonly FactKey[] }) {
  const [editing, setEditing] = useState<FactKey | null>(null);
  if (facts.length === 0) return null;
  const open = editing !== null && facts.includes(editing) ? editing : null;
  return (
    <FactRow part="unknown">
      <Soft>Not known:</Soft>
      <Box as="span" css={{ gridColumn: '2 / 4' }}>
        {facts.map((k, i) => (
          <span key={k}>
            {i > 0 && ', '}
            <Word aria-label={`Enter ${factDefinition(k).label}`} onClick={() => setEditing(k)}>
              {lowerFirst(factDefinition(k).label)}
            </Word>
          </span>
        ))}
      </Box>
      {open && <Editor key={open} machine={machine} fact={open} onDone={() => setEditing(null)} />}
    </FactRow>
  );
}

/** The machine's facts as a person inspects a machine, each with its source; any can be corrected by hand. */
export function Facts({ machine, only }: { machine: Machine; only?: readonly FactKey[] }) {
  const keys = (only ?? factKeys).filter((k) => knownFact(machine, k) || factApplies(machine, k));
  const groups = FACT_GROUPS.map((group) => {
    const mine = keys.filter((k) => factDefinition(k).group === group);
    if (mine.length === 0) return null;
    // A short list of deciding facts shows each with its own line, known or not.
    const known = only ? mine : mine.filter((k) => knownFact(machine, k));
    return (
      <FactGroup key={group} title={group}>
        {known.map((k) => (
          <FactLine key={k} machine={machine} fact={k} />
        ))}
        <Unknown machine={machine} facts={mine.filter((k) => !known.includes(k))} />
      </FactGroup>
    );
  });
  return only ? <Box>{groups}</Box> : <FactColumns>{groups}</FactColumns>;
}
