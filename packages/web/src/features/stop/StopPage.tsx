import { Stack } from '@chakra-ui/react';
import { useParams } from 'react-router';
import { logOf } from '@zb/core/model/bench';
import { stopSchema } from '@zb/core/model/stops';
import { outlookOf } from '@zb/core/box/summary';
import NotFound from '../../parts/NotFound';
import { BoxFrame, useBoxContext } from '../../parts/BoxFrame';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { LogTable } from '../../parts/LogTable';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';

/** A stop whose own screen is still to come: one honest sentence, what is known, and the log. */
export default function StopPage() {
  const { stop: named } = useParams();
  const context = useBoxContext();
  const stop = stopSchema.safeParse(named);
  if (!context) return <NotFound what="This box is not on the bench" />;
  if (!stop.success) return <NotFound what="A box has no such stop" />;
  const outlook = outlookOf(context.bench, context.box, stop.data);
  return (
    <BoxFrame context={context} stop={stop.data} headline={outlook.headline}>
      <Stack gap="4">
        <Said>{outlook.later}</Said>
        {outlook.known.length > 0 && (
          <Ruled
            label="Known already"
            heads={[
              { words: 'Known already', width: '190px' },
              { words: 'What it is', silent: true },
            ]}
          >
            {outlook.known.map((k) => (
              <Line key={k.what + k.is}>
                <LineHead fontWeight="medium">{k.what}</LineHead>
                <Cell>{k.is}</Cell>
              </Line>
            ))}
          </Ruled>
        )}
        <LogEntryForm box={context.box} stop={stop.data} />
        <LogTable entries={logOf(context.bench, context.box.id).filter((e) => e.stop === stop.data)} />
      </Stack>
    </BoxFrame>
  );
}
