import { firmwareKinds, firmwareTitle, type FirmwareKind, type Outcome } from '@zb/core/image/types';
import { Mark } from './Marks';

const WORD = { yes: 'starts', no: 'no', unknown: 'cannot tell' } as const;
const KIND = { yes: 'yes', no: 'no', unknown: 'ask' } as const;

function Cell({ row, evidence }: { row: Outcome | undefined; evidence: boolean }) {
  if (!row) return null;
  return (
    <>
      <Mark kind={KIND[row.starts]}>{WORD[row.starts]}</Mark>
      <span className="sub">{row.because}</span>
      {evidence && row.evidence && <span className="sub m">{row.evidence}</span>}
    </>
  );
}

export interface GridMachine {
  name: string;
  firmware: FirmwareKind | undefined;
  secureBoot: boolean;
}

/** Firmware × how it is attached; the row this machine would meet is marked. */
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
  const ownDisk = own && at(own, 'disk');
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
          const rows = [
            <tr key={f} className={here ? 'here' : ''}>
              <th scope="row">
                {firmwareTitle[f]}
                {here && <span className="sub">{machine?.name} starts this way</span>}
              </th>
              <td>
                <Cell row={at(f, 'disk')} evidence={evidence} />
              </td>
              <td>
                <Cell row={at(f, 'optical')} evidence={evidence} />
              </td>
            </tr>,
          ];
          if (here && machine?.secureBoot && ownDisk?.starts === 'yes' && f !== 'bios') {
            rows.push(
              <tr key="secure" className="here">
                <th scope="row" style={{ fontWeight: 400 }}>
                  <span className="sub">with Secure Boot on, as {machine.name} has it</span>
                </th>
                <td>
                  {ownDisk.signed ? <Mark kind="yes">signed</Mark> : <Mark kind="stop">refused</Mark>}
                  <span className="sub">
                    {ownDisk.signed
                      ? 'the loader carries a signature; the firmware must know its key'
                      : 'the loader carries no signature'}
                  </span>
                </td>
                <td />
              </tr>,
            );
          }
          return rows;
        })}
      </tbody>
    </table>
  );
}
