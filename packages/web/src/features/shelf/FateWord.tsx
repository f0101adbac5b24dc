import type { Fate } from '@zb/core/model/content';
import { HazardMark } from '../../ui/Marks';
import { Soft } from '../../ui/Words';

/** May what is on it be lost? What must be kept, and what nobody decided, is never overlooked. */
export const FateWord = ({ fate }: { fate: Fate }) =>
  fate === 'keep' ? (
    <HazardMark grade="stop" words="keep" />
  ) : fate === 'not decided' ? (
    <HazardMark grade="check" words="not decided" />
  ) : (
    <Soft>may be lost</Soft>
  );
