import { HStack, Kbd, Stack } from '@chakra-ui/react';
import { useHotkeysContext } from 'react-hotkeys-hook';
import { setLetters, useLetters } from '../parts/Shortcuts';
import { Switch } from '../ui/Checkbox';
import { Dialog } from '../ui/Dialog';
import { Cell, Line, Ruled } from '../ui/Ruled';
import { Sub } from '../ui/Words';

const NAMES: Record<string, string> = {
  mod: 'Ctrl or ⌘',
  arrowleft: '←',
  arrowright: '→',
  enter: 'Enter',
};
const keysOf = (hotkey: string): string[] => hotkey.split('+').map((k) => NAMES[k] ?? k.toUpperCase());

/** The keys that are bound on this screen, as they are bound, and the way to switch single letters off. */
export default function Keys({ onClose }: { onClose: () => void }) {
  const { hotkeys } = useHotkeysContext();
  const letters = useLetters();
  const byWhat = new Map<string, string>();
  for (const { description, hotkey } of hotkeys)
    if (description !== undefined && !byWhat.has(description)) byWhat.set(description, hotkey);
  return (
    <Dialog open onClose={onClose} title="Keys on this screen" size="sm">
      <Stack gap="3">
        <Ruled dense label="Keys" heads={['Key', 'What it does']} silent>
          {[...byWhat].map(([what, hotkey]) => (
            <Line key={what}>
              <Cell css={{ width: '150px' }}>
                <HStack gap="1">
                  {keysOf(hotkey).map((k) => (
                    <Kbd key={k}>{k}</Kbd>
                  ))}
                </HStack>
              </Cell>
              <Cell>{what}</Cell>
            </Line>
          ))}
        </Ruled>
        <Switch checked={letters} onChange={setLetters}>
          Single letters and signs are shortcuts
          <Sub>Switch it off where you speak to the machine, or keys are pressed by accident.</Sub>
        </Switch>
      </Stack>
    </Dialog>
  );
}
