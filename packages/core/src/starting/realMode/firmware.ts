import { AX, BX, CX, DS, DX, ES, SI, type RealModeMachine } from './machine';

/** A read the boot code asked for: sectors from `lba` on, to a linear address. */
export interface DiskRead {
  lba: number;
  sectors: number;
  /** Linear address that the bytes go to. */
  address: number;
}

/** What a call of the firmware comes to. */
export interface Answer {
  read?: DiskRead;
  printed?: string;
  /** It goes back to the firmware: the next medium, or a new start. */
  gaveUp?: true;
  /** It waits for a key, which goes into AX. */
  key?: true;
  certain?: false;
}

/** The medium as firmware shows it: bytes of a sector, and the shape by which code that reckons in cylinders finds it. */
export interface DiskShape {
  sectorBytes: number;
  heads: number;
  /** Per track. */
  sectors: number;
}

/** What firmware tells of a large disk. */
export const LARGE_DISK = { heads: 255, sectors: 63 } as const;

/** Disk services: functions 00h, 02h, 08h, 15h of every BIOS, and the extensions 41h, 42h, 48h (EDD 3.0, §8). */
function disk(m: RealModeMachine, shape: DiskShape): Answer {
  const service = m.get(4, 1);
  m.carry = false;
  const good = (): Answer => {
    m.set(4, 1, 0);
    return {};
  };
  switch (service) {
    case 0x00:
      return good();
    case 0x02: {
      const cx = m.get(CX, 2);
      const sector = cx & 0x3f;
      const cylinder = (cx >> 8) | ((cx & 0xc0) << 2);
      const sectors = m.get(AX, 1);
      // A floppy controller reads no further than the end of a track.
      if (shape.heads === 2 && sector + sectors - 1 > shape.sectors) {
        m.carry = true;
        m.set(4, 1, 4);
        return {};
      }
      const lba = (cylinder * shape.heads + (m.get(DX, 2) >> 8)) * shape.sectors + sector - 1;
      m.set(4, 1, 0);
      return { read: { lba, sectors, address: m.linear(ES, m.get(BX, 2)) } };
    }
    case 0x08:
      m.set(CX, 2, shape.heads === 2 ? 0x4f00 | shape.sectors : 0xffc0 | shape.sectors);
      m.set(DX, 2, ((shape.heads - 1) << 8) | 1);
      return good();
    case 0x15:
      m.set(4, 1, shape.heads === 2 ? 1 : 3);
      return {};
    case 0x41:
      if (shape.heads === 2) {
        m.carry = true;
        m.set(4, 1, 1);
        return {};
      }
      m.set(BX, 2, 0xaa55);
      m.set(AX, 2, 0x3000);
      m.set(CX, 2, 1);
      return {};
    case 0x42: {
      const packet = m.linear(DS, m.get(SI, 2));
      const sectors = m.load(packet + 2, 2);
      const address = (m.load(packet + 6, 2) * 16 + m.load(packet + 4, 2)) % m.memory.length;
      const lba = m.load(packet + 8, 4) + m.load(packet + 12, 4) * 2 ** 32;
      m.set(4, 1, 0);
      return { read: { lba, sectors, address } };
    }
    case 0x48: {
      const to = m.linear(DS, m.get(SI, 2));
      m.store(to + 2, 2, 0);
      m.store(to + 24, 2, shape.sectorBytes);
      return good();
    }
    default:
      m.carry = true;
      return { certain: false };
  }
}

/**
 * Answers a call of the firmware as every BIOS does; `certain` is false for what firmware answers differently or what is
 * not answered here. Common practice, except where a function names its source.
 */
export function callFirmware(m: RealModeMachine, vector: number, shape: DiskShape): Answer {
  switch (vector) {
    case 0x10: {
      if (m.get(4, 1) === 0x0e) return { printed: String.fromCharCode(m.get(AX, 1)) };
      if (m.get(4, 1) === 0x0f) m.set(AX, 2, 0x5003);
      return {};
    }
    case 0x12:
      m.set(AX, 2, 639);
      return {};
    case 0x13:
      return disk(m, shape);
    case 0x14:
      m.set(AX, 2, 0x6000);
      return {};
    case 0x16:
      if ((m.get(4, 1) & 0xef) === 0) return { key: true };
      m.zero = true;
      return {};
    case 0x18:
    case 0x19:
      return { gaveUp: true };
    case 0x1a:
      m.set(CX, 2, 0);
      m.set(DX, 2, m.get(DX, 2) + 1);
      return {};
    default:
      m.carry = true;
      return { certain: false };
  }
}
