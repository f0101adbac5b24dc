import { addSampleProfiles } from '@zb/core/acts/profiles';
import { demoProfiles } from '@zb/core/demo/profiles';
import { useAct, useBench } from '../storage/hooks';
import { Primary } from '../ui/Button';
import { Nothing } from '../ui/Nothing';

/** Where a bench has no system to judge: offers the made-up ones, so that the next step is one press away. */
export function NoProfiles() {
  const bench = useBench();
  const act = useAct();
  const sample = addSampleProfiles(bench, demoProfiles);
  return (
    <Nothing
      title="No system is on this bench yet, so there is nothing to judge"
      words={`Begin with the ${sample.changes.length} sample systems: they are made up, cover every purpose and show how a fit is reasoned. A bench file brings systems of its own.`}
    >
      <Primary onClick={() => void act(sample)}>Put the sample systems on the bench</Primary>
    </Nothing>
  );
}
