import { SegmentGroup } from '@chakra-ui/react';

/** A few ways to look at one thing, side by side. */
export function Segments<T extends string>({
  label,
  options,
  value,
  onTake,
}: {
  label: string;
  options: readonly (T | { value: T; words: string })[];
  /** Null where none is taken yet. */
  value: T | null;
  onTake: (value: T) => void;
}) {
  return (
    <SegmentGroup.Root aria-label={label} value={value} onValueChange={(e) => onTake(e.value as T)}>
      <SegmentGroup.Indicator />
      {options
        .map((o) => (typeof o === 'string' ? { value: o, words: o } : o))
        .map((o) => (
          <SegmentGroup.Item key={o.value} value={o.value}>
            <SegmentGroup.ItemText>{o.words}</SegmentGroup.ItemText>
            <SegmentGroup.ItemHiddenInput />
          </SegmentGroup.Item>
        ))}
    </SegmentGroup.Root>
  );
}
