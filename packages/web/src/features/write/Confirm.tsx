import { Box, HStack, Stack, Text } from '@chakra-ui/react';
import { Controller, type FieldErrors } from 'react-hook-form';
import type { StickFault, VirtualStick } from '@zb/core/model/standIns';
import type { GuardedTarget } from '@zb/core/write/guard';
import { predictInstall } from '@zb/core/write/install';
import { usbLinks } from '@zb/core/machine/links';
import { predictTimes, unknownStick } from '@zb/core/write/time';
import type { Bench, Box as BoxRecord, ImageItem } from '@zb/core/model/bench';
import { formatBoth, MIB } from '@zb/core/units/bytes';
import { formatRate, formatSpan } from '@zb/core/units/duration';
import { unitsExplained } from '@zb/core/words/sizes';
import { refused, useDraftForm } from '../../parts/useDraftForm';
import { Primary, Quiet } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { Fold } from '../../ui/Fold';
import { Input } from '../../ui/Input';
import { PickFile } from '../../ui/PickFile';
import { Said } from '../../ui/Said';
import { Select } from '../../ui/Select';
import { Two } from '../../ui/Two';
import { Data, Sub } from '../../ui/Words';
import { BeforeAfter } from './Target';

const FAULTS: { name: string; make: (bytes: number) => StickFault; is: (f: StickFault) => boolean }[] = [
  { name: 'none', make: () => ({}), is: (f) => Object.keys(f).length === 0 },
  {
    name: 'lies about its capacity',
    make: (bytes) => ({ realBytes: Math.max(MIB, Math.floor(bytes / 2)) }),
    is: (f) => f.realBytes !== undefined,
  },
  {
    name: 'has a weak place',
    make: (bytes) => ({ weakAt: Math.floor(bytes * 0.6) }),
    is: (f) => f.weakAt !== undefined,
  },
  { name: 'is pulled out half-way', make: () => ({ pulledAt: 0.5 }), is: (f) => f.pulledAt !== undefined },
];

/** What is foretold of a write: both halves as ranges, the link that holds it up, and why. */
function Foretold({
  bench,
  box,
  choice,
  bytes,
}: {
  bench: Bench;
  box: BoxRecord;
  choice: GuardedTarget;
  bytes: number;
}) {
  const { link } = choice.target;
  const install = predictInstall(bench, box);
  const times = predictTimes(
    bytes,
    choice.known ?? unknownStick(choice.target.serial),
    bench.log,
    link && usbLinks[link],
  );
  return (
    <Fold title={`Foretold: ${formatSpan(times.whole.value)}`}>
      <Sub>
        Writing {formatSpan(times.write.value)}, reading back {formatSpan(times.verify.value)}.
        {times.slowest &&
          ` The slowest link is ${times.slowest.name}: ${formatRate(times.slowest.bytesPerSecond)} at most, ${times.slowest.because}.`}
      </Sub>
      <Sub>{times.whole.because.join('; ')}</Sub>
      {install && (
        <Sub>
          Installing from it waits {formatSpan(install.value)}: {install.because[0]}.
        </Sub>
      )}
    </Fold>
  );
}

/** The picked stick: before and after, the last four of its serial to type, what is foretold, and its faults to practise. */
export function Confirm({
  bench,
  box,
  image,
  bytes,
  choice,
  stick,
  haveBytes,
  onLocal,
  onWrite,
  onFault,
  onProbe,
}: {
  bench: Bench;
  box: BoxRecord;
  image: ImageItem;
  /** What reaches the stick. */
  bytes: number;
  choice: GuardedTarget;
  stick: VirtualStick;
  haveBytes: boolean;
  onLocal: (file: File) => void;
  onWrite: (tail: string) => void;
  onFault: (fault: StickFault) => void;
  onProbe: () => void;
}) {
  const { form, submit } = useDraftForm<{ tail: string; meant: boolean }>({
    values: { tail: '', meant: false },
    // What is typed here is never kept for another time: it is read off the stick in the hand.
    draft: null,
    ask: false,
    resolver: ({ tail, meant }) => {
      const errors: FieldErrors<{ tail: string; meant: boolean }> = {
        ...(tail.toUpperCase() === choice.tail
          ? {}
          : {
              tail: {
                type: 'custom',
                message: 'That is not this stick’s serial. Look again before you go on.',
              },
            }),
        ...(choice.large && !meant
          ? { meant: { type: 'custom', message: 'Say that the large target is the one that is meant.' } }
          : {}),
      };
      return Object.keys(errors).length > 0 ? refused(errors) : { values: { tail, meant }, errors: {} };
    },
    save: ({ tail }) => {
      onWrite(tail.toUpperCase());
      return false;
    },
  });
  const { errors } = form.formState;
  const units = unitsExplained(choice.target.bytes);
  const tail = form.watch('tail');
  const wrongTail = tail.length === 4 && tail.toUpperCase() !== choice.tail;
  return (
    <Two wider alignItems="start">
      <BeforeAfter guarded={choice} imageBytes={bytes} imageName={image.name} />
      <Stack gap="3">
        {!haveBytes && (
          <Said kind="check">
            After a reload the browser forgets which file was open.{' '}
            <PickFile plain label={`Open ${image.name} again`} onFile={onLocal} />
          </Said>
        )}
        <form onSubmit={(e) => void submit(e)}>
          <Stack gap="2">
            <Text>
              All of stick <Data fontWeight="strong">…{choice.tail}</Data> will be lost. Read the serial off
              the stick and type its <b>last four</b>:
            </Text>
            {choice.large && (
              <Box>
                <Controller
                  control={form.control}
                  name="meant"
                  render={({ field }) => (
                    <Checkbox checked={field.value} onChange={field.onChange}>
                      This target is large: {formatBoth(choice.target.bytes)}. It is the one that is meant.
                    </Checkbox>
                  )}
                />
                {errors.meant && (
                  <Sub role="alert" color="stop">
                    {errors.meant.message}
                  </Sub>
                )}
              </Box>
            )}
            <HStack gap="2" align="flex-start">
              <Input
                label="Last four of the serial"
                data
                width="field"
                maxLength={4}
                textTransform="uppercase"
                error={
                  wrongTail
                    ? 'That is not this stick’s serial. Look again before you go on.'
                    : errors.tail?.message
                }
                {...form.register('tail')}
              />
              <Primary type="submit" disabled={!haveBytes} marginTop="5">
                Write and compare
              </Primary>
            </HStack>
          </Stack>
        </form>
        <Foretold bench={bench} box={box} choice={choice} bytes={bytes} />
        <Fold title={units.title}>
          <Sub>{units.text}</Sub>
        </Fold>
        <HStack gap="2" align="flex-end">
          <Select
            label="Practise a fault: this stick"
            value={FAULTS.find((f) => f.is(stick.fault))?.name ?? 'none'}
            options={FAULTS.map((f) => ({
              value: f.name,
              words: f.name === 'none' ? 'has no fault' : f.name,
            }))}
            onChange={(e) => {
              const fault = FAULTS.find((f) => f.name === e.target.value);
              if (fault) onFault(fault.make(bytes));
            }}
          />
          <Quiet onClick={onProbe}>Probe its real size</Quiet>
        </HStack>
      </Stack>
    </Two>
  );
}
