import { HStack, Stack } from '@chakra-ui/react';
import { z } from 'zod';
import { decideLayout } from '@zb/core/acts/install';
import { besideOf, type Kept as KeptParts } from '@zb/core/layout/beside';
import { canShrink } from '@zb/core/layout/shrinks';
import { driveThere } from '@zb/core/layout/usual';
import type { Box, Store } from '@zb/core/model/bench';
import type { BoxLayout } from '@zb/core/model/layout';
import { formatIec } from '@zb/core/units/bytes';
import { readSize, writeSize } from '@zb/core/units/typedSize';
import { keptFateWords } from '@zb/core/words/layout';
import { sizeProblem } from '@zb/core/words/typedSize';
import { OneFact } from '../../parts/OneFact';
import { useAct } from '../../storage/hooks';
import { Checkbox } from '../../ui/Checkbox';
import { Choices } from '../../ui/Choices';
import { Said } from '../../ui/Said';
import { Cell, Line, LineHead, Num, Ruled } from '../../ui/Ruled';

/** A size a part is made smaller to; nothing: it stays as it is. */
const shrinkSchema = z.string().transform((text, context): number | null => {
  if (text.trim() === '' || text === WHOLE) return null;
  const size = readSize(text, false);
  if ('bytes' in size) return size.bytes;
  context.addIssue({
    code: 'custom',
    message: 'problem' in size ? sizeProblem(size.problem) : 'a size is needed',
  });
  return z.NEVER;
});
const WHOLE = 'as it is';

/** What becomes of what lies on the drive: erased, or kept beside the new system, part by part. */
export function Kept({ box, drive, decided }: { box: Box; drive: Store; decided: BoxLayout }) {
  const act = useAct();
  const { parts } = driveThere(drive);
  if (parts.length === 0) return null;
  const keep = (kept: KeptParts, label: string): void => void act(decideLayout(box, { kept }, label));
  const { kept } = decided;
  return (
    <Stack gap="2">
      <Choices
        label="What becomes of what is on it?"
        value={kept.length > 0 ? 'beside' : 'erased'}
        choices={[
          { value: 'erased', words: keptFateWords.erased.words, means: keptFateWords.erased.means },
          { value: 'beside', words: keptFateWords.beside.words, means: keptFateWords.beside.means },
        ]}
        onTake={(fate) =>
          keep(
            fate === 'beside' ? besideOf(drive) : [],
            fate === 'beside' ? 'Beside what is there' : 'All of it goes',
          )
        }
      />
      {kept.length > 0 && (
        <>
          <Ruled
            dense
            label="Parts that are there"
            heads={['Stays', 'File system', { words: 'Now', figure: true }, 'Made smaller to']}
          >
            {parts.map((p) => {
              const stays = kept.find((k) => k.number === p.number);
              const name = p.label ?? (p.name || `part ${p.number}`);
              const others = kept.filter((k) => k.number !== p.number);
              return (
                <Line key={p.number}>
                  <LineHead>
                    <Checkbox
                      checked={stays !== undefined}
                      onChange={(on) =>
                        keep(
                          on ? [...others, { number: p.number, shrinkTo: null }] : others,
                          on ? `${name} stays` : `${name} goes`,
                        )
                      }
                    >
                      {name}
                    </Checkbox>
                  </LineHead>
                  <Cell>{p.filesystem ?? '—'}</Cell>
                  <Num>{formatIec(p.bytes)}</Num>
                  <Cell>
                    {stays && canShrink(p) && (
                      <HStack>
                        <OneFact
                          label={`${name}, made smaller to`}
                          value={stays.shrinkTo === null ? WHOLE : writeSize(stays.shrinkTo)}
                          schema={shrinkSchema}
                          onKeep={(shrinkTo) =>
                            act(
                              decideLayout(
                                box,
                                { kept: [...others, { number: p.number, shrinkTo }] },
                                `${name} made smaller`,
                              ),
                            )
                          }
                        />
                      </HStack>
                    )}
                  </Cell>
                </Line>
              );
            })}
          </Ruled>
          <Said kind="check">{keptFateWords.beside.beware}</Said>
        </>
      )}
    </Stack>
  );
}
