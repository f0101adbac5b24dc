import { z } from 'zod';
import { installerMannerSchema, installers } from './installer';

const bytes = z.number().int().nonnegative().max(Number.MAX_SAFE_INTEGER);
const line = z.string().max(200);
const id = z.string().min(1).max(80);
const minutes = z.number().nonnegative().max(100_000);

/** Firmware modes that a plan can be in. */
export const plainModes = ['uefi', 'bios'] as const;
/** A firmware mode. */
export type PlainMode = (typeof plainModes)[number];

/**
 * How a drive is connected. No bus gives its drives a fixed order: ports are looked at at the same time, and a kernel in the
 * emulator has named the second first on SATA and on IDE alike.
 */
export const rehearsalBuses = ['sata', 'nvme', 'ide', 'mmc', 'usb'] as const;
/** A drive, stick or card that is there when the plan is carried out. Bytes, minutes. */
const rehearsalDriveSchema = z.object({
  id,
  name: line,
  bytes,
  /** What it calls itself; the firmware's menu shows nothing else. */
  model: line.default(''),
  serial: line.nullable().default(null),
  label: line.nullable().default(null),
  bus: z.enum(rehearsalBuses),
  /** The installer's own stick, the one that is meant, or another. */
  role: z.enum(['installer', 'target', 'other']),
  /** What is on it must not be lost. On the target: a part of it stays beside the new system. */
  matters: z.boolean(),
  /** What starts from it under each firmware; null: nothing. */
  starts: z
    .object({ uefi: line.nullable().default(null), bios: line.nullable().default(null) })
    .default({ uefi: null, bios: null }),
  /** What it starts under UEFI is started with Secure Boot on as well. */
  signed: z.boolean().default(false),
  /** It has a part from which UEFI starts, into which another loader could be put. */
  startPart: z.boolean().default(false),
  /** What it takes to take it out; null: it is soldered in. */
  unplug: z
    .object({ minutes, screws: z.number().int().nonnegative().max(200) })
    .nullable()
    .default(null),
  /** Setup can switch its port off. */
  portOff: z.boolean().default(false),
  /** Minutes to copy away what matters on it; null: there is nowhere to copy it to. */
  copyMinutes: minutes.nullable().default(null),
  /** A chain loader lies on it that starts this drive. */
  chainsTo: id.nullable().default(null),
});
export type RehearsalDrive = z.infer<typeof rehearsalDriveSchema>;

/** The machine on which the plan is carried out. */
const rehearsalMachineSchema = z.object({
  name: line,
  /** Both: its firmware tries UEFI first, then BIOS. Null: nobody knows. */
  mode: z
    .enum([...plainModes, 'both'])
    .nullable()
    .default(null),
  secureBoot: z.enum(['on', 'off']).nullable().default(null),
  /**
   * Drives as the firmware tries them, by their ids, in groups: which of a group it tries first is not known. What is not
   * named comes afterwards, as one more group. Null: nobody knows anything of it.
   */
  order: z.array(z.array(id).min(1).max(12)).max(12).nullable().default(null),
  /**
   * BIOS alone: every drive is tried until one starts, or the first one alone, as the BIOS Boot Specification 1.01 has it of
   * hard disks. Null: nobody knows.
   */
  biosTries: z.enum(['each', 'first']).nullable().default(null),
  /** Buses that its firmware cannot start from. */
  cannotStart: z.array(z.enum(rehearsalBuses)).default([]),
  /** Its menu shows a stick once more by another of its parts, from which nothing starts. */
  showsParts: z.boolean().default(false),
  power: z.enum(['mains', 'secured']).default('mains'),
});
export type RehearsalMachine = z.infer<typeof rehearsalMachineSchema>;

/** A plan as `zb rehearse` takes it. */
export const rehearsalPlanSchema = z
  .object({
    /** Install: a stick is started and its installer writes the target. Write: a running machine writes it. */
    kind: z.enum(['install', 'write']),
    machine: rehearsalMachineSchema,
    drives: z.array(rehearsalDriveSchema).min(1).max(12),
    /** How the stick is started: by the one-time menu, or by being first in the order. */
    startBy: z.enum(['menu', 'order']).default('menu'),
    installer: z
      .object({
        choice: z.enum(installers),
        ...installerMannerSchema.shape,
        /** What it installs is signed by a key that a screen asks to be enrolled at the first restart. */
        enrols: z.boolean().default(false),
      })
      .prefault({ choice: 'asks for the drive' }),
    /** Ids of precautions that the person will not take. */
    refused: z.array(line).max(100).default([]),
  })
  .superRefine((plan, context) => {
    const complain = (message: string): void =>
      context.addIssue({ code: 'custom', path: ['drives'], message });
    const having = (role: RehearsalDrive['role']): number =>
      plan.drives.filter((d) => d.role === role).length;
    if (having('target') !== 1) complain('one drive, and one only, is the target');
    if (having('installer') !== (plan.kind === 'install' ? 1 : 0))
      complain(
        plan.kind === 'install'
          ? 'one drive, and one only, is the installer’s'
          : 'no drive is the installer’s where a running machine writes',
      );
    if (new Set(plan.drives.map((d) => d.id)).size !== plan.drives.length)
      complain('every drive has an id of its own');
    const known = new Set(plan.drives.map((d) => d.id));
    for (const name of [
      ...(plan.machine.order ?? []).flat(),
      ...plan.drives.flatMap((d) => d.chainsTo ?? []),
    ])
      if (!known.has(name)) complain(`no drive is called ${name}`);
    const named = (plan.machine.order ?? []).flat();
    if (new Set(named).size !== named.length) complain('a drive stands once in the order');
  });
export type RehearsalPlan = z.infer<typeof rehearsalPlanSchema>;
