import type { RehearsalDrive, RehearsalPlan } from '../model/rehearsal';

/** Sizes that a person reads as the same: they differ by at most this share of the larger. Common practice, no source. */
const SAME_SIZE = 0.05;

/** Does a person choose the drive? An image that is written straight is written by somebody who chooses as well. */
export const asksPerson = ({ installer }: RehearsalPlan): boolean =>
  installer.choice === 'asks for the drive' ||
  installer.choice === 'preselects the first drive' ||
  installer.choice === 'written straight to the final drive';

/** The columns by which a person who reads the list tells drives apart without reading serials. */
export const readColumns = ({ installer }: RehearsalPlan): ('size' | 'model' | 'label')[] =>
  (['size', 'model', 'label'] as const).filter((c) => installer.lists.includes(c));

/** Does the list show this drive, where it is there? */
export const isListed = (plan: RehearsalPlan, d: RehearsalDrive): boolean =>
  d.role !== 'installer' || plan.installer.listsItself;

/** Does a person read these two sizes as the same? Bytes. */
export const sameSize = (a: { bytes: number }, b: { bytes: number }): boolean =>
  Math.abs(a.bytes - b.bytes) <= SAME_SIZE * Math.max(a.bytes, b.bytes);

const same = {
  size: sameSize,
  model: (a: RehearsalDrive, b: RehearsalDrive) => a.model === b.model,
  label: (a: RehearsalDrive, b: RehearsalDrive) => a.label === b.label,
};

/** Does the list show these two alike, serials apart? */
export const readsTheSame = (plan: RehearsalPlan, a: RehearsalDrive, b: RehearsalDrive): boolean =>
  readColumns(plan).every((c) => same[c](a, b));

/**
 * The drives that a person who reads the list could take for the target, the target among them, in the order of the plan;
 * empty where nobody is asked or the list shows nothing to tell drives by.
 */
export function looksAlike(plan: RehearsalPlan): RehearsalDrive[] {
  const target = plan.drives.find((d) => d.role === 'target');
  const columns = readColumns(plan);
  if (!target || !asksPerson(plan) || columns.length === 0) return [];
  return plan.drives.filter((d) => isListed(plan, d) && readsTheSame(plan, d, target));
}
