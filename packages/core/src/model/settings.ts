import { z } from 'zod';

export const criteria = ['quiet', 'watts', 'speed', 'cost', 'spare ports', 'age', 'preferred'] as const;
/** What a score is made of. */
export type Criterion = (typeof criteria)[number];
/** How much each criterion counts, 0 to 10. */
export type Weights = Record<Criterion, number>;
const weight = z.number().min(0).max(10);

/** What the bench reckons with: money, the price of electricity, and how much each criterion counts. */
export const settingsSchema = z.object({
  /** A sign or code put behind amounts; empty where amounts stand alone. */
  currency: z.string().max(8),
  /** Price of a kilowatt-hour. */
  tariff: z.number().nonnegative().max(1000),
  /** What may be spent on all boxes together. */
  budget: z.number().nonnegative().max(1_000_000),
  weights: z.object({
    quiet: weight,
    watts: weight,
    speed: weight,
    cost: weight,
    'spare ports': weight,
    age: weight,
    preferred: weight,
  }),
});
export type Settings = z.infer<typeof settingsSchema>;

/** What a new bench reckons with. */
export const usualSettings = (): Settings => ({
  currency: '',
  tariff: 0.3,
  budget: 60,
  weights: { quiet: 5, watts: 5, speed: 5, cost: 5, 'spare ports': 2, age: 2, preferred: 5 },
});
