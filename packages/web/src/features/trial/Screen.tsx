import { Box, chakra } from '@chakra-ui/react';
import type { Trial } from '@zb/core/model/trial';
import { Quiet } from '../../ui/Button';
import { Acts, Sub } from '../../ui/Words';
import { emulatorKeys } from './keys';

/** Keys that a tablet has not, and a browser keeps for itself. */
const BUTTONS = [
  ['Enter', 'ret'],
  ['Esc', 'esc'],
  ['F2', 'f2'],
  ['F12', 'f12'],
  ['Up', 'up'],
  ['Down', 'down'],
  ['Space', 'spc'],
] as const;

/** The machine’s real screen, and its keyboard. */
export function Screen({ trial, onKeys }: { trial: Trial; onKeys: (keys: readonly string[]) => void }) {
  const runs = trial.state === 'runs';
  return (
    <Box>
      <Box
        role="application"
        aria-label="Screen of the machine; keys go to it while it has the focus"
        tabIndex={0}
        onKeyDown={(e) => {
          const keys = runs ? emulatorKeys(e.nativeEvent) : null;
          if (!keys) return;
          e.preventDefault();
          e.stopPropagation();
          onKeys(keys);
        }}
        css={{
          width: '100%',
          background: '#000',
          border: '1px solid {colors.rule.strong}',
          aspectRatio: '720 / 400',
          maxHeight: '52vh',
        }}
        display="grid"
        placeItems="center"

        overflow="hidden"
      >
        {trial.picture > 0 ? (
          <chakra.img
            src={`/api/trials/${trial.id}/screen?n=${trial.picture}`}
            alt={trial.screen ?? 'The screen shows a picture'}
            css={{ width: '100%', maxHeight: '100%', objectFit: 'contain' }}
          />
        ) : (
          <chakra.span css={{ color: '#ddd' }}>
            {runs ? 'It is being switched on' : 'The screen is dark'}
          </chakra.span>
        )}
      </Box>
      {runs && (
        <Acts marginTop="2">
          {BUTTONS.map(([word, key]) => (
            <Quiet key={key} onClick={() => onKeys([key])}>
              {word}
            </Quiet>
          ))}
          <Sub>Or click the screen and type.</Sub>
        </Acts>
      )}
    </Box>
  );
}
