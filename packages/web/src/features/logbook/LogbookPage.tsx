import { Skeleton, Stack } from '@chakra-ui/react';
import { lazy, Suspense, useState } from 'react';
import { measuredWrites } from '@zb/core/box/measured';
import { measuredSteps } from '@zb/core/box/measuredSteps';
import { calibrationHeadline } from '@zb/core/words/learning';
import { BenchLedger } from '../../parts/BenchLedger';
import { LogEntryForm } from '../../parts/LogEntryForm';
import { LogBook } from '../../parts/LogBook';
import { Sheet } from '../../parts/Sheet';
import { useBench } from '../../storage/hooks';
import { Quiet } from '../../ui/Button';
import { Segments } from '../../ui/Segments';
import { MeasuredSteps } from './MeasuredSteps';

const MeasuredChart = lazy(() => import('./MeasuredChart'));

const views = ['lines', 'times of steps', 'times of writes'] as const;
type View = (typeof views)[number];

export default function LogbookPage() {
  const bench = useBench();
  const { runs, headline } = measuredWrites(bench);
  const steps = measuredSteps(bench);
  const [view, setView] = useState<View>('lines');
  return (
    <>
      <Sheet
        title="Logbook"
        mid={`${bench.log.length} lines`}
        headline={steps.calibration.runs > 0 ? calibrationHeadline(steps.calibration) : headline}
        foot={<Quiet onClick={() => window.print()}>Print</Quiet>}
        hint="Lines arise by themselves as you work"
      >
        <Stack gap="4">
          <Segments label="What to look at" options={views} value={view} onTake={setView} />
          {view === 'times of steps' && <MeasuredSteps {...steps} />}
          {view === 'times of writes' && runs.length > 0 && (
            <Suspense fallback={<Skeleton css={{ height: '190px' }} />}>
              <MeasuredChart runs={runs} />
            </Suspense>
          )}
          {view === 'lines' && <LogEntryForm box={null} stop={null} />}
          {view === 'lines' && <LogBook entries={bench.log} bench={bench} />}
        </Stack>
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
