import { DomainReadError, readDomains, type SeenGuest } from './domain';

/** A volume a running host keeps disks in. Bytes. */
export interface SeenPool {
  name: string;
  bytes: number;
  usedBytes: number;
  freeBytes: number;
}

/** What a running host printed of itself. Bytes; null where it did not say. */
export interface SeenHost {
  threads: number | null;
  cores: number | null;
  sockets: number | null;
  memoryBytes: number | null;
  guests: SeenGuest[];
  pools: SeenPool[];
  /** Lines that are not understood, at most a hundred. */
  unread: string[];
}

const UNIT: Record<string, number> = {
  B: 1,
  KiB: 1024,
  MiB: 1024 ** 2,
  GiB: 1024 ** 3,
  TiB: 1024 ** 4,
  kB: 1000,
  KB: 1024,
};

/** “8057312 KiB” or “39.07 GiB” in bytes; null where it is no size. */
function sizeOf(text: string): number | null {
  const found = /^([\d.]+)\s*([KMGTk]?i?B)?$/.exec(text.trim());
  if (!found) return null;
  const unit = UNIT[found[2] ?? 'KiB'];
  const n = Number(found[1]);
  return unit === undefined || !Number.isFinite(n) ? null : Math.round(n * unit);
}
const count = (text: string | undefined): number | null => {
  const n = Number(text);
  return text !== undefined && Number.isInteger(n) && n > 0 ? n : null;
};

const blank = (name: string): SeenGuest => ({
  name,
  running: null,
  cores: null,
  memoryBytes: null,
  nowBytes: null,
  disks: [],
  nics: [],
  devices: [],
});

/** Lines of “key: value”, from a first one on until a line that is none. */
type Pairs = Map<string, string>;

class Tables {
  readonly host: SeenHost = {
    threads: null,
    cores: null,
    sockets: null,
    memoryBytes: null,
    guests: [],
    pools: [],
    unread: [],
  };

  guest(name: string): SeenGuest {
    const there = this.host.guests.find((g) => g.name === name);
    if (there) return there;
    const made = blank(name);
    this.host.guests.push(made);
    return made;
  }

  /** `virsh dominfo`, `virsh nodeinfo` or `virsh pool-info`, by the names of their lines. */
  pairs(p: Pairs): boolean {
    if (p.has('CPU(s)') && p.has('Memory size')) {
      const perCore = count(p.get('Thread(s) per core'));
      const perSocket = count(p.get('Core(s) per socket'));
      const sockets = count(p.get('CPU socket(s)'));
      const cells = count(p.get('NUMA cell(s)'));
      this.host.threads = count(p.get('CPU(s)'));
      // Sockets are counted within a cell (virsh(1), nodeinfo).
      this.host.sockets = sockets === null ? null : sockets * (cells ?? 1);
      this.host.cores =
        perSocket === null || this.host.sockets === null ? null : perSocket * this.host.sockets;
      if (this.host.cores === null && perCore !== null && this.host.threads !== null)
        this.host.cores = this.host.threads / perCore;
      this.host.memoryBytes = sizeOf(p.get('Memory size') ?? '');
      return true;
    }
    const name = p.get('Name');
    if (name === undefined) return false;
    if (p.has('Capacity')) {
      const [bytes, used, free] = ['Capacity', 'Allocation', 'Available'].map((k) => sizeOf(p.get(k) ?? ''));
      if (bytes != null)
        this.host.pools.push({ name, bytes, usedBytes: used ?? 0, freeBytes: free ?? bytes - (used ?? 0) });
      return true;
    }
    if (!p.has('CPU(s)')) return false;
    const g = this.guest(name);
    g.cores = count(p.get('CPU(s)'));
    g.memoryBytes = sizeOf(p.get('Max memory') ?? '');
    g.nowBytes = sizeOf(p.get('Used memory') ?? '');
    const state = p.get('State');
    if (state !== undefined) g.running = state === 'running' || state === 'paused' || state === 'idle';
    return true;
  }

  /** `virsh list --all`: number, name, state. */
  listed(line: string): boolean {
    const found =
      /^\s*(-|\d+)\s+(\S+)\s+(running|idle|paused|in shutdown|shut off|crashed|pmsuspended)\s*$/.exec(line);
    if (!found) return false;
    const g = this.guest(found[2] ?? '');
    g.running = found[1] !== '-';
    return true;
  }

  /** `virsh pool-list --details`: name, state, autostart, persistent, capacity, allocation, available. */
  pooled(line: string): boolean {
    const found =
      /^\s*(\S+)\s+(running|inactive|degraded|building)\s+(yes|no)\s+(yes|no)\s+([\d.]+ \S+|-)\s+([\d.]+ \S+|-)\s+([\d.]+ \S+|-)\s*$/.exec(
        line,
      );
    if (!found) return false;
    const [bytes, used, free] = found.slice(5, 8).map((t) => (t === '-' ? null : sizeOf(t)));
    if (bytes != null)
      this.host.pools.push({ name: found[1] ?? '', bytes, usedBytes: used ?? 0, freeBytes: free ?? 0 });
    return true;
  }
}

const RULES = [/^\s*-+\s*$/, /^\s*Id\s+Name\s+State\s*$/, /^\s*Name\s+State\s+Autostart/, /^\s*$/, /^\s*\$ /];

/**
 * What people paste of a running host: `virsh nodeinfo`, `list --all`, `dominfo`, `pool-info`, `pool-list --details`, and domain
 * XML, in any order (virsh(1)). Throws DomainReadError where nothing of it is understood.
 */
export function readHost(text: string): SeenHost {
  const t = new Tables();
  const xml = [...text.matchAll(/<domain[\s>][\s\S]*?<\/domain>/g)].map((m) => m[0]);
  for (const part of xml)
    for (const seen of readDomains(part)) {
      const g = t.guest(seen.name);
      Object.assign(g, { ...seen, running: g.running, nowBytes: g.nowBytes ?? seen.nowBytes });
    }
  const rest = xml.reduce((left, part) => left.replace(part, ''), text);
  let pairs: Pairs = new Map();
  let began: string[] = [];
  const close = (): void => {
    if (pairs.size > 0 && !t.pairs(pairs)) t.host.unread.push(...began);
    pairs = new Map();
    began = [];
  };
  for (const line of rest.split(/\r?\n/)) {
    const pair = /^([A-Z][\w() /-]*?):\s+(\S.*?)\s*$/.exec(line);
    if (pair) {
      const key = pair[1] ?? '';
      // A block of another guest begins where a name comes again.
      if (pairs.has(key)) close();
      pairs.set(key, pair[2] ?? '');
      began.push(line.trim());
      continue;
    }
    close();
    if (RULES.some((r) => r.test(line)) || t.listed(line) || t.pooled(line)) continue;
    t.host.unread.push(line.trim().slice(0, 200));
  }
  close();
  t.host.unread.splice(100);
  const { guests, pools, memoryBytes } = t.host;
  if (guests.length === 0 && pools.length === 0 && memoryBytes === null) throw new DomainReadError('nothing');
  return t.host;
}

/** What a running host has left. Bytes; null where it did not say enough. */
export interface Left {
  memory: number | null;
  /** Of guests that run. */
  given: number;
  cores: number;
  running: number;
  pools: { name: string; free: number }[];
}

/** What is left of a running host when its own share is taken off. */
export function leftOf(host: SeenHost, reserveBytes: number, perGuestBytes: number): Left {
  const on = host.guests.filter((g) => g.running !== false);
  const given = on.reduce((sum, g) => sum + (g.memoryBytes ?? 0), 0);
  return {
    memory:
      host.memoryBytes === null ? null : host.memoryBytes - reserveBytes - given - on.length * perGuestBytes,
    given,
    cores: on.reduce((sum, g) => sum + (g.cores ?? 0), 0),
    running: on.length,
    pools: host.pools.map((p) => ({ name: p.name, free: p.freeBytes })),
  };
}
