import type { Wish } from '../model/wish';

const wish = (
  id: string,
  name: string,
  purpose: Wish['purpose'],
  importance: number,
  more: Partial<Wish> = {},
): Wish => ({
  id,
  name,
  purpose,
  profileId: null,
  importance,
  noise: 'audible',
  wire: true,
  wattsMax: null,
  hoursPerDay: 6,
  features: [],
  pinned: null,
  forbid: [],
  notes: '',
  ...more,
});

/** What the hall wants. All of it is made up. */
export const demoWishes: Wish[] = [
  wish('w-games', 'Games corner', 'games', 4, { wire: false, hoursPerDay: 2 }),
  wish('w-film', 'Film night', 'film', 4, {
    noise: 'silent',
    hoursPerDay: 3,
    notes: 'Behind the projector.',
  }),
  wish('w-gate', 'Guest gate', 'firewall', 5, { noise: 'quiet', wattsMax: 40, hoursPerDay: 24 }),
  wish('w-archive', 'Archive', 'file store', 5, { hoursPerDay: 24, notes: 'In the vestry cupboard.' }),
  wish('w-host', 'Booking host', 'virtual machines', 4, { noise: 'quiet', hoursPerDay: 24 }),
  wish('w-music', 'Tea-room music', 'music', 2, { hoursPerDay: 8, wire: false }),
  wish('w-desk', 'Booking desk', 'desktop', 2, { noise: 'quiet' }),
];
