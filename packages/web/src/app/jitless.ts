import { config } from 'zod';

// The page lets nobody make code out of text; trying to is refused, and being refused costs a third of the start.
config({ jitless: true });
