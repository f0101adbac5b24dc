import { z } from 'zod';
import { benchSchema } from './bench';

/** The bench file as JSON Schema (draft 2020-12), as text; written to docs/ by `npm run schema`. */
export const benchJsonSchema = (): string => JSON.stringify(z.toJSONSchema(benchSchema), null, 2) + '\n';
