import { Stack } from '@chakra-ui/react';
import type { Box } from '@zb/core/model/bench';
import { poolScript, poolSteps } from '@zb/core/storage/commands';
import type { BoxStorage } from '@zb/core/storage/forBox';
import { noCommandsWords, stepWords } from '@zb/core/words/storage';
import { WrittenText } from '../../parts/WrittenText';
import { Dialog } from '../../ui/Dialog';
import { Fold } from '../../ui/Fold';
import { HazardMark } from '../../ui/Marks';
import { Said } from '../../ui/Said';
import { Data, Head, Sub } from '../../ui/Words';

/** What is typed to make the pool and to keep it; none of it is run from here. */
export function ToType({ box, found, onClose }: { box: Box; found: BoxStorage; onClose: () => void }) {
  const { chosen, pool } = found;
  if (!chosen) return null;
  const made = poolSteps(chosen.pool, pool);
  return (
    <Dialog open onClose={onClose} title={`${box.name}: what is typed`} size="lg">
      {'code' in made ? (
        <Said kind="check">{noCommandsWords(made)}</Said>
      ) : (
        <Stack gap="3">
          <Said kind="check">
            Read it before you run it, on the box itself: it erases the drives it names. Nothing is run from
            here.
          </Said>
          <WrittenText text={poolScript(chosen.pool, pool.name, made.steps)} name={`make-${pool.name}.sh`} />
          <Fold title="Step by step, and what is for later" open>
            <Stack gap="2">
              {made.steps.map((s) => (
                <div key={s.code}>
                  <Head>
                    {stepWords(s.code)} {s.erases && <HazardMark grade="stop" words="erases" />}
                  </Head>
                  <Sub>
                    <Data whiteSpace="pre-wrap" overflowWrap="anywhere">
                      {s.text}
                    </Data>
                  </Sub>
                </div>
              ))}
            </Stack>
          </Fold>
        </Stack>
      )}
    </Dialog>
  );
}
