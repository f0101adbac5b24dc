import { Box, HStack, Stack } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { refusePrecaution, takePrecautions } from '@zb/core/acts/install';
import type { RehearsalPlan } from '@zb/core/model/rehearsal';
import { causeOf } from '@zb/core/rehearsal/cause';
import { gradeOf, type Aim, type Ending } from '@zb/core/rehearsal/ending';
import { boxPlan, rehearsedParts, withAlways, type RehearsedPart } from '@zb/core/rehearsal/forBox';
import { precautionsFor } from '@zb/core/rehearsal/precautions';
import { wrongWorld, type Tried } from '@zb/core/rehearsal/rehearse';
import {
  endingWords,
  namesIn,
  noRehearsalWords,
  precautionWords,
  rehearsalAssumptionWords,
  rehearsalFaultWords,
  rehearsalHeadline,
  shortNames,
  unknownWords,
} from '@zb/core/words/rehearsal';
import { causeWords } from '@zb/core/words/rehearsalCause';
import { counted } from '@zb/core/words/text';
import { Reel } from '../../drawing/Reel';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { LedgerGroup } from '../../parts/LedgerPane';
import type { Shortcut } from '../../parts/Shortcuts';
import { useAct } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { Choices } from '../../ui/Choices';
import { Fold } from '../../ui/Fold';
import { HazardMark } from '../../ui/Marks';
import { Cell, Line, Num, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Segments } from '../../ui/Segments';
import { To } from '../../ui/To';
import { Two } from '../../ui/Two';
import { Head, Sub } from '../../ui/Words';
import { Working } from '../../ui/Working';
import { useRehearsal, useSafeSets } from '../../workers/rehearsing';
import { InstallViews } from './InstallViews';
import { Precautions } from './Precautions';
import { reelOf } from './reelOf';
import { SafeSets } from './SafeSets';

const NONE: string[] = [];
const GRADE = { lost: 'stop', again: 'check', right: null } as const;

/** Stop 7, rehearsed: what can go wrong and how, the shortest such scenario as a reel, and what makes all of them safe. */
function RehearsalPage({ context }: { context: BoxContext }) {
  const { bench, box, profile } = context;
  const act = useAct();
  const [part, setPart] = useState<RehearsedPart>('the install');
  const made = useMemo(() => boxPlan(bench, box, part), [bench, box, part]);
  const plan: RehearsalPlan | null = 'plan' in made ? made.plan : null;
  const [chosen, setAim] = useState<Aim | null>(null);
  const [ending, setEnding] = useState<Ending | 'what remains' | null>(null);
  const always = 'plan' in made ? made.always : NONE;
  const ids = useMemo(() => withAlways({ always }, box.precautions), [always, box.precautions]);
  const rehearsing = useRehearsal(plan, ids);
  const { found } = rehearsing;
  // Where nothing is lost already, the next question is what makes it right at once.
  const aim = chosen ?? (found && found.tally.lost === 0 ? 'right at once' : 'nothing lost');
  const sets = useSafeSets(plan, aim);
  const nameOf = namesIn(plan ?? { drives: [] });
  const told =
    ending === 'what remains'
      ? sets.found?.remains?.world
      : (found?.told.find((t) => t.ending === ending) ?? (found && (wrongWorld(found) ?? found.told[0])));
  const switched = (t: Tried): void => {
    const { id } = t.precaution;
    if (always.includes(id)) return;
    setEnding(null);
    void act(
      takePrecautions(
        box,
        t.on ? box.precautions.filter((p) => p !== id) : [...box.precautions, id],
        `${precautionWords(t.precaution, nameOf)}: ${t.on ? 'not taken' : 'taken'}`,
      ),
    );
  };
  const refused = useMemo(() => {
    if (!plan) return [];
    const all = precautionsFor({ ...plan, refused: [] });
    return box.refused.flatMap((id) => {
      const p = all.find((x) => x.id === id);
      return p ? [{ id, words: precautionWords(p, namesIn(plan)) }] : [];
    });
  }, [plan, box.refused]);
  const shortcuts = (found?.precautions ?? []).slice(0, 9).map((t, i): Shortcut => ({
    keys: String(i + 1),
    does: `switch “${precautionWords(t.precaution, nameOf)}”`,
    act: () => switched(t),
  }));
  return (
    <BoxFrame
      context={context}
      stop="install"
      headline={
        found
          ? rehearsalHeadline(found, nameOf)
          : plan
            ? 'Every scenario of this plan'
            : 'Nothing to rehearse yet'
      }
      hint="1–9 switch a precaution · ← → wind the reel"
      shortcuts={shortcuts}
      margin={
        found && (
          <LedgerGroup title="What can vary">
            <Ruled silent dense label="What can vary" heads={['What', { words: 'Ways', figure: true }]}>
              {found.varies.map((v) => (
                <Line key={v.unknown}>
                  <Cell>{unknownWords[v.unknown]}</Cell>
                  <Num>{counted(v.ways)}</Num>
                </Line>
              ))}
            </Ruled>
            <Fold title="Why: scenarios counted">
              <Sub>
                {counted(found.tally.worlds)} scenarios. They are not equally likely: the count says in how
                many ways it can happen, not how often.
              </Sub>
              <Ruled
                silent
                dense
                label="Scenarios counted"
                heads={['End', { words: 'Scenarios', figure: true }]}
              >
                {found.tally.endings.map((e) => (
                  <Line key={e.ending}>
                    <Cell>{endingWords[e.ending]}</Cell>
                    <Num>{counted(e.worlds)}</Num>
                  </Line>
                ))}
              </Ruled>
            </Fold>
          </LedgerGroup>
        )
      }
    >
      <Stack gap="4">
        <HStack gap="3" flexWrap="wrap">
          <InstallViews box={box} at="Rehearsal" />
          {profile?.installer !== 'written straight to the final drive' && (
            <Segments label="What is rehearsed" options={rehearsedParts} value={part} onTake={setPart} />
          )}
        </HStack>
        {!plan && 'code' in made && (
          <Said kind="check">
            {noRehearsalWords(made)}{' '}
            <To
              to={`/box/${box.id}/${made.code === 'no machine' ? 'survey' : made.code === 'no system' ? 'choose' : 'install'}`}
            >
              Decide it
            </To>
          </Said>
        )}
        {rehearsing.fault && (
          <Said kind="check">
            {rehearsalFaultWords(rehearsing.fault)}. <Quiet onClick={rehearsing.again}>Rehearse again</Quiet>
          </Said>
        )}
        {rehearsing.share !== null && rehearsing.share > 0 && (
          <Working
            label="Walking the scenarios"
            done={rehearsing.share}
            whole={1}
            says="every order, every key caught or missed"
            onCancel={rehearsing.cancel}
            cancelWord="Stop"
          />
        )}
        {plan && found && told && (
          <Box aria-busy={rehearsing.stale}>
            <Head marginBottom="1">
              {gradeOf(told.ending) === 'right' ? 'How it goes' : 'The shortest way to'}:{' '}
              {endingWords[told.ending].toLowerCase()}
            </Head>
            <Reel label="The scenario that is told" frames={reelOf(plan, told)} />
          </Box>
        )}
        {plan && found && (
          <Two alignItems="start">
            <Stack gap="4">
              <SafeSets
                aim={aim}
                onAim={setAim}
                job={sets}
                precautions={precautionsFor(plan)}
                nameOf={shortNames(nameOf)}
                taken={ids}
                onTake={(set) => {
                  setEnding(null);
                  void act(takePrecautions(box, set.ids, 'A smallest set of precautions taken'));
                }}
                onRemains={() => setEnding('what remains')}
              />
              <Choices
                label="How they end; choose one to see it"
                value={ending === 'what remains' ? null : (told?.ending ?? null)}
                choices={found.tally.endings.map((e) => {
                  const grade = GRADE[e.grade];
                  const world = found.told.find((t) => t.ending === e.ending);
                  const cause = world && causeOf(world);
                  return {
                    value: e.ending,
                    words: (
                      <>
                        {endingWords[e.ending]}{' '}
                        {grade && <HazardMark grade={grade} words={e.grade === 'lost' ? 'Lost' : 'Again'} />}
                        {cause && <Sub>{causeWords[cause]}</Sub>}
                      </>
                    ),
                  };
                })}
                onTake={setEnding}
              />
              {'assumed' in made && made.assumed.length > 0 && (
                <Said kind="note">{made.assumed.map(rehearsalAssumptionWords).join(' ')}</Said>
              )}
            </Stack>
            <Precautions
              rehearsal={found}
              aim={aim}
              nameOf={shortNames(nameOf)}
              always={always}
              refused={refused}
              onSwitch={switched}
              onRefuse={(p, refuse, words) =>
                void act(
                  refusePrecaution(
                    box,
                    p.id,
                    refuse,
                    `${words}: ${refuse ? 'left out' : 'considered again'}`,
                  ),
                )
              }
            />
          </Two>
        )}
      </Stack>
    </BoxFrame>
  );
}

export default withBox(RehearsalPage);
