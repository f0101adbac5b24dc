import { Box, List, Stack, Text } from '@chakra-ui/react';
import { Fragment } from 'react';
import { updateBox } from '@zb/core/acts/box';
import { amount } from '@zb/core/words/money';
import type { GatherLine } from '@zb/core/gather/line';
import { gatherList } from '@zb/core/gather/list';
import { gatherHeadline, safetyWords, thingWords } from '@zb/core/words/gather';
import { BoxFrame, withBox, type BoxContext } from '../../parts/BoxFrame';
import { Quiet } from '../../ui/Button';
import { useAct } from '../../storage/hooks';
import { Checkbox } from '../../ui/Checkbox';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { To } from '../../ui/To';
import { Head, Sub } from '../../ui/Words';

/** Everything that must lie on the bench before this box is begun. */
function GatherPage({ context }: { context: BoxContext }) {
  const { bench, box, machine, profile } = context;
  const act = useAct();
  const list = gatherList(bench, box);
  const toggle = (line: GatherLine): void => {
    const has = box.gathered.includes(line.key);
    const gathered = has ? box.gathered.filter((k) => k !== line.key) : [...box.gathered, line.key];
    const { what } = thingWords(line.thing);
    void act(updateBox(box, { gathered }, has ? `${what} not on the bench` : `${what} lies on the bench`));
  };
  const mine = list.lines.filter((l) => l.where === 'on the shelf' && l.group === 'Parts that go in');
  const loose = mine.flatMap((l) => (l.itemId && !box.parts.includes(l.itemId) ? [l.itemId] : []));
  return (
    <BoxFrame
      context={context}
      stop="gather"
      headline={gatherHeadline(list, box)}
      acts={
        <>
          {loose.length > 0 && (
            <Quiet
              onClick={() =>
                void act(
                  updateBox(box, { parts: [...box.parts, ...loose] }, `Parts put aside for “${box.name}”`),
                )
              }
            >
              Put the parts aside
            </Quiet>
          )}
          <Quiet onClick={() => window.print()}>Print</Quiet>
          <To to="/shopping">Shopping list</To>
        </>
      }
    >
      {!machine || !profile ? (
        <Text>
          What must be gathered follows from machine and system.{' '}
          <To to={`/box/${box.id}/${machine ? 'choose' : 'survey'}`}>
            {machine ? 'Choose a system' : 'Go to the survey'}
          </To>
          .
        </Text>
      ) : (
        <Stack gap="4">
          <Ruled
            stacked
            dense
            label="What must lie on the bench"
            heads={[{ words: 'On the bench', silent: true }, 'What', 'Why', 'Where']}
          >
            {list.lines
              .map((l, i) => ({ l, i, words: thingWords(l.thing), has: box.gathered.includes(l.key) }))
              .map(({ l, i, words, has }) => (
                <Fragment key={l.key}>
                  {l.group !== list.lines[i - 1]?.group && (
                    <Line>
                      <Cell />
                      <LineHead scope="rowgroup" colSpan={3} whole textStyle="label" borderBottom="ink">
                        {l.group}
                      </LineHead>
                    </Line>
                  )}
                  <Line {...(has ? { color: 'fg.muted' } : {})}>
                    <Cell>
                      <Checkbox
                        checked={has}
                        label={`${words.what} lies on the bench`}
                        onChange={() => toggle(l)}
                      />
                    </Cell>
                    <LineHead {...(has ? { textDecoration: 'line-through' } : {})}>
                      {l.count > 1 && l.group === 'Parts that go in' ? `${l.count} × ` : ''}
                      {words.what}
                    </LineHead>
                    <Cell color="fg.muted">{words.why}</Cell>
                    <Cell whiteSpace={{ md: 'nowrap' }}>
                      {l.where === 'to buy' || l.where === 'in use elsewhere' ? <b>{l.where}</b> : l.where}
                      {l.price !== undefined && (
                        <Sub>{l.price === null ? 'no price noted' : amount(bench, l.price * l.count)}</Sub>
                      )}
                      {l.itemId && box.parts.includes(l.itemId) && <Sub>put aside</Sub>}
                    </Cell>
                  </Line>
                </Fragment>
              ))}
          </Ruled>
          {list.safety.length > 0 && (
            <Box as="section" aria-label="Where it can hurt">
              <Head>Where it can hurt</Head>
              <List.Root marks="square">
                {list.safety.map((s) => (
                  <List.Item key={s.key}>{safetyWords(s)}</List.Item>
                ))}
              </List.Root>
            </Box>
          )}
        </Stack>
      )}
    </BoxFrame>
  );
}

export default withBox(GatherPage);
