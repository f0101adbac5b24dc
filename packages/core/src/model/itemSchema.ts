import type { z } from 'zod';
import {
  adapterSchema,
  cardSchema,
  driveSchema,
  imageSchema,
  machineSchema,
  memorySchema,
  stickSchema,
  type ShelfItem,
} from './shelf';

const SCHEMAS = {
  machine: machineSchema,
  drive: driveSchema,
  stick: stickSchema,
  card: cardSchema,
  adapter: adapterSchema,
  memory: memorySchema,
  image: imageSchema,
} as const;

/** The schema of one kind of item of the shelf. */
export const schemaOf = (kind: ShelfItem['kind']): z.ZodType<ShelfItem> => SCHEMAS[kind];
