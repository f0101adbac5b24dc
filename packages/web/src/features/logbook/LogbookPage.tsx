import { lazy, Suspense } from 'react';
import { measuredWrites } from '@zb/core/box/measured';
import { BenchLedger } from '../../parts/BenchLedger';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { LogTable } from '../../parts/LogTable';
import { Sheet } from '../../parts/Sheet';
import { useBench } from '../../storage/hooks';

const MeasuredChart = lazy(() => import('./MeasuredChart'));

export default function LogbookPage() {
  const bench = useBench();
  const { runs, headline } = measuredWrites(bench);
  return (
    <>
      <Sheet title="Logbook" mid={`${bench.log.length} lines`} headline={headline}>
        <div className="stack">
          {runs.length > 1 && (
            <Suspense fallback={<div style={{ height: 190 }} />}>
              <MeasuredChart runs={runs} />
            </Suspense>
          )}
          <LogEntryForm box={null} stop={null} />
          <LogTable entries={bench.log} bench={bench} />
        </div>
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
