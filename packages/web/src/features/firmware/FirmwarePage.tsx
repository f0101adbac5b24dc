import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { updateBox } from '@zb/core/acts/box';
import { busesNotStarted } from '@zb/core/machine/firmware';
import { laidBox } from '@zb/core/layout/forBox';
import { bootLadder, nextStart } from '@zb/core/starting/ladder';
import { moments, stickIsIn, type Moment, type Rung } from '@zb/core/starting/rung';
import { assumptionWords, ladderHeadline, rungRemedy, rungTitle, rungWords } from '@zb/core/words/ladder';
import { menuSchoolWords, usualKeysWords } from '@zb/core/words/startBy';
import { knownFact } from '@zb/core/model/known';
import type { FactKey } from '@zb/core/model/facts';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Facts } from '../../parts/Facts';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { Ladder } from '../../drawing/Ladder';
import { useAct } from '../../storage/hooks';
import { Choices } from '../../ui/Choices';
import type { MarkKind } from '../../ui/Marks';
import { Switch } from '../../ui/Checkbox';
import { Said } from '../../ui/Said';
import { Segments } from '../../ui/Segments';
import { ChainStick } from './ChainStick';
import { To } from '../../ui/To';
import { Two } from '../../ui/Two';
import { Head, Sub } from '../../ui/Words';

const KEYS: readonly FactKey[] = [
  'firmware.mode',
  'firmware.bits',
  'firmware.offers',
  'firmware.secureBoot',
  'firmware.order',
  'firmware.setupKey',
  'firmware.menuKey',
  'firmware.triesEach',
  'firmware.startsUsb',
  'firmware.startsNvme',
  'firmware.graphicsMemory',
  'firmware.afterPowerCut',
  'firmware.haltsOn',
];
const MARK: Record<Rung['state'], MarkKind> = {
  started: 'yes',
  refused: 'stop',
  skipped: 'no',
  'not reached': 'no',
  tried: 'ask',
};

function FirmwarePage({ context }: { context: BoxContext }) {
  const { bench, box, machine } = context;
  const act = useAct();
  const next = machine ? nextStart(bench, box, machine).moment : 'now';
  const [asked, setMoment] = useState<Moment | null>(null);
  const moment = asked ?? next;
  const [leftIn, setLeftIn] = useState(false);
  if (!machine) {
    return (
      <BoxFrame context={context} stop="firmware" headline="What will it start? Choose a machine first">
        <Text>
          The boot ladder follows the machine’s firmware.{' '}
          <To to={`/box/${box.id}/survey`}>Take a machine at Survey</To>.
        </Text>
      </BoxFrame>
    );
  }
  const target = laidBox(bench, box).drive;
  const ladder = bootLadder(bench, box, machine, {
    moment,
    stickIn: stickIsIn(moment, leftIn),
    target,
  });
  const beyond = target?.transport === 'nvme' && busesNotStarted(machine).includes('nvme');
  const keysOpen = !knownFact(machine, 'firmware.setupKey') || !knownFact(machine, 'firmware.menuKey');
  const by = (startBy: 'menu' | 'order'): void =>
    void act(
      updateBox(
        box,
        { startBy },
        startBy === 'menu' ? 'Start by the one-time menu' : 'Start by the boot order',
      ),
    );
  return (
    <BoxFrame context={context} stop="firmware" headline={ladderHeadline(ladder)}>
      <Two wider alignItems="start">
        <Stack gap="3">
          <Choices
            label="How the stick is to be started"
            value={box.startBy}
            choices={[
              {
                value: 'menu',
                words: (
                  <>
                    <b>One-time menu</b>, order untouched
                  </>
                ),
                means: menuSchoolWords(knownFact(machine, 'firmware.order')?.value),
              },
              {
                value: 'order',
                words: <b>Boot order</b>,
                means:
                  'For machines without a menu. With the stick first and left in, the machine enters the installer again at every restart.',
              },
            ]}
            onTake={by}
          />
          <Box>
            <Head>Boot ladder, read from the top</Head>
            <HStack gap="3" flexWrap="wrap" marginBlock="1">
              <Segments label="Which start" options={moments} value={moment} onTake={setMoment} />
              {moment === 'first restart' && (
                <Switch checked={leftIn} onChange={setLeftIn}>
                  the stick is left in
                </Switch>
              )}
            </HStack>
            <Ladder
              label="Boot ladder"
              rungs={ladder.rungs.map((r) => ({
                key: rungTitle(r.entry),
                title: rungTitle(r.entry),
                mark: MARK[r.state],
                state: r.state,
                lines: [rungWords(r.why), ...(r.remedy ? [`→ ${rungRemedy(r)}`] : [])],
                reached: r.state === 'started',
                dim: r.state === 'not reached',
              }))}
            />
          </Box>
          {beyond && <ChainStick bench={bench} box={box} />}
          {ladder.assumed.map(assumptionWords).map((a) => (
            <Said key={a} kind="check">
              {a}
            </Said>
          ))}
        </Stack>
        <Stack gap="3">
          <Facts machine={machine} only={KEYS} />
          {keysOpen && <Sub>{usualKeysWords(machine.form)}</Sub>}
          <LogEntryForm box={box} stop="firmware" kinds={['setting', 'photo']} />
        </Stack>
      </Two>
    </BoxFrame>
  );
}

export default withBox(FirmwarePage);
