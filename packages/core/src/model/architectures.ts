/** Processors a system is built for, as its kernel names them. */
export const architectures = ['x86_64', 'i686', 'aarch64', 'armv7l'] as const;
/** A processor by that name. */
export type Architecture = (typeof architectures)[number];
/** Levels of x86-64 (x86-64 psABI, “Micro-architecture levels”). */
export const cpuLevels = ['v1', 'v2', 'v3', 'v4'] as const;
