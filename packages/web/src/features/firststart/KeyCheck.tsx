import { Box, HStack, Kbd, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { keyNext, keyVerdict, keysAsked, type KeyPress } from '@zb/core/firststart/keys';
import { keyVerdictWords } from '@zb/core/words/firstStart';
import { Input } from '../../ui/Input';
import { Sub } from '../../ui/Words';

/** The keys that differ between layouts, pressed one after another: what comes out tells the layout. */
export function KeyCheck() {
  const [pressed, setPressed] = useState<KeyPress[]>([]);
  const asked = keyNext(pressed);
  return (
    <Box marginBottom="2">
      <Text>
        {asked
          ? 'On this keyboard, press the key where this one sits, right of L, below the digit 1, and so on:'
          : keyVerdictWords(keyVerdict(pressed))}
      </Text>
      <HStack gap="2" marginBlock="1">
        {keysAsked.map((k, i) => (
          <Kbd key={k.code} {...(i === pressed.length ? { bg: 'work.wash' } : {})}>
            {pressed[i]?.key ?? k.where}
          </Kbd>
        ))}
      </HStack>
      <Input
        label="Press here"
        value=""
        onChange={() => undefined}
        onKeyDown={(e) => {
          if (e.key === 'Tab' || e.key === 'Shift' || !asked) return;
          e.preventDefault();
          e.stopPropagation();
          setPressed([...pressed, { code: e.code, key: e.key }]);
        }}
      />
      <Sub>Nothing of it is kept.</Sub>
    </Box>
  );
}
