import type { ShareFault } from '../../model/sharing';

/** A fault of folders, users or links with its grade. */
export interface ShareFinding {
  grade: 'stop' | 'check' | 'note';
  fault: ShareFault;
}
