import { Box, Heading, Stack, Text } from '@chakra-ui/react';
import { useNavigate } from 'react-router';
import { takePrecautions } from '@zb/core/acts/install';
import type { WayOut } from '@zb/core/box/goal';
import type { Plan } from '@zb/core/box/plan';
import { goalResultWords, goalWords, planHeadline, unmetLine, wayOutWords } from '@zb/core/words/planEnd';
import type { BoxContext } from '../../parts/BoxFrame';
import { useAct } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { HazardMark } from '../../ui/Marks';
import { Said } from '../../ui/Said';
import { Acts } from '../../ui/Words';

/** Does the plan reach its end? What is lacking, each with the way out of it; what is reached, in one list. */
export function PlanEnd({
  context: { box },
  plan,
  onGo,
}: {
  context: BoxContext;
  plan: Plan;
  onGo: (step: string) => void;
}) {
  const act = useAct();
  const go = useNavigate();
  const follow = ({ stage, act: way }: WayOut): void => {
    if (way.code === 'do') onGo(way.step);
    else if (way.code === 'take')
      void act(
        takePrecautions(
          box,
          [...new Set([...box.precautions, way.precaution])],
          wayOutWords({ stage, act: way }),
        ),
      );
    else void go(`/box/${box.id}/${stage}`);
  };
  const way = (out: WayOut | null) =>
    out && (
      <Box marginTop="2">
        <Acts>
          <Quiet size="sm" onClick={() => follow(out)}>
            {wayOutWords(out)}
          </Quiet>
        </Acts>
      </Box>
    );
  const lacking = plan.goals.filter((g) => g.holds !== true);
  const held = plan.goals.filter((g) => g.holds === true);
  return (
    <Stack as="section" aria-label="Where the plan ends" gap="3">
      <Heading as="h3" textStyle="title">
        {planHeadline(plan)}
      </Heading>
      {plan.unmet.map((u) => (
        <Said kind="stop" loud={false} key={u.key}>
          <HazardMark grade="stop" /> {unmetLine(plan, u)}
          {way(u.wayOut)}
        </Said>
      ))}
      {lacking.map((g) => (
        <Said kind={g.holds === false ? 'stop' : 'check'} loud={false} key={goalWords(g.goal)}>
          <HazardMark grade={g.holds === false ? 'stop' : 'check'} /> {goalResultWords(g)}
          {way(g.wayOut)}
        </Said>
      ))}
      {held.length > 0 && (
        <Text textStyle="small">At its end: {held.map((g) => goalWords(g.goal)).join(' ')}</Text>
      )}
    </Stack>
  );
}
