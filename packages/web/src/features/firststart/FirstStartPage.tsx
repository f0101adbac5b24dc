import { Box, Stack } from '@chakra-ui/react';
import { route } from '@zb/core/box/summary';
import { firstStartOf } from '@zb/core/firststart/forBox';
import { firstFaultWords, firstHeadline, firstLineTitle } from '@zb/core/words/firstStart';
import { formatSpan } from '@zb/core/units/duration';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { Nothing } from '../../ui/Nothing';
import { Said } from '../../ui/Said';
import { To } from '../../ui/To';
import { Two } from '../../ui/Two';
import { Head, Sub } from '../../ui/Words';
import { useState } from 'react';
import { Quiet } from '../../ui/Button';
import { Bundle } from './Bundle';
import { FirstLines } from './FirstLines';
import { Pads } from './Pads';
import { Password } from './Password';
import { ScreenAndSound } from './ScreenAndSound';
import { Waiting } from './Waiting';

/** Stop 8: what the first start asks, made from system, machine and decisions, with its waiting foretold and measured. */
function FirstStartPage({ context }: { context: BoxContext }) {
  const { bench, box, machine, profile } = context;
  const found = firstStartOf(bench, box);
  const [pads, setPads] = useState(false);
  if ('code' in found || !profile)
    return (
      <BoxFrame
        context={context}
        stop="first-start"
        headline={firstHeadline('code' in found ? found : { code: 'no system' }, box.name)}
      >
        <Nothing
          title="The list is made, not written"
          words="Machine and system decide which lines it has, and in which order."
        >
          <To to={`/box/${box.id}/${'code' in found && found.code === 'no machine' ? 'survey' : 'choose'}`}>
            {'code' in found && found.code === 'no machine' ? 'Take a machine' : 'Choose a system'}
          </To>
        </Nothing>
      </BoxFrame>
    );
  const titleOf = (key: string): string => {
    const line = found.lines.find((l) => l.key === key);
    return line ? firstLineTitle(line) : key;
  };
  // As route and ledger have it: at one’s own pace.
  const { hands } = route(bench, box).find((s) => s.stop === 'first-start') ?? found;
  return (
    <BoxFrame context={context} stop="first-start" headline={firstHeadline(found, box.name)}>
      <Two wider alignItems="start">
        <Box>
          <Head>In this order: nothing stands before what it needs</Head>
          <Sub marginBottom="1">
            {formatSpan(hands)} of your hands, {formatSpan(found.waiting)} of waiting
            {found.online === false
              ? '; no network before its driver is in, so drivers come before updates'
              : ''}
            {found.online === undefined ? '; whether the network works without a driver is not known' : ''}
          </Sub>
          {found.faults.map((f) => (
            <Said key={JSON.stringify(f)} kind="stop">
              {firstFaultWords(f, titleOf)}
            </Said>
          ))}
          <FirstLines box={box} lines={found.lines} record={found.record} />
        </Box>
        <Stack gap="5">
          <Waiting box={box} profile={profile} record={found.record} lines={found.lines} />
          {profile.login !== 'no login' && <Password box={box} profile={profile} record={found.record} />}
          {profile.drivers.length > 0 && <Bundle bench={bench} box={box} profile={profile} />}
          {machine && <ScreenAndSound box={box} machine={machine} />}
          {found.lines.some((l) => l.code === 'gamepads mapped') && (
            <Box as="section" aria-label="Gamepads">
              <Head>Gamepads</Head>
              <Sub>
                {found.record.pads.length === 0
                  ? 'None was tried yet.'
                  : found.record.pads.map((p) => p.name).join(', ')}
              </Sub>
              <Quiet onClick={() => setPads(true)}>The bench for gamepads</Quiet>
              {pads && <Pads open onClose={() => setPads(false)} box={box} record={found.record} />}
            </Box>
          )}
          <LogEntryForm box={box} stop="first-start" kinds={['setting', 'photo']} />
        </Stack>
      </Two>
    </BoxFrame>
  );
}

export default withBox(FirstStartPage);
