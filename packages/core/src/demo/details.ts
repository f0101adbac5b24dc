import { noDetails } from '../model/details';
import { GIB } from '../units/bytes';

/** What two of the demo's surveys found beyond the facts. Made up. */
export const clerkDetails = {
  ...noDetails(),
  modules: [
    { slot: 'DIMM 1', bytes: 8 * GIB, type: 'DDR4', form: 'DIMM', speedMts: 2666 },
    { slot: 'DIMM 2', bytes: null, type: null, form: null, speedMts: null },
  ],
  health: [
    {
      name: 'sda',
      serial: 'SS25-6E11-90BD',
      sata: true,
      passed: true,
      wearPercent: 12,
      hours: 9120,
      writtenBytes: 14_300_000_000_000,
      badSectors: 0,
    },
  ],
  sensors: [
    { label: 'Processor', kind: 'temperature' as const, value: 41 },
    { label: 'Case fan', kind: 'fan' as const, value: 820 },
  ],
  bootEntries: [
    {
      id: '0001',
      label: 'office system',
      active: true,
      first: true,
      inOrder: true,
      next: false,
      path: 'HD(1,GPT)/File(\\EFI\\office.efi)',
    },
    {
      id: '0004',
      label: 'Network',
      active: true,
      first: false,
      inOrder: true,
      next: false,
      path: 'MAC()/IPv4()',
    },
  ],
};

export const slateDetails = {
  ...noDetails(),
  modules: [
    { slot: 'Bottom', bytes: 4 * GIB, type: 'DDR3', form: 'SO-DIMM', speedMts: 1333 },
    { slot: 'Top', bytes: null, type: null, form: null, speedMts: null },
  ],
  batteries: [{ name: 'BAT0', designWh: 56, fullWh: 21.3, cycles: 611 }],
};
