/**
 * Kernels and the year in which each came out, oldest first: a kernel knows no hardware that came later. Source: the dates
 * of release of the Linux kernel (kernel.org, “Releases”), from memory; every long-term kernel stands here and some between.
 */
const YEARS: readonly (readonly [major: number, minor: number, year: number])[] = [
  [2, 6, 2003],
  [3, 0, 2011],
  [3, 2, 2012],
  [3, 10, 2013],
  [3, 14, 2014],
  [3, 19, 2015],
  [4, 4, 2016],
  [4, 10, 2017],
  [4, 15, 2018],
  [5, 0, 2019],
  [5, 5, 2020],
  [5, 11, 2021],
  [5, 16, 2022],
  [6, 2, 2023],
  [6, 7, 2024],
  [6, 13, 2025],
  [6, 19, 2026],
];

/** The year in which a kernel came out, by its version (“6.1.0-3-amd64 …”); undefined where that is no version. */
export function kernelYear(version: string): number | undefined {
  const [, major, minor] = /^(\d+)\.(\d+)/.exec(version) ?? [];
  if (major === undefined || minor === undefined) return undefined;
  const at = Number(major) * 1000 + Number(minor);
  return YEARS.findLast(([a, b]) => a * 1000 + b <= at)?.[2];
}
