import { store } from './make';

/** The sticks the stand-in writer has plugged in have the same serials as these. */
export const demoStores = [
  store('drive', 'gull-ssd', 'Gull’s inside drive', 512_110_190_592, 'NV2230-0415-88E1', {
    model: '512 GB M.2 2230',
    transport: 'nvme',
    shape: 'M.2',
    m2: { length: '2230', key: 'M', lanes: 4 },
    in: 'gull',
    holds: 'the system it came with',
    label: 'OS',
  }),
  store('drive', 'tern-ssd', 'Scans drive', 240_057_409_536, 'SS24-77A0-1D52', {
    model: '240 GB SSD',
    in: 'tern',
    holds: '212 GiB of parish scans, the only copy',
    matters: true,
    label: 'SCANS',
  }),
  store('drive', 'oak-boot', 'Oak boot', 120_034_123_776, 'SS12-0B3C-44F0', {
    model: '120 GB SSD',
    in: 'old-oak',
    holds: 'Coldstore, its system',
    label: 'BOOT',
  }),
  store('drive', 'oak-a', 'Oak mirror A', 4_000_787_030_016, 'HD40-5521-A001', {
    model: '4 TB 3.5 inch',
    rotational: true,
    in: 'old-oak',
    holds: '',
  }),
  store('drive', 'oak-b', 'Oak mirror B', 4_000_787_030_016, 'HD40-5521-A002', {
    model: '4 TB 3.5 inch',
    rotational: true,
    in: 'old-oak',
    holds: '',
  }),
  store('drive', 'clerk-ssd', 'Clerk’s inside drive', 256_060_514_304, 'SS25-6E11-90BD', {
    model: '256 GB SSD',
    in: 'clerk',
    holds: 'office system, already copied off',
    label: 'OFFICE',
  }),
  store('drive', 'slate-hdd', 'Slate’s inside drive', 320_072_933_376, 'HD32-C0DE-7714', {
    model: '320 GB 2.5 inch',
    rotational: true,
    in: 'slate',
    holds: 'the warden’s letters, not copied yet',
    matters: true,
  }),
  store('drive', 'mill-a', 'Millrace bay 0', 600_127_266_816, 'SA60-1180-0001', {
    model: '600 GB 2.5 inch',
    rotational: true,
    in: 'millrace',
    holds: '',
  }),
  store('drive', 'grand-ide', 'Grandfather’s drive', 80_026_361_856, 'ID80-03F2-11AA', {
    model: '80 GB 3.5 inch',
    transport: 'ide',
    rotational: true,
    in: 'grandfather',
    holds: 'old accounts',
    matters: true,
  }),
  store('drive', 'loose-480', 'Loose SSD', 480_103_981_056, 'SS48-2C91-6E07', {
    model: '480 GB SSD',
    shape: '2.5 inch',
    wear: 4,
    holds: '',
  }),
  store('drive', 'loose-1t', 'Loose disk', 1_000_204_886_016, 'HD10-D5A3-0C38', {
    model: '1 TB 3.5 inch',
    shape: '3.5 inch',
    rotational: true,
    holds: '',
  }),
  store('drive', 'loose-nvme', 'Short M.2 drive', 256_060_514_304, 'NV2230-0977-41C0', {
    model: '256 GB M.2 2230',
    transport: 'nvme',
    shape: 'M.2',
    m2: { length: '2230', key: 'M', lanes: 4 },
    holds: '',
    wear: 81,
    notes: 'Nearly worn out: a boot drive at most.',
  }),
  store('stick', 'blue', 'Blue stick', 16_008_609_792, 'ST16-40A7-7C20', {
    label: 'BLUE',
    model: '16 GB stick',
    holds: '',
  }),
  store('stick', 'red', 'Red stick', 16_008_609_792, 'ST16-40A7-91AF', {
    label: 'RED',
    model: '16 GB stick',
    holds: 'last year’s slides',
  }),
  store('stick', 'grey', 'Grey stick', 8_004_304_896, 'ST08-11B2-05D3', {
    label: 'GREY',
    model: '8 GB stick',
    holds: '',
  }),
  store('stick', 'scans-stick', 'Scans stick', 32_017_219_584, 'ST32-9E00-AA17', {
    label: 'SCANS-NEW',
    model: '32 GB stick',
    holds: '27.4 GiB of this year’s scans, not copied yet',
    matters: true,
  }),
  store('stick', 'market', 'Market stick', 64_023_257_088, 'ST64-0000-F00D', {
    label: '',
    model: '64 GB stick',
    holds: '',
    notes: 'From the market stall, very cheap. Never filled.',
  }),
  store('card', 'pebble-card', 'Pebble’s card', 31_914_983_424, 'SD32-6A6B-1C04', {
    model: '32 GB card',
    in: 'pebble',
    holds: '',
  }),
];
