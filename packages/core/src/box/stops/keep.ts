import { plainStop, type StopModule } from '../stopModule';

export const keep: StopModule = plainStop('keep', [3, 5]);
