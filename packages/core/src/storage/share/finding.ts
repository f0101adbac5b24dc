import type { ShareFault } from '../../model/sharing';

/** A fault of folders, users or links with its grade. */
export interface ShareFinding {
  grade: 'stop' | 'check' | 'note';
  fault: ShareFault;
}

/** A finding by its parts. */
export const shareFinding = (grade: ShareFinding['grade'], fault: ShareFault): ShareFinding => ({
  grade,
  fault,
});
