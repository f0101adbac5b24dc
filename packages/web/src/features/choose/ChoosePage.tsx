import { Grid, Text } from '@chakra-ui/react';
import { formatNumber } from '@zb/core/units/number';
import { useMemo, useState } from 'react';
import { chooseProfile } from '@zb/core/acts/box';
import { fitHeadline } from '@zb/core/words/fit/headline';
import { judgedShort } from '@zb/core/words/fit/finding';
import { judgeAll } from '@zb/core/system/judge';
import { score } from '@zb/core/system/score';
import { machineView } from '@zb/core/system/view';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { NoProfiles } from '../../parts/NoProfiles';
import { FitMark } from '../../parts/Marks';
import { stamp, useAct } from '../../storage/hooks';
import { Word } from '../../ui/Button';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { To } from '../../ui/To';
import { Sub } from '../../ui/Words';
import { SystemCard } from './SystemCard';

function ChoosePage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  const [picked, setPicked] = useState<string | null>(null);
  const judged = useMemo(
    () => (machine ? judgeAll(bench, machine, box.purpose, box) : []),
    [bench, machine, box],
  );
  const view = useMemo(() => machine && machineView(bench, machine, undefined, box), [bench, machine, box]);
  if (!machine || !view) {
    return (
      <BoxFrame context={context} stop="choose" headline="Choose a machine first">
        <Text>
          Which system fits depends on the machine. <To to={`/box/${box.id}/survey`}>Go to the survey</To>.
        </Text>
      </BoxFrame>
    );
  }
  const shown = judged.find((j) => j.profileId === (picked ?? box.profileId)) ?? judged[0];
  return (
    <BoxFrame
      context={context}
      stop="choose"
      headline={fitHeadline(machine.name, box.purpose, judged, box.profileId)}
      acts={<To to="/profiles">Profiles</To>}
    >
      {judged.length === 0 || !shown ? (
        <NoProfiles />
      ) : (
        <Grid
          gap="5"
          alignItems="start"
          templateColumns={{ base: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) minmax(0, 1.45fr)' }}
        >
          <Ruled
            dense
            label="Systems"
            heads={['System', `On ${machine.name}`, { words: 'Score', figure: true }]}
          >
            {judged.map((j) => (
              <Line key={j.profileId} here={j.profileId === shown.profileId}>
                <LineHead>
                  <Word aria-pressed={j.profileId === shown.profileId} onClick={() => setPicked(j.profileId)}>
                    {j.profile}
                  </Word>
                  <Sub>
                    {j.of.purpose}
                    {j.profileId === box.profileId && <b>, chosen</b>}
                  </Sub>
                </LineHead>
                <Cell>
                  <FitMark verdict={j.verdict} />
                  <Sub>{judgedShort(j)}</Sub>
                </Cell>
                <Num>
                  {j.verdict === 'does not fit'
                    ? ''
                    : formatNumber(score(view, j.of, bench.settings.weights, j.cost).total)}
                </Num>
              </Line>
            ))}
          </Ruled>
          <SystemCard
            key={shown.profileId}
            bench={bench}
            box={box}
            machine={machine}
            view={view}
            judged={shown}
            profile={shown.of}
            onChoose={(j) => void act(chooseProfile(bench, box, shown.of, j, stamp()))}
          />
        </Grid>
      )}
    </BoxFrame>
  );
}

export default withBox(ChoosePage);
