/**
 * Flags that each level adds, as Linux names them in /proc/cpuinfo.
 * Source: x86-64 psABI supplement 1.0, table 3.1 (SSE3 is `pni`, LZCNT `abm`, LAHF-SAHF `lahf_lm`, OSXSAVE `xsave`).
 */
export const LEVEL_FLAGS: Record<'v1' | 'v2' | 'v3' | 'v4', readonly string[]> = {
  v1: ['cmov', 'cx8', 'fpu', 'fxsr', 'mmx', 'syscall', 'sse', 'sse2'],
  v2: ['cx16', 'lahf_lm', 'popcnt', 'pni', 'sse4_1', 'sse4_2', 'ssse3'],
  v3: ['avx', 'avx2', 'bmi1', 'bmi2', 'f16c', 'fma', 'abm', 'movbe', 'xsave'],
  v4: ['avx512f', 'avx512bw', 'avx512cd', 'avx512dq', 'avx512vl'],
};

/** The highest psABI level whose flags, and those of all levels below, are present; undefined below v1. */
export function cpuLevel(flags: readonly string[]): 'v1' | 'v2' | 'v3' | 'v4' | undefined {
  const set = new Set(flags);
  // A 32-bit system does not list what only 64-bit code can use: “syscall” belongs to long mode (IA-32 SDM volume 2).
  if (set.has('lm')) set.add('syscall');
  let level: 'v1' | 'v2' | 'v3' | 'v4' | undefined;
  for (const name of ['v1', 'v2', 'v3', 'v4'] as const) {
    if (!LEVEL_FLAGS[name].every((f) => set.has(f))) break;
    level = name;
  }
  return level;
}
