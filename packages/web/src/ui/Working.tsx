import { HStack, Progress, Text } from '@chakra-ui/react';
import { formatIec } from '@zb/core/units/bytes';
import { formatDuration, formatRate } from '@zb/core/units/duration';
import { Quiet } from './Button';

/** Long work: how far it is, how fast, how long still, and the way to end it. Bytes, bytes a second, seconds. */
export function Working({
  label,
  done,
  whole,
  says,
  rate,
  left,
  onCancel,
  cancelWord = 'Cancel',
}: {
  label: string;
  done: number;
  /** Undefined where nobody knows how much there is. */
  whole: number | undefined;
  /** What is done, in words, where it is not bytes. */
  says?: string;
  rate?: number;
  left?: number;
  onCancel?: () => void;
  cancelWord?: string;
}) {
  const share = whole === undefined || whole === 0 ? null : Math.min(100, (100 * done) / whole);
  return (
    <Progress.Root value={share}>
      <HStack justify="space-between" gap="3">
        <Progress.Label>{label}</Progress.Label>
        <Progress.ValueText>{share === null ? '' : `${Math.floor(share)} %`}</Progress.ValueText>
      </HStack>
      <Progress.Track aria-label={label}>
        <Progress.Range />
      </Progress.Track>
      <HStack justify="space-between" gap="3" marginTop="1">
        <Text textStyle="small">
          {[
            says ?? (whole === undefined ? formatIec(done) : `${formatIec(done)} of ${formatIec(whole)}`),
            rate === undefined ? '' : formatRate(rate),
            left === undefined ? '' : `${formatDuration(left)} left`,
          ]
            .filter(Boolean)
            .join(' · ')}
        </Text>
        {onCancel && (
          <Quiet size="sm" onClick={onCancel}>
            {cancelWord}
          </Quiet>
        )}
      </HStack>
    </Progress.Root>
  );
}
