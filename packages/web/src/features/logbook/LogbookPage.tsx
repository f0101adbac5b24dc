import { Skeleton, Stack } from '@chakra-ui/react';
import { lazy, Suspense } from 'react';
import { measuredWrites } from '@zb/core/box/measured';
import { BenchLedger } from '../../parts/BenchLedger';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { LogBook } from '../../parts/LogBook';
import { Sheet } from '../../parts/Sheet';
import { useBench } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';

const MeasuredChart = lazy(() => import('./MeasuredChart'));

export default function LogbookPage() {
  const bench = useBench();
  const { runs, headline } = measuredWrites(bench);
  return (
    <>
      <Sheet
        title="Logbook"
        mid={`${bench.log.length} lines`}
        headline={headline}
        foot={<Quiet onClick={() => window.print()}>Print</Quiet>}
        hint="Lines arise by themselves as you work"
      >
        <Stack gap="4">
          {runs.length > 1 && (
            <Suspense fallback={<Skeleton css={{ height: '190px' }} />}>
              <MeasuredChart runs={runs} />
            </Suspense>
          )}
          <LogEntryForm box={null} stop={null} />
          <LogBook entries={bench.log} bench={bench} />
        </Stack>
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
