import { interfaceOf } from '@zb/core/model/gate';
import type { BoxGate } from '@zb/core/rules/forBox';
import { zoneWords } from '@zb/core/words/gatePlan';
import { LedgerGroup, LedgerPair } from '../../../parts/LedgerPane';
import type { GateJudged } from '../../../workers/gateWorker';

/** Which port leads where, and what was proven. */
export function GateMargin({ of: { plan }, judged }: { of: BoxGate; judged: GateJudged | null }) {
  return (
    <>
      <LedgerGroup title="Ports">
        {plan.ports.map((p) => (
          <LedgerPair key={p.id} what={zoneWords(plan, p.zoneId)} is={interfaceOf(p)} />
        ))}
      </LedgerGroup>
      {judged && (
        <LedgerGroup title="Proven">
          <LedgerPair what="rules" is={String(judged.report.rules)} />
          <LedgerPair what="kinds of packet" is={judged.report.kinds?.toLocaleString('en') ?? 'too many'} />
          <LedgerPair what="judged in" is={`${judged.seconds.toFixed(2)} s`} />
        </LedgerGroup>
      )}
    </>
  );
}
