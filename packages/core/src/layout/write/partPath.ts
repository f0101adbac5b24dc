/** The path of a part of a drive, as udev and the kernel name it: “-part1”, “p1” behind a digit, “1” behind a letter. */
export function partPath(device: string, number: number): string {
  if (/\/by-(id|path|uuid)\//.test(device)) return `${device}-part${number}`;
  return /\d$/.test(device) ? `${device}p${number}` : `${device}${number}`;
}
