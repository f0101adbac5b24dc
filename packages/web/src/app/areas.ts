/** The areas of the bench, with the key that opens each after "g". */
export const AREAS = [
  { path: '/', title: 'Bench', key: 'b' },
  { path: '/shelf', title: 'Shelf', key: 's' },
  { path: '/match', title: 'Match', key: 'm' },
  { path: '/images', title: 'Image room', key: 'i' },
  { path: '/network', title: 'Network', key: 'n' },
  { path: '/practice', title: 'Practice', key: 'p' },
  { path: '/logbook', title: 'Logbook', key: 'l' },
] as const;
