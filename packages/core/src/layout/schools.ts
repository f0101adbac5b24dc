import type { Bench, Box } from '../model/bench';
import { partSchools, swapSchools, type PartSchool, type SwapSchool } from '../model/layout';
import { changedLayout, laidBox } from './forBox';

/** What a school would make of this drive: bytes of each part that has a use, and whether there is room for all of it. */
export interface SchoolMeans {
  parts: { use: string; name: string; bytes: number }[];
  fits: boolean;
}

/** Every school laid out on the drive of this box, so that each can say what it means here; null where it cannot. */
export function schoolsMean(
  bench: Bench,
  box: Box,
): { parts: Record<PartSchool, SchoolMeans | null>; swap: Record<SwapSchool, SchoolMeans | null> } {
  const means = (changed: Parameters<typeof changedLayout>[1]): SchoolMeans | null => {
    const layout = { ...changedLayout(box.layout, changed), sizes: {} };
    const { sheet } = laidBox(bench, { ...box, layout });
    return (
      sheet && {
        parts: sheet.layout.parts.flatMap((p) =>
          p.use === null || p.fate !== 'new' ? [] : [{ use: p.use, name: p.name, bytes: p.bytes }],
        ),
        fits: sheet.layout.problems.length === 0,
      }
    );
  };
  const each = <T extends string>(
    list: readonly T[],
    change: (s: T) => Parameters<typeof changedLayout>[1],
  ) => Object.fromEntries(list.map((s) => [s, means(change(s))])) as Record<T, SchoolMeans | null>;
  return { parts: each(partSchools, (parts) => ({ parts })), swap: each(swapSchools, (swap) => ({ swap })) };
}
