import { knownLine, plainStop, type StopModule } from '../stopModule';

export const tune: StopModule = {
  ...plainStop('tune', [10, 20], [10, 20]),
  known: () => knownLine('Rule', 'one change at a time, measured before and after'),
  later: {
    headline: 'Does one change at a time help?',
    words: 'This stop will measure before and after each change; until then, note settings from and to.',
  },
};
