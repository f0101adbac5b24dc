import { Stack, Text } from '@chakra-ui/react';
import type { LayoutSheet } from '@zb/core/layout/sheet';
import { formatExact, formatIec } from '@zb/core/units/bytes';
import { filesystemWords, takenWords, typedWords, useWords } from '@zb/core/words/layout';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { Why } from '../../ui/Why';
import { Sub } from '../../ui/Words';

/** What a figure is, where the heads of the table are not in sight. */
const Narrow = ({ children }: { children: string }) => (
  <Text as="span" textStyle="small" color="fg.muted" hideFrom="md">
    {children}{' '}
  </Text>
);

/** Each part with what to type, what it becomes and what is free in it; the figures open their reasons. */
export function Parts({ sheet }: { sheet: LayoutSheet }) {
  const typed =
    sheet.rows.find((r) => r.typed && !r.rest && r.part.use === 'system')?.typed ??
    sheet.rows.find((r) => r.typed && !r.rest)?.typed;
  return (
    <Stack gap="3">
      <Ruled
        stacked
        label="Parts"
        heads={[
          'Part',
          'What to type',
          { words: 'Becomes', figure: true },
          { words: 'Free after making', figure: true },
        ]}
      >
        {sheet.rows
          .filter((r) => r.part.kind !== 'extended')
          .map(({ part, typed: t, rest, space }) => (
            <Line key={part.start}>
              <LineHead>
                {part.use === 'start'
                  ? useWords.start
                  : part.name || (part.use ? useWords[part.use] : 'part')}
                <Sub fontWeight="normal">
                  {part.filesystem ? filesystemWords[part.filesystem] : ''}
                  {part.mount ? `, mounted at ${part.mount}` : ''}
                  {part.active ? ', active' : ''}
                  {part.kind === 'logical' ? ', logical' : ''}
                </Sub>
              </LineHead>
              <Cell textStyle="data" whiteSpace="nowrap">
                <Narrow>type</Narrow>
                {rest ? 'the rest' : t ? `${t.text} ${t.unit}` : 'kept'}
              </Cell>
              <Num>
                <Narrow>becomes</Narrow>
                <Why of={formatIec(part.bytes)}>
                  {formatExact(part.bytes)}, from byte {part.start}
                </Why>
              </Num>
              <Num>
                {space ? (
                  <>
                    <Narrow>free</Narrow>
                    <Why of={formatIec(space.free)}>
                      {space.takes.length === 0
                        ? 'Nothing of it is taken.'
                        : `Taken: ${space.takes.map(takenWords).join(', ')}.`}
                    </Why>
                    {space.toUsers < space.free && <Sub>{formatIec(space.toUsers)} to users</Sub>}
                  </>
                ) : (
                  '–'
                )}
              </Num>
            </Line>
          ))}
      </Ruled>
      {typed && <Said kind="note">{typedWords(typed)}</Said>}
    </Stack>
  );
}
