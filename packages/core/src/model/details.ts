import { z } from 'zod';

const text = z.string().max(200);

/** What a survey found in a memory slot; an empty slot has no bytes. SMBIOS 3.x, structure type 17. */
export const memoryModuleSchema = z.object({
  slot: text,
  bytes: z.number().int().nonnegative().nullable(),
  type: text.nullable(),
  form: text.nullable(),
  /** Megatransfers a second. */
  speedMts: z.number().nullable(),
});

/** A drive's own account of its health, as smartctl prints it. */
export const driveHealthSchema = z.object({
  name: text,
  serial: text.nullable(),
  /** It names a version of SATA, whatever its controller is. */
  sata: z.boolean().default(false),
  passed: z.boolean().nullable(),
  /** Share of the rated life used, per cent; NVMe Base Specification, SMART log page, Percentage Used. */
  wearPercent: z.number().nullable(),
  hours: z.number().nullable(),
  writtenBytes: z.number().nullable(),
  /** Sectors given up or waiting to be; null where the drive does not count them. */
  badSectors: z.number().nullable(),
});

export const displaySchema = z.object({
  connector: text,
  /** The whole EDID in hexadecimal, as the kernel shows it. */
  edid: z.string().max(2048),
});

export const batterySchema = z.object({
  name: text,
  designWh: z.number().nullable(),
  fullWh: z.number().nullable(),
  cycles: z.number().nullable(),
});

/** A PCIe device that keeps bytes or talks to a network, with the link it has and the link it could have. */
export const linkSchema = z.object({
  name: text,
  what: z.enum(['drive', 'network', 'graphics', 'other']),
  /** Gigatransfers a second per lane. */
  gts: z.number().nullable(),
  lanes: z.number().nullable(),
  maxGts: z.number().nullable(),
  maxLanes: z.number().nullable(),
});

/** A device on the PCI bus: where, its class, who made it and what it is by number, and the driver that runs it. */
export const pciSchema = z.object({
  slot: text,
  /** Six hexadecimal digits: base class, subclass, interface. */
  class: text,
  /** Vendor and device, four hexadecimal digits each. */
  id: text,
  driver: text.nullable(),
});

export const sensorSchema = z.object({
  label: text,
  kind: z.enum(['fan', 'temperature']),
  /** Turns a minute, or degrees Celsius. */
  value: z.number(),
});

export const bootEntrySchema = z.object({
  id: text,
  label: text,
  active: z.boolean(),
  first: z.boolean(),
  /** In BootOrder: an entry outside it is kept by the firmware and never tried by itself (UEFI 2.10 §3.1.1). */
  inOrder: z.boolean().default(true),
  /** What BootNext names: tried before all others at the next start, once (UEFI 2.10 §3.1.1). */
  next: z.boolean().default(false),
  path: z.string().max(1000),
});

/** What the last survey saw beyond the facts: lists of parts, each a table of the machine sheet. */
export const detailsSchema = z.object({
  modules: z.array(memoryModuleSchema),
  health: z.array(driveHealthSchema),
  displays: z.array(displaySchema),
  batteries: z.array(batterySchema),
  links: z.array(linkSchema),
  pci: z.array(pciSchema).default([]),
  sensors: z.array(sensorSchema),
  bootEntries: z.array(bootEntrySchema),
});
export type Details = z.infer<typeof detailsSchema>;
export type MemoryModule = z.infer<typeof memoryModuleSchema>;
export type DriveHealth = z.infer<typeof driveHealthSchema>;
export type BatteryState = z.infer<typeof batterySchema>;
export type Link = z.infer<typeof linkSchema>;
export type BootEntry = z.infer<typeof bootEntrySchema>;

/** Details of a machine of which none are known. */
export const noDetails = (): Details => ({
  modules: [],
  health: [],
  displays: [],
  batteries: [],
  links: [],
  pci: [],
  sensors: [],
  bootEntries: [],
});
