import { SegmentGroup } from '@chakra-ui/react';

/** A few ways to look at one thing, side by side. */
export function Segments<T extends string>({
  label,
  options,
  value,
  onTake,
}: {
  label: string;
  options: readonly T[];
  value: T;
  onTake: (value: T) => void;
}) {
  return (
    <SegmentGroup.Root aria-label={label} value={value} onValueChange={(e) => onTake(e.value as T)}>
      <SegmentGroup.Indicator />
      {options.map((o) => (
        <SegmentGroup.Item key={o} value={o}>
          <SegmentGroup.ItemText>{o}</SegmentGroup.ItemText>
          <SegmentGroup.ItemHiddenInput />
        </SegmentGroup.Item>
      ))}
    </SegmentGroup.Root>
  );
}
