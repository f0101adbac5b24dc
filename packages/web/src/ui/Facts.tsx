import { DataList, Stat } from '@chakra-ui/react';
import type { ReactNode } from 'react';

/** What a thing is, line by line. */
export function Facts({ lines }: { lines: readonly { what: string; is: ReactNode }[] }) {
  return (
    <DataList.Root>
      {lines.map((l) => (
        <DataList.Item key={l.what}>
          <DataList.ItemLabel>{l.what}</DataList.ItemLabel>
          <DataList.ItemValue>{l.is}</DataList.ItemValue>
        </DataList.Item>
      ))}
    </DataList.Root>
  );
}

/** One figure with its unit, and what it is made of. */
export function Figure({ label, value, help }: { label: string; value: string; help?: ReactNode }) {
  return (
    <Stat.Root>
      <Stat.Label>{label}</Stat.Label>
      <Stat.ValueText>{value}</Stat.ValueText>
      {help !== undefined && <Stat.HelpText as="dd">{help}</Stat.HelpText>}
    </Stat.Root>
  );
}
