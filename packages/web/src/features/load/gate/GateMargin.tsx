import { Box } from '@chakra-ui/react';
import { interfaceOf } from '@zb/core/model/gate';
import type { BoxGate } from '@zb/core/rules/forBox';
import { zoneWords } from '@zb/core/words/gatePlan';
import { LedgerGroup } from '../../../parts/LedgerPane';
import { Data } from '../../../ui/Words';
import type { GateJudged } from '../../../workers/gateWorker';

const Row = ({ what, is }: { what: string; is: string }) => (
  <Box display="flex" justifyContent="space-between" gap="3">
    <span>{what}</span>
    <Data whiteSpace="nowrap">{is}</Data>
  </Box>
);

/** Which port leads where, and what was proven. */
export function GateMargin({ of: { plan }, judged }: { of: BoxGate; judged: GateJudged | null }) {
  return (
    <>
      <LedgerGroup title="Ports">
        {plan.ports.map((p) => (
          <Row key={p.id} what={zoneWords(plan, p.zoneId)} is={interfaceOf(p)} />
        ))}
      </LedgerGroup>
      {judged && (
        <LedgerGroup title="Proven">
          <Row what="rules" is={String(judged.report.rules)} />
          <Row what="kinds of packet" is={judged.report.kinds?.toLocaleString('en') ?? 'too many'} />
          <Row what="judged in" is={`${judged.seconds.toFixed(2)} s`} />
        </LedgerGroup>
      )}
    </>
  );
}
