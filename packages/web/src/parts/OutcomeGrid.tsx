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
import { Mark } from './Marks';

type Verdict = Pick<Outcome, 'starts' | 'reason' | 'through' | 'evidence'> & { chain?: readonly Rung[] };
const WORD = { yes: 'starts', no: 'no', unknown: 'cannot tell' } as const;
const SECURE_WORD = { yes: 'accepted', no: 'refused', unknown: 'if trusted' } as const;
const KIND = { yes: 'yes', no: 'no', unknown: 'ask' } as const;
const RUNG_KIND = { whole: 'yes', missing: 'no', unreadable: 'ask' } as const;

function EvidenceList({ evidence }: { evidence: readonly Evidence[] }) {
  return (
    <dl className="evidence">
      {evidence.map((e) => (
        <div key={`${e.what} ${e.offset}`}>
          <dt>{e.what}</dt>
          <dd className="m">
            {e.offset !== null && (
              <span className="nowrap" title={formatExact(e.offset)}>
                byte {e.offset}
              </span>
            )}
            {e.bytes !== '' && <span>{e.bytes}</span>}
            {e.source !== '' && <span className="soft">{e.source}</span>}
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** How far it comes behind the firmware: the rungs in one line, or with what each was found to be. */
function Chain({ chain, told }: { chain: readonly Rung[]; told: boolean }) {
  return (
    <ol className={told ? 'chain told' : 'chain'} aria-label="What it goes on to">
      {chain.map((r, i) => (
        <li key={`${i} ${r.rung}`}>
          <Mark kind={RUNG_KIND[r.state]}>
            {r.rung}
            {r.state === 'whole' && !told ? '' : ` ${rungStateWords[r.state]}`}
          </Mark>
          {told && <span className="sub">{rungWhyWords(r.why)}</span>}
        </li>
      ))}
    </ol>
  );
}

/** One verdict: its mark, its reason, and the evidence behind the reason on a click. */
function Cell({
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
      <Mark kind={KIND[verdict.starts]}>{words[verdict.starts]}</Mark>
      {verdict.evidence.length > 0 ? (
        <button
          type="button"
          className="sub reason"
          aria-expanded={shown}
          title="Show the bytes that say so"
          onClick={() => setOpen((v) => !v)}
        >
          {startWords(verdict)}
        </button>
      ) : (
        <span className="sub">{startWords(verdict)}</span>
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

/** Firmware × how it is attached × Secure Boot where it matters; the row this machine would meet is marked. */
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
  const order = own ? [own, ...firmwareKinds.filter((f) => f !== own)] : firmwareKinds;
  return (
    <table className="t">
      <thead>
        <tr>
          <th scope="col" style={{ width: 116 }}>
            Firmware
          </th>
          <th scope="col">As a stick or drive</th>
          <th scope="col">As optical media</th>
        </tr>
      </thead>
      <tbody>
        {order.flatMap((f) => {
          const here = f === own;
          const disk = at(f, 'disk');
          const optical = at(f, 'optical');
          const rows = [
            <tr key={f} className={here ? 'here' : ''}>
              <th scope="row">
                {firmwareTitle[f]}
                {here && <span className="sub">{machine?.name} starts this way</span>}
              </th>
              <td>
                <Cell verdict={disk} words={WORD} evidence={evidence} />
              </td>
              <td>
                <Cell verdict={optical} words={WORD} evidence={evidence} />
              </td>
            </tr>,
          ];
          if (disk?.secureBoot || optical?.secureBoot) {
            const asHere = here && machine?.secureBoot;
            rows.push(
              <tr key={`${f} secure`} className={asHere ? 'here' : ''}>
                <th scope="row" style={{ fontWeight: 400 }}>
                  <span className="sub">with Secure Boot on{asHere && `, as ${machine.name} has it`}</span>
                </th>
                <td>
                  <Cell verdict={disk?.secureBoot} words={SECURE_WORD} evidence={evidence} />
                </td>
                <td>
                  <Cell verdict={optical?.secureBoot} words={SECURE_WORD} evidence={evidence} />
                </td>
              </tr>,
            );
          }
          return rows;
        })}
      </tbody>
    </table>
  );
}
