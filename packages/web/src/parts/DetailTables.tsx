import { Box } from '@chakra-ui/react';
import type { Machine } from '@zb/core/model/bench';
import { noDetails } from '@zb/core/model/details';
import { detailTables } from '@zb/core/machine/tables';
import { HazardMark } from '../ui/Marks';
import { Data } from '../ui/Words';
import { FactColumns, FactGroup, FactRow } from './FactSheet';

/** The parts lists of the last survey, each as a small table. */
export function DetailTables({ machine }: { machine: Machine }) {
  const tables = detailTables(machine.details ?? noDetails(), machine.networkPorts);
  if (tables.length === 0) return null;
  return (
    <FactColumns>
      {tables.map((t) => (
        <FactGroup key={t.title} title={t.title}>
          {t.lines.map((l) => (
            <FactRow key={l.what + l.is}>
              <Data>{l.what}</Data>
              <Box as="span" css={{ gridColumn: '2 / 4' }}>
                {l.grade && (
                  <>
                    <HazardMark grade={l.grade} />{' '}
                  </>
                )}
                {l.is}
              </Box>
            </FactRow>
          ))}
        </FactGroup>
      ))}
    </FactColumns>
  );
}
