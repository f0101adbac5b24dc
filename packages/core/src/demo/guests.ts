import { guestPlanSchema, type GuestPlan } from '../model/guests';
import { GIB, MIB } from '../units/bytes';
import { moment } from './make';

const day = (n: number): string => moment(n).slice(0, 10);

/** What the booking host is to carry: a guest too many for its memory. All of it is made up. */
export const bookingGuests = (): GuestPlan => {
  const disk = (id: string, gib: number, used: number, grows = 0, thin = true) => ({
    id,
    bytes: gib * GIB,
    poolId: 'system',
    thin,
    usedBytes: Math.round(used * GIB),
    growsPerDay: grows * MIB,
  });
  const hall = [{ netId: 'hall', hardware: null }];
  return guestPlanSchema.parse({
    pools: [
      {
        id: 'system',
        name: 'system drive',
        bytes: 256_060_514_304,
        otherBytes: 32 * GIB,
        thin: true,
        path: '/srv/guests',
      },
    ],
    nets: [
      { id: 'hall', name: 'hall', mode: 'bridge', bridge: 'br0', networkId: 'hall', prefix: '10.44.8.0/24' },
      { id: 'apart', name: 'trials', mode: 'apart', bridge: 'br9', prefix: '10.44.99.0/24' },
    ],
    devices: [{ id: 'radio', name: 'receiver of the weather mast', address: '0000:04:00.0', group: 14 }],
    guests: [
      {
        id: 'booking',
        name: 'booking',
        purpose: 'the booking desk’s list and its calendar',
        cores: 2,
        memoryBytes: 2.5 * GIB,
        leastBytes: 2 * GIB,
        disks: [disk('booking-0', 40, 11.2, 90)],
        nics: hall,
        order: 10,
        delaySeconds: 40,
        weight: 9,
        seed: {
          hostName: 'booking',
          user: 'warden',
          keys: [
            'ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAIEdyZXlTYWx0bWFyc2hIYWxsTWFkZVVwS2V5MDAwMDAy warden@desk',
          ],
          hash: null,
          address: { cidr: '10.44.8.31/24', gateway: '10.44.8.1', nameServers: ['10.44.8.1'] },
          packages: [],
        },
      },
      {
        id: 'weather',
        name: 'weather',
        purpose: 'the mast’s readings and their page',
        cores: 1,
        memoryBytes: 1 * GIB,
        floorBytes: 512 * MIB,
        leastBytes: 512 * MIB,
        disks: [disk('weather-0', 24, 6.5, 140)],
        nics: hall,
        order: 20,
        weight: 6,
      },
      {
        id: 'board',
        name: 'notice-board',
        purpose: 'what the screen in the porch shows',
        cores: 1,
        memoryBytes: 1 * GIB,
        leastBytes: 768 * MIB,
        disks: [disk('board-0', 16, 4.1, 10)],
        nics: hall,
        order: 30,
        weight: 5,
      },
      {
        id: 'trial',
        name: 'booking-trial',
        purpose: 'a copy to try the next release of the list on',
        cores: 2,
        memoryBytes: 2.5 * GIB,
        disks: [disk('trial-0', 40, 11.2)],
        nics: [{ netId: 'apart', hardware: null }],
        order: 90,
        autostart: false,
        weight: 2,
      },
    ],
    volume: {
      bytes: 60 * GIB,
      readings: [
        { id: 'v1', at: day(-40), usedBytes: 21 * GIB },
        { id: 'v2', at: day(6), usedBytes: 34 * GIB },
      ],
    },
  });
};
