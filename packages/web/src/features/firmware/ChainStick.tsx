import { HStack } from '@chakra-ui/react';
import { updateBox } from '@zb/core/acts/box';
import type { Bench, Box } from '@zb/core/model/bench';
import { chainSticks } from '@zb/core/write/chainSticks';
import { useAct } from '../../storage/hooks';
import { NumberField } from '../../ui/NumberField';
import { Select } from '../../ui/Select';

/** Seconds most chain loaders wait before they go on. Common practice, no source. */
const USUAL_SECONDS = 5;

/** The stick that stays in and starts a drive which this firmware cannot start, and how long its menu waits. */
export function ChainStick({ bench, box }: { bench: Bench; box: Box }) {
  const act = useAct();
  const sticks = chainSticks(bench, box);
  const chosen = box.chain;
  const keep = (chain: Box['chain'], label: string): void => void act(updateBox(box, { chain }, label));
  return (
    <HStack gap="3" align="flex-end" flexWrap="wrap">
      <Select
        label="Chain loader on"
        none="no stick yet"
        options={sticks.map((s) => ({ value: s.id, words: s.name }))}
        value={chosen?.stickId ?? ''}
        onChange={(e) =>
          keep(
            e.target.value === ''
              ? null
              : { stickId: e.target.value, seconds: chosen?.seconds ?? USUAL_SECONDS },
            'Stick of the chain loader',
          )
        }
      />
      {chosen && (
        <NumberField
          label="Its menu waits, seconds"
          min={0}
          max={600}
          value={String(chosen.seconds)}
          onValue={(text) => {
            const seconds = Number(text);
            if (Number.isInteger(seconds) && seconds >= 0 && seconds <= 600)
              keep({ ...chosen, seconds }, 'Countdown of the chain loader');
          }}
        />
      )}
    </HStack>
  );
}
