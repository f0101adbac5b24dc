import { z } from 'zod';
import { benchSchema } from './bench';
import { profilesFileSchema } from './profilesFile';

const text = (schema: z.ZodType): string =>
  JSON.stringify(z.toJSONSchema(schema, { io: 'input', reused: 'ref' }), null, 2) + '\n';

/** The bench file, and the file of systems to share, as JSON Schema (draft 2020-12); written to docs/ by `npm run schema`. */
export const jsonSchemas = (): Record<string, string> => ({
  'bench.schema.json': text(benchSchema),
  'profiles.schema.json': text(profilesFileSchema),
});
