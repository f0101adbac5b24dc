import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { takeGate } from '@zb/core/acts/rules';
import { draftGate, gateOf } from '@zb/core/rules/forBox';
import { seatWords } from '@zb/core/words/gatePlan';
import { gateHeadline, mendWords } from '@zb/core/words/rules';
import { BoxFrame, type BoxContext } from '../../../parts/BoxFrame';
import { LogEntryForm } from '../../../parts/LogEntryForm';
import { stamp, useAct } from '../../../storage/hooks';
import { Primary, Quiet, Word } from '../../../ui/Button';
import { Nothing } from '../../../ui/Nothing';
import { Said } from '../../../ui/Said';
import { Tabs } from '../../../ui/Tabs';
import { Working } from '../../../ui/Working';
import { useGateJudged } from '../../../workers/judging';
import { Kept } from '../Kept';
import { AskPacket } from './AskPacket';
import { Beside } from './Beside';
import { Crossing } from './Crossing';
import { GateMargin } from './GateMargin';
import { GateWritten } from './GateWritten';
import { Matrix } from './Matrix';
import { Pace } from './Pace';
import { Promises } from './Promises';
import { TryOut } from './TryOut';
import { Zones } from './Zones';

const SIDES = ['rules', 'zones', 'pace', 'copies'] as const;
type Side = (typeof SIDES)[number];
type Open =
  { what: 'crossing'; from: string; to: string } | { what: 'ask' | 'written' | 'beside' | 'try' } | null;

/** Stop 10 of a gate: who may talk to whom, and what that promises. */
export function GateLoad({ context }: { context: BoxContext }) {
  const { bench, box } = context;
  const act = useAct();
  const of = gateOf(bench, box);
  const { plan } = of;
  const judged = useGateJudged(of);
  const [side, setSide] = useState<Side>('rules');
  const [open, setOpen] = useState<Open>(null);
  const close = (): void => setOpen(null);
  const empty = plan.zones.length === 0;
  const current = judged.found && !judged.stale ? judged.found : null;
  return (
    <BoxFrame
      context={context}
      stop="load"
      headline={gateHeadline(plan, box.name, judged.found?.report.kept ?? null, of.hosts)}
      hint={empty ? undefined : 'arrows move · Enter opens a crossing · K asks a packet'}
      shortcuts={
        empty
          ? []
          : [
              { keys: 'k', does: 'ask a packet', act: () => setOpen({ what: 'ask' }) },
              { keys: '1', does: 'rules and promises', act: () => setSide('rules') },
              { keys: '2', does: 'sides and names', act: () => setSide('zones') },
              { keys: '3', does: 'how much goes through', act: () => setSide('pace') },
              { keys: '4', does: 'the copies of what matters', act: () => setSide('copies') },
            ]
      }
      acts={
        empty ? undefined : (
          <>
            <Quiet disabled={!current} onClick={() => setOpen({ what: 'written' })}>
              Save the rules
            </Quiet>
            <Quiet onClick={() => setOpen({ what: 'beside' })}>Hold beside the old ones</Quiet>
            <Quiet onClick={() => setOpen({ what: 'ask' })}>Ask a packet</Quiet>
            <Quiet onClick={() => setOpen({ what: 'try' })}>Try it out</Quiet>
          </>
        )
      }
      margin={empty ? undefined : <GateMargin of={of} judged={judged.found} />}
    >
      {empty ? (
        <Nothing
          title="No rule is laid out"
          words="Begin with what most gates do: one side for each network, the inside outwards, guests the web, nothing in. Every rule and promise can be changed."
        >
          <Primary
            onClick={() => void act(takeGate(box, draftGate(bench, box), 'what most gates do', stamp()))}
          >
            Begin with what most gates do
          </Primary>
        </Nothing>
      ) : (
        <Tabs
          label="Load"
          at={side}
          onAt={(id) => setSide(SIDES.find((s) => s === id) ?? 'rules')}
          sides={[
            {
              id: 'rules',
              title: 'Rules and promises',
              body: (
                <Stack gap="5">
                  <Matrix
                    of={of}
                    kept={judged.found?.report.kept ?? []}
                    onOpen={(c) => setOpen({ what: 'crossing', from: c.from, to: c.to })}
                  />
                  {judged.share !== null && judged.share > 0.3 && (
                    <Working
                      label="Every packet there can be"
                      done={judged.share}
                      whole={1}
                      says=""
                      onCancel={judged.cancel}
                    />
                  )}
                  {(current?.seatRepairs ?? []).map((r, i) => (
                    <Said key={i} kind="stop" title="You would lock yourself out.">
                      {seatWords(plan)}{' '}
                      <Word
                        onClick={() => void act(takeGate(box, r.plan, mendWords(r.plan, r.mend), stamp()))}
                      >
                        {mendWords(r.plan, r.mend)}
                      </Word>
                    </Said>
                  ))}
                  <Promises box={box} of={of} judged={judged.found} />
                </Stack>
              ),
            },
            { id: 'zones', title: 'Sides and names', body: <Zones box={box} of={of} /> },
            { id: 'pace', title: 'How much goes through', body: <Pace bench={bench} box={box} /> },
            { id: 'copies', title: 'What must not be lost', body: <Kept box={box} /> },
          ]}
        />
      )}
      <Stack marginTop="6">
        <LogEntryForm box={box} stop="load" kinds={['setting', 'photo']} />
      </Stack>
      {open?.what === 'crossing' && (
        <Crossing box={box} plan={plan} from={open.from} to={open.to} onClose={close} />
      )}
      {open?.what === 'ask' && <AskPacket of={of} onClose={close} />}
      {open?.what === 'written' && current && (
        <GateWritten box={box} of={of} report={current.report} onClose={close} />
      )}
      {open?.what === 'beside' && <Beside of={of} onClose={close} />}
      {open?.what === 'try' && <TryOut of={of} onClose={close} />}
    </BoxFrame>
  );
}
