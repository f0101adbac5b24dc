import { Heading, Stack, Text } from '@chakra-ui/react';
import { useNavigate } from 'react-router';
import type { Plan } from '@zb/core/box/plan';
import { summaryOf } from '@zb/core/box/summary';
import { hazardWords } from '@zb/core/words/hazard';
import { runSheetHeadline } from '@zb/core/words/runsheet/around';
import type { BoxContext } from '../../parts/BoxFrame';
import { Quiet } from '../../ui/Button';
import { HazardMark } from '../../ui/Marks';
import { Said } from '../../ui/Said';
import { Acts } from '../../ui/Words';
import { PlanEnd } from './PlanEnd';

/** No step is left, or there is none yet: what stands against calling it done, and where to go. */
export function Finished({
  context,
  plan,
  onGo,
}: {
  context: BoxContext;
  plan: Plan;
  onGo: (step: string) => void;
}) {
  const { bench, box } = context;
  const go = useNavigate();
  const { sheet } = plan;
  const none = sheet.steps.length === 0;
  const stops = summaryOf(bench, box).hazards.filter((h) => h.grade === 'stop');
  return (
    <Stack gap="5">
      <Heading as="h1" id="headline" textStyle="far" textWrap="balance" overflowWrap="anywhere">
        {runSheetHeadline(plan)}
      </Heading>
      {!none && plan.reaches !== true && <PlanEnd context={context} plan={plan} onGo={onGo} />}
      {!none && stops.length > 0 && (
        <>
          <Text textStyle="near">Before it is handed over:</Text>
          {stops.map((h) => (
            <Said kind="stop" key={hazardWords(h)}>
              <HazardMark grade="stop" /> {hazardWords(h)}
            </Said>
          ))}
        </>
      )}
      <Acts>
        {none ? (
          <Quiet size="lg" onClick={() => void go(`/box/${box.id}/survey`)}>
            Choose a machine
          </Quiet>
        ) : (
          <Quiet size="lg" onClick={() => void go(`/box/${box.id}/keep`)}>
            Hand it over
          </Quiet>
        )}
      </Acts>
    </Stack>
  );
}
