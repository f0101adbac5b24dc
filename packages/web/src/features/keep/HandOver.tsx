import { Box, Stack, Text } from '@chakra-ui/react';
import { firmwareBack, keptSettings } from '@zb/core/keeping/settings';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import { labelOfBox } from '@zb/core/network/forBox';
import { Facts } from '../../ui/Facts';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { To } from '../../ui/To';
import { Two } from '../../ui/Two';
import { Head } from '../../ui/Words';

/** What whoever stands before the box in three years wants to know. */
export function HandOver({ bench, box }: { bench: Bench; box: Build }) {
  const label = labelOfBox(bench, box);
  const settings = keptSettings(bench, box);
  const back = firmwareBack(settings);
  const password = box.first?.password ?? null;
  return (
    <Stack gap="4">
      <Two>
        <Box>
          <Head>Whoever stands before it</Head>
          <Facts
            lines={[
              { what: 'Answers at', is: label.page ?? label.lines[0] ?? 'nobody noted where' },
              {
                what: 'Its password',
                is: password ? (
                  `${password.kept}; known to ${password.knows || 'nobody named'}`
                ) : (
                  <To to={`/box/${box.id}/first-start`}>say where it is kept</To>
                ),
              },
              {
                what: 'The one it came with',
                is: password?.replaced ? 'opens it no longer' : 'may still open it',
              },
              { what: 'Remote shell', is: box.reach?.shell ?? 'nobody said' },
            ]}
          />
        </Box>
        <Box>
          <Head>Firmware back as it came</Head>
          {back.length === 0 ? (
            <Text>No setting of firmware was noted as changed.</Text>
          ) : (
            <Facts lines={back.map((s) => ({ what: s.name, is: `${s.now} to ${s.came}` }))} />
          )}
        </Box>
      </Two>
      {settings.length > 0 && (
        <Ruled
          stacked
          dense
          label="Settings as they came and as they are"
          heads={['Setting', 'Lives in', 'As it came', 'Now', 'Taken back by']}
        >
          {settings.map((s) => (
            <Line key={`${s.place} ${s.name}`}>
              <LineHead whole>{s.name}</LineHead>
              <Cell>{s.place}</Cell>
              <Cell>{s.came || '–'}</Cell>
              <Cell>{s.now || '–'}</Cell>
              <Cell whole>{s.back || '–'}</Cell>
            </Line>
          ))}
        </Ruled>
      )}
      {box.decisions.length > 0 && (
        <Box>
          <Head>Decisions</Head>
          {box.decisions.map((d) => (
            <Text key={d.id}>
              <b>
                {d.what}: {d.value}.
              </b>{' '}
              {d.because}
            </Text>
          ))}
        </Box>
      )}
    </Stack>
  );
}
