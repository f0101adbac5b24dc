import { Box, chakra, List } from '@chakra-ui/react';
import { rungStateWords, rungWhyWords } from '@zb/core/words/chain';
import { startWords } from '@zb/core/words/start';
import { useState } from 'react';
import {
  firmwareKinds,
  firmwareTitle,
  type Evidence,
  type FirmwareKind,
  type Outcome,
  type Rung,
} from '@zb/core/model/inspection';
import { formatExact } from '@zb/core/units/bytes';
import { Word } from '../ui/Button';
import { Fold } from '../ui/Fold';
import { VerdictMark } from '../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../ui/Ruled';
import { Data, Soft, Sub } from '../ui/Words';

type Verdict = Pick<Outcome, 'starts' | 'reason' | 'through' | 'evidence'> & { chain?: readonly Rung[] };
const WORD = { yes: 'starts', no: 'no', unknown: 'cannot tell' } as const;
const SECURE_WORD = { yes: 'accepted', no: 'refused', unknown: 'if trusted' } as const;
const KIND = { yes: 'yes', no: 'no', unknown: 'ask' } as const;
const RUNG_KIND = { whole: 'yes', missing: 'no', unreadable: 'ask' } as const;

const EvidenceList = ({ evidence }: { evidence: readonly Evidence[] }) => (
  <chakra.dl css={{ borderInlineStart: '2px solid {colors.rule}', paddingInlineStart: '7px' }} marginTop="1">
    {evidence.map((e) => (
      <div key={`${e.what} ${e.offset}`}>
        <chakra.dt textStyle="small">{e.what}</chakra.dt>
        <chakra.dd display="flex" flexWrap="wrap" columnGap="2.5" marginBottom="1">
          {e.offset !== null && (
            <Data whiteSpace="nowrap" title={formatExact(e.offset)}>
              byte {e.offset}
            </Data>
          )}
          {e.bytes !== '' && <Data>{e.bytes}</Data>}
          {e.source !== '' && <Soft>{e.source}</Soft>}
        </chakra.dd>
      </div>
    ))}
  </chakra.dl>
);

/** How far it comes behind the firmware: the rungs in one line, or as a ladder with what each was found to be. */
const Chain = ({ chain, told }: { chain: readonly Rung[]; told: boolean }) => (
  <List.Root
    as="ol"
    aria-label="What it goes on to"
    marginTop="1"
    css={
      told
        ? {
            borderInlineStart: '2px solid {colors.fg}',
            '& > li': { position: 'relative', paddingInlineStart: '16px' },
            '& > li::before': {
              content: '""',
              position: 'absolute',
              insetInlineStart: 0,
              top: '12px',
              width: '10px',
              borderTop: '2px solid {colors.fg}',
            },
          }
        : { display: 'flex', flexWrap: 'wrap', columnGap: '10px', fontSize: '12px' }
    }
  >
    {chain.map((r, i) => (
      <List.Item key={`${i} ${r.rung}`}>
        <VerdictMark kind={RUNG_KIND[r.state]} fontWeight="normal">
          {r.rung}
          {r.state === 'whole' && !told ? '' : ` ${rungStateWords[r.state]}`}
        </VerdictMark>
        {told && <Sub>{rungWhyWords(r.why)}</Sub>}
      </List.Item>
    ))}
  </List.Root>
);

/** One verdict: its mark, its reason, and the evidence behind the reason on a click. */
function Outcomes({
  verdict,
  words,
  evidence,
}: {
  verdict: Verdict | null | undefined;
  words: Record<Outcome['starts'], string>;
  evidence: boolean;
}) {
  const [open, setOpen] = useState(false);
  if (!verdict) return null;
  const shown = evidence || open;
  return (
    <>
      <VerdictMark kind={KIND[verdict.starts]}>{words[verdict.starts]}</VerdictMark>
      {verdict.evidence.length > 0 ? (
        <Word
          display="block"
          color="fg.muted"
          textDecorationStyle="dotted"
          aria-expanded={shown}
          title="Show the bytes that say so"
          onClick={() => setOpen((v) => !v)}
          css={{ fontSize: '12px', lineHeight: 1.28, minHeight: '24px' }}
        >
          {startWords(verdict)}
        </Word>
      ) : (
        <Sub>{startWords(verdict)}</Sub>
      )}
      {/* A single rung says no more than the verdict, unless it is told what it is. */}
      {verdict.chain && verdict.chain.length > (shown ? 0 : 1) && (
        <Chain chain={verdict.chain} told={shown} />
      )}
      {shown && <EvidenceList evidence={verdict.evidence} />}
    </>
  );
}

export interface GridMachine {
  name: string;
  firmware: FirmwareKind | undefined;
  secureBoot: boolean;
}

const HEADS = [{ words: 'Firmware', width: '116px' }, 'As a stick or drive', 'As optical media'];

/**
 * Firmware × how it is attached × Secure Boot where it matters. Where the machine is known its own rows come first, and the
 * other firmware is folded away.
 */
export function OutcomeGrid({
  outcomes,
  machine,
  evidence,
}: {
  outcomes: Outcome[];
  machine?: GridMachine | undefined;
  evidence: boolean;
}) {
  const at = (f: FirmwareKind, a: Outcome['attached']): Outcome | undefined =>
    outcomes.find((o) => o.firmware === f && o.attached === a);
  const own = machine?.firmware;
  const rowsOf = (f: FirmwareKind) => {
    const here = f === own;
    const disk = at(f, 'disk');
    const optical = at(f, 'optical');
    const asHere = here && machine?.secureBoot === true;
    return [
      <Line key={f} here={here}>
        <LineHead>
          {firmwareTitle[f]}
          {here && <Sub>{machine?.name} starts this way</Sub>}
        </LineHead>
        <Cell>
          <Outcomes verdict={disk} words={WORD} evidence={evidence} />
        </Cell>
        <Cell>
          <Outcomes verdict={optical} words={WORD} evidence={evidence} />
        </Cell>
      </Line>,
      ...(disk?.secureBoot || optical?.secureBoot
        ? [
            <Line key={`${f} secure`} here={asHere}>
              <LineHead>
                <Sub>with Secure Boot on{asHere && `, as ${machine.name} has it`}</Sub>
              </LineHead>
              <Cell>
                <Outcomes verdict={disk?.secureBoot} words={SECURE_WORD} evidence={evidence} />
              </Cell>
              <Cell>
                <Outcomes verdict={optical?.secureBoot} words={SECURE_WORD} evidence={evidence} />
              </Cell>
            </Line>,
          ]
        : []),
    ];
  };
  if (own === undefined)
    return (
      <Ruled label="What it starts on" heads={HEADS}>
        {firmwareKinds.flatMap(rowsOf)}
      </Ruled>
    );
  const others = firmwareKinds.filter((f) => f !== own);
  const started = others.filter((f) => at(f, 'disk')?.starts === 'yes' || at(f, 'optical')?.starts === 'yes');
  return (
    <Box>
      <Ruled label={`What it starts on, for ${machine?.name}`} heads={HEADS}>
        {rowsOf(own)}
      </Ruled>
      <Fold
        title={`On other firmware: ${started.length === 0 ? 'starts nowhere else' : `starts under ${started.map((f) => firmwareTitle[f]).join(', ')}`}`}
      >
        <Ruled label="What it starts on elsewhere" heads={HEADS}>
          {others.flatMap(rowsOf)}
        </Ruled>
      </Fold>
    </Box>
  );
}
