import type { UsbLink } from '../machine/links';
import { MIB } from '../units/bytes';

export interface StickFault {
  /** Bytes the stick really has; everything beyond is lost. */
  realBytes?: number;
  /** Offset of a place that returns one wrong bit. */
  weakAt?: number;
  /** Share of the image (0–1) after which the stick is pulled out. */
  pulledAt?: number;
}

export interface VirtualStick {
  id: string;
  bytes: number;
  serial: string;
  model: string;
  port: string;
  /** What the port can carry, and which other ports share its way: writes on one way take turns. */
  link: UsbLink;
  bus: string;
  /** Bytes per second of the speed model. */
  writeRate: number;
  readRate: number;
  fault: StickFault;
}

/** What the stand-in writer has plugged in when it starts. Small faults, so that the small demo images show them. */
export const demoSticks: VirtualStick[] = [
  {
    id: 'blue',
    bytes: 16_008_609_792,
    serial: 'ST16-40A7-7C20',
    model: '16 GB stick',
    port: 'USB 2, front left',
    link: 'usb2',
    bus: 'front',
    writeRate: 18e6,
    readRate: 34e6,
    fault: {},
  },
  {
    id: 'red',
    bytes: 16_008_609_792,
    serial: 'ST16-40A7-91AF',
    model: '16 GB stick',
    port: 'USB 2, front right',
    link: 'usb2',
    bus: 'front',
    writeRate: 17e6,
    readRate: 33e6,
    fault: {},
  },
  {
    id: 'grey',
    bytes: 8_004_304_896,
    serial: 'ST08-11B2-05D3',
    model: '8 GB stick',
    port: 'USB 3, back 1',
    link: 'usb5',
    bus: 'back 1',
    writeRate: 24e6,
    readRate: 90e6,
    fault: {},
  },
  {
    id: 'scans-stick',
    bytes: 32_017_219_584,
    serial: 'ST32-9E00-AA17',
    model: '32 GB stick',
    port: 'USB 3, back 2',
    link: 'usb5',
    bus: 'back 2',
    writeRate: 40e6,
    readRate: 110e6,
    fault: {},
  },
  {
    id: 'market',
    bytes: 64_023_257_088,
    serial: 'ST64-0000-F00D',
    model: '64 GB stick',
    port: 'USB 2, back 3',
    link: 'usb2',
    bus: 'back 3',
    writeRate: 15e6,
    readRate: 30e6,
    fault: { realBytes: 6 * MIB },
  },
  {
    id: 'twin-a',
    bytes: 4_002_910_208,
    serial: 'ST04-0000-0001',
    model: '4 GB stick',
    port: 'hub, place 1',
    link: 'usb2',
    bus: 'hub',
    writeRate: 9e6,
    readRate: 20e6,
    fault: {},
  },
  {
    id: 'twin-b',
    bytes: 4_002_910_208,
    serial: 'ST04-0000-0001',
    model: '4 GB stick',
    port: 'hub, place 2',
    link: 'usb2',
    bus: 'hub',
    writeRate: 9e6,
    readRate: 20e6,
    fault: {},
  },
  {
    id: 'thimble',
    bytes: 16 * MIB,
    serial: 'ST00-0016-1E4D',
    model: '16 MB stick',
    port: 'hub, place 3',
    link: 'usb2',
    bus: 'hub',
    writeRate: 5e6,
    readRate: 12e6,
    fault: {},
  },
];
