/** So many runs of a property in `npm test`; all of them in `npm run proof properties`. */
export const runs = (all: number): number => (process.env.ZB_RUNS === 'all' ? all : Math.ceil(all / 4));
