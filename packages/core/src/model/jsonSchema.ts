import { z } from 'zod';
import { benchSchema } from './bench';
import { gateFileSchema } from './gate';
import { guestFileSchema } from './guests';
import { layoutPlanSchema } from './layout';
import { networkPlanSchema } from './network';
import { practiceActsSchema } from './practice';
import { profilesFileSchema } from './profilesFile';
import { rehearsalPlanSchema } from './rehearsal';
import { sharingSchema } from './sharing';
import { poolAskSchema } from './storage';
import { tuneQuestionSchema } from './tune';

const text = (schema: z.ZodType): string =>
  JSON.stringify(z.toJSONSchema(schema, { io: 'input', reused: 'ref' }), null, 2) + '\n';

/** The bench file, the file of systems to share, the plan of a drive, networks and hosts, rules of a gate, guests of a host, the plan of a rehearsal, the drives of a pool, folders with their users, what was done in an exercise, and a question of tuning, as JSON Schema (draft 2020-12); written to docs/ by `npm run schema`. */
export const jsonSchemas = (): Record<string, string> => ({
  'bench.schema.json': text(benchSchema),
  'gate.schema.json': text(gateFileSchema),
  'guests.schema.json': text(guestFileSchema),
  'layout.schema.json': text(layoutPlanSchema),
  'network.schema.json': text(networkPlanSchema),
  'pool.schema.json': text(poolAskSchema),
  'practice.schema.json': text(practiceActsSchema),
  'profiles.schema.json': text(profilesFileSchema),
  'sharing.schema.json': text(sharingSchema),
  'rehearsal.schema.json': text(rehearsalPlanSchema),
  'tune.schema.json': text(tuneQuestionSchema),
});
