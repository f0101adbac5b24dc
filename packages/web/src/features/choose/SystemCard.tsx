import { Box, Heading, HStack, Stack, Text } from '@chakra-ui/react';
import { formatNumber } from '@zb/core/units/number';
import { useMemo, useState } from 'react';
import { updateBox } from '@zb/core/acts/box';
import { breakEvenWords, costWords } from '@zb/core/words/fit/cost';
import { flipWords } from '@zb/core/words/fit/score';
import { amount } from '@zb/core/words/money';
import { usualHours } from '@zb/core/system/cost';
import { judge, otherWays, type Judgement } from '@zb/core/system/judge';
import { flipReport, moneyReport, plannedRival } from '@zb/core/system/report';
import { releaseCard } from '@zb/core/system/school';
import { score } from '@zb/core/system/score';
import type { MachineView } from '@zb/core/system/view';
import type { Bench, Box as BoxRecord, Machine, Profile } from '@zb/core/model/bench';
import { z } from 'zod';
import { Primary, Quiet } from '../../ui/Button';
import { Fold } from '../../ui/Fold';
import { Select } from '../../ui/Select';
import { To } from '../../ui/To';
import { Two } from '../../ui/Two';
import { Head, Soft, Sub } from '../../ui/Words';
import { Facts } from '../../parts/Facts';
import { Findings } from '../../parts/Findings';
import { FitMark } from '../../parts/Marks';
import { OneFact } from '../../parts/OneFact';
import { OtherWays } from '../../parts/OtherWays';
import { RuleTable } from '../../parts/RuleTable';
import { ScoreTable } from '../../parts/ScoreTable';
import { stamp, useAct } from '../../storage/hooks';
import { SchoolCard } from './SchoolCard';

const hoursSchema = z.coerce.number<string>().min(0).max(24);

/** Everything about one system on this machine: verdict, repairs, releases, score and running cost. */
export function SystemCard({
  bench,
  box,
  machine,
  view,
  judged,
  profile,
  onChoose,
}: {
  bench: Bench;
  box: BoxRecord;
  machine: Machine;
  view: MachineView;
  judged: Judgement;
  profile: Profile;
  onChoose: (judged: Judgement) => void;
}) {
  const act = useAct();
  const [against, setAgainst] = useState('');
  const chosen = profile.id === box.profileId;
  const hours = box.hoursPerDay ?? usualHours(box.purpose);
  const money = moneyReport(bench, machine.id, box.purpose, hours);
  const other = money.against.find((a) => a.machineId === against) ?? money.against[0];
  const scored = score(view, profile, bench.settings.weights, judged.cost);
  const wish = bench.wishes.find((w) => w.id === box.wishId);
  // A whole column is judged for this: only where it is shown, and not at every drawing.
  const flip = useMemo(() => {
    const rival = wish && chosen ? plannedRival(bench, machine.id, wish) : undefined;
    return wish && rival ? flipReport(bench, machine.id, rival, wish) : undefined;
  }, [bench, machine.id, wish, chosen]);
  const ways = useMemo(() => otherWays(view, profile, judged), [view, profile, judged]);
  const card = releaseCard(view, profile, chosen ? box : {}, stamp().now);
  const take = (releaseId: string, variantId: string): void =>
    onChoose(judge(view, profile, { releaseId, variantId }));
  return (
    <Stack
      as="section"
      aria-label={`${profile.name} on ${machine.name}`}
      gap="2.5"
      minWidth="0"
      css={{
        borderInlineStart: { lg: '1px solid {colors.fg}' },
        borderTop: { base: '1px solid {colors.fg}', lg: 'none' },
        paddingInlineStart: { lg: '18px' },
        paddingTop: { base: '10px', lg: 0 },
      }}
    >
      <HStack justify="space-between" align="baseline">
        <Heading as="h2" textStyle="title">
          {profile.name} {judged.release.version}
        </Heading>
        {chosen ? (
          <b>chosen</b>
        ) : (
          <Primary size="sm" aria-label={`Choose ${profile.name}`} onClick={() => onChoose(judged)}>
            Choose
          </Primary>
        )}
      </HStack>
      <Text>
        {profile.about} <To to={`/profiles/${profile.id}`}>Its profile</To>
      </Text>
      <Box>
        <FitMark verdict={judged.verdict} />
        {judged.cost !== null && judged.cost > 0 && <Soft> {amount(bench, judged.cost)} to buy</Soft>}
        <Findings machine={machine} profile={profile} judged={judged} boxId={box.id} />
        {judged.missing.length > 0 && <Facts machine={machine} only={judged.missing.map((m) => m.fact)} />}
        <OtherWays bench={bench} ways={ways} />
        <RuleTable judged={judged} />
      </Box>
      <SchoolCard card={card} purpose={profile.purpose} machine={machine.name} onTake={take} />
      <Two gap="5">
        <Box>
          <Head as="h3">Score {formatNumber(scored.total)} of 100</Head>
          {flip && (
            <Text>
              <b>What would flip it.</b> {flipWords(flip)}
            </Text>
          )}
          <Fold title="What each criterion adds">
            <ScoreTable score={scored} settings={bench.settings} />
            <To to="/match">Move the weights at Match</To>
          </Fold>
        </Box>
        <Stack gap="2">
          <Head as="h3">Running cost</Head>
          {money.own ? (
            <>
              <Text>
                <b>{amount(bench, money.own.perYear)}</b> a year
                <Sub>{costWords(money.own, bench.settings)}.</Sub>
              </Text>
              <OneFact
                label="Hours a day"
                value={String(hours)}
                schema={hoursSchema}
                number={{ min: 0, max: 24, step: 0.5 }}
                width="field"
                onKeep={(n) => act(updateBox(box, { hoursPerDay: n }, `Runs ${n} hours a day`))}
              />
              {other && (
                <Select
                  label="Against"
                  value={other.machineId}
                  onChange={(e) => setAgainst(e.target.value)}
                  options={money.against.map((a) => ({
                    value: a.machineId,
                    words: `${a.name}${a.price > 0 ? `, ${amount(bench, a.price)}` : ''}`,
                  }))}
                  help={breakEvenWords(other.name, other.even, bench.settings)}
                />
              )}
            </>
          ) : (
            <Soft>Enter the watts when idle at the survey, and the cost of a year stands here.</Soft>
          )}
        </Stack>
      </Two>
      {chosen && (
        <Quiet
          alignSelf="flex-start"
          onClick={() =>
            void act(
              updateBox(
                box,
                { profileId: null, releaseId: null, variantId: null },
                `${profile.name} set aside`,
              ),
            )
          }
        >
          Choose another
        </Quiet>
      )}
    </Stack>
  );
}
