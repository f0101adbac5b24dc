import { Stack } from '@chakra-ui/react';
import { questionCodes, type QuestionCode } from '@zb/core/model/tune';
import { quantities } from '@zb/core/tune/quantities';
import { questions } from '@zb/core/tune/questions';
import { settingDefinitions } from '@zb/core/tune/settings';
import { formatDuration } from '@zb/core/units/duration';
import { questionTitle } from '@zb/core/words/tune';
import { capital, list, within } from '@zb/core/words/text';
import { Word } from '../../ui/Button';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Sub } from '../../ui/Words';

/** What can be asked: by what each question is decided, and what usually moves it, the biggest lever first. */
export function Questions({ onAsk }: { onAsk: (question: QuestionCode) => void }) {
  return (
    <Stack gap="2">
      <Ruled
        stacked
        label="What can be asked"
        heads={[
          'It should be',
          'Decided by',
          'Usually moved by, the biggest lever first',
          { words: 'Measured for', figure: true },
        ]}
      >
        {questionCodes.map((code) => {
          const q = questions[code];
          return (
            <Line key={code}>
              <LineHead>
                <Word onClick={() => onAsk(code)}>{questionTitle(code)}</Word>
              </LineHead>
              <Cell>{quantities[q.first].label}</Cell>
              <Cell>{capital(list(q.levers.map((l) => within(settingDefinitions[l].title))))}</Cell>
              <Num>{formatDuration(q.measure)}</Num>
            </Line>
          );
        })}
      </Ruled>
      <Sub>
        Levers are common practice, with no source; what they do on this machine is what the runs are for.
      </Sub>
    </Stack>
  );
}
