/** What a port reads as on a machine at rest, where boot code waits for it: keyboard controller idle, line 20 open. */
const AT_REST: Readonly<Record<number, number>> = { 0x64: 0x1c, 0x92: 0x02, 0x80: 0 };

/** A port's byte; `certain` is false where machines differ. Common practice. */
export const readPort = (port: number): { value: number; certain: boolean } => {
  const value = AT_REST[port];
  return { value: value ?? 0xff, certain: value !== undefined };
};
