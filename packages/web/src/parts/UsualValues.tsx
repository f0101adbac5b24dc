import { HStack } from '@chakra-ui/react';
import { useState } from 'react';
import { assumeUsual } from '@zb/core/acts/shelf';
import type { Machine } from '@zb/core/model/bench';
import { machineForms } from '@zb/core/model/shelf';
import { useAct } from '../storage/hooks';
import { Quiet, Word } from '../ui/Button';
import { Select } from '../ui/Select';

const isAssumed = (machine: Machine): boolean => Object.values(machine.facts).some((r) => r.assumed);

/** For a machine that does not start yet: what its kind usually has, assumed until somebody looks. */
export function UsualValues({ machine }: { machine: Machine }) {
  const act = useAct();
  const [form, setForm] = useState(machine.form);
  const assumed = isAssumed(machine);
  return (
    <HStack gap="3" align="flex-end" flexWrap="wrap">
      <Select
        label="It does not start yet? Its kind:"
        help="Correct what you know; what is only assumed never decides by itself."
        options={machineForms}
        value={form}
        onChange={(e) => setForm(e.target.value as Machine['form'])}
        width="auto"
      />
      <Quiet onClick={() => void act(assumeUsual(machine, form, true))} alignSelf="center">
        Assume what such machines have
      </Quiet>
      {assumed && (
        <Word alignSelf="center" onClick={() => void act(assumeUsual(machine, machine.form, false))}>
          Take the assumptions away
        </Word>
      )}
    </HStack>
  );
}
