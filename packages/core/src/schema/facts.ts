import { z } from 'zod';

/** How a fact is shown, asked for and checked. */
export interface FactDefinition {
  label: string;
  group: 'Processor' | 'Memory' | 'Firmware' | 'Graphics' | 'Network' | 'Ports and body';
  kind: 'text' | 'count' | 'bytes' | 'flag' | 'list' | 'choice';
  choices?: readonly string[];
  /** The question a person can answer at the machine when the survey could not. */
  ask: string;
}

/** Every fact the application knows about a machine. Keys are stable: files and the command line use them. */
export const FACTS = {
  'cpu.arch': {
    label: 'Architecture',
    group: 'Processor',
    kind: 'choice',
    choices: ['x86_64', 'i686', 'aarch64', 'armv7l', 'riscv64'],
    ask: 'Which CPU architecture is it?',
  },
  'cpu.bits': {
    label: 'Width',
    group: 'Processor',
    kind: 'choice',
    choices: ['32', '64'],
    ask: 'Is the CPU 32- or 64-bit?',
  },
  'cpu.level': {
    label: 'x86-64 level',
    group: 'Processor',
    kind: 'choice',
    choices: ['v1', 'v2', 'v3', 'v4'],
    ask: 'Which x86-64 level does the CPU reach (v1–v4)?',
  },
  'cpu.model': { label: 'Model', group: 'Processor', kind: 'text', ask: 'What does the CPU call itself?' },
  'cpu.cores': { label: 'Cores', group: 'Processor', kind: 'count', ask: 'How many cores has it?' },
  'cpu.threads': {
    label: 'Threads',
    group: 'Processor',
    kind: 'count',
    ask: 'How many threads does it run?',
  },
  'cpu.virtualisation': {
    label: 'Virtualisation',
    group: 'Processor',
    kind: 'flag',
    ask: 'Can the CPU run virtual machines in hardware?',
  },
  'memory.bytes': {
    label: 'Memory the system sees',
    group: 'Memory',
    kind: 'bytes',
    ask: 'How much memory is in it?',
  },
  'firmware.mode': {
    label: 'Boot mode',
    group: 'Firmware',
    kind: 'choice',
    choices: ['uefi', 'bios', 'board'],
    ask: 'Does it start in UEFI or BIOS mode, or by a board’s own loader?',
  },
  'firmware.bits': {
    label: 'UEFI word size',
    group: 'Firmware',
    kind: 'choice',
    choices: ['32', '64'],
    ask: 'Is its UEFI 32- or 64-bit?',
  },
  'firmware.secureBoot': {
    label: 'Secure Boot',
    group: 'Firmware',
    kind: 'choice',
    choices: ['on', 'off', 'absent'],
    ask: 'What does the setup screen say under Secure Boot?',
  },
  'firmware.order': {
    label: 'Boot order',
    group: 'Firmware',
    kind: 'list',
    choices: ['internal', 'usb', 'optical', 'network'],
    ask: 'In which order does it try things?',
  },
  'firmware.setupKey': {
    label: 'Setup key',
    group: 'Firmware',
    kind: 'text',
    ask: 'Which key opens setup at power-on?',
  },
  'firmware.menuKey': {
    label: 'One-time menu key',
    group: 'Firmware',
    kind: 'text',
    ask: 'Which key opens the one-time boot menu?',
  },
  'graphics.driver': {
    label: 'Kernel driver in use',
    group: 'Graphics',
    kind: 'text',
    ask: 'Which kernel driver runs the graphics?',
  },
  'graphics.family': {
    label: 'Driver family',
    group: 'Graphics',
    kind: 'choice',
    choices: ['in-kernel', 'out-of-tree', 'none'],
    ask: 'Does the graphics driver come with the kernel, from outside, or is there none?',
  },
  'network.wired': {
    label: 'Wired ports',
    group: 'Network',
    kind: 'count',
    ask: 'How many wired network ports has it?',
  },
  'network.wireless': {
    label: 'Wireless',
    group: 'Network',
    kind: 'count',
    ask: 'How many wireless adapters has it?',
  },
  'ports.drives': {
    label: 'Drive ports',
    group: 'Ports and body',
    kind: 'count',
    ask: 'How many drives can be connected inside (SATA and M.2 together)?',
  },
  'ports.usb': {
    label: 'USB ports',
    group: 'Ports and body',
    kind: 'count',
    ask: 'How many USB ports has it?',
  },
  'display.portrait': {
    label: 'Upright panel',
    group: 'Ports and body',
    kind: 'flag',
    ask: 'Is the panel’s longer side upright?',
  },
  'power.battery': {
    label: 'Battery',
    group: 'Ports and body',
    kind: 'flag',
    ask: 'Does it have a battery?',
  },
} as const satisfies Record<string, FactDefinition>;

export type FactKey = keyof typeof FACTS;
export const factKeys = Object.keys(FACTS) as FactKey[];
export const factDefinition = (key: FactKey): FactDefinition => FACTS[key];

export const factValueSchema = z.union([z.string(), z.number(), z.boolean(), z.array(z.string())]);
export type FactValue = z.infer<typeof factValueSchema>;

/** A surveyed value and a value entered by hand are kept apart; the entered one wins and can be taken back. */
export const factRecordSchema = z.object({
  surveyed: z.object({ value: factValueSchema, source: z.string(), at: z.string() }).optional(),
  entered: z.object({ value: factValueSchema, at: z.string() }).optional(),
});
export type FactRecord = z.infer<typeof factRecordSchema>;

export const factsSchema = z.partialRecord(z.enum(factKeys as [FactKey, ...FactKey[]]), factRecordSchema);
export type Facts = z.infer<typeof factsSchema>;
