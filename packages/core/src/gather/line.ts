import type { Machine, Profile } from '../model/bench';
import type { PartRole, Purchase } from '../system/repairs';

/** Where a thing is to be had. `at hand` is what a workshop has lying about and no shelf lists. */
export type Whereabouts = 'at hand' | 'on the shelf' | 'in use elsewhere' | 'to buy' | 'to fetch';

/** What a part of the shelf is, so far as it says where it goes. */
export interface PartPlace {
  role: PartRole;
  drive?: { m2: { length: string; key: string } | null; shape: string | null; transport: string };
  memory?: { type: string; form: string };
  goesIn?: string;
}

/** A thing that must lie on the bench and what it is for, as data; words/gather.ts names it. Sizes in bytes. */
export type GatherThing =
  | { code: 'stick'; bytes: number; named: string | null; image: string | null; system: string }
  | { code: 'second stick'; named: string | null }
  | { code: 'chain stick'; named: string; seconds: number }
  | { code: 'card reader'; system: string }
  | { code: 'drive adapter'; system: string }
  | { code: 'dock'; named: string | null }
  | { code: 'charger' }
  | { code: 'keyboard' }
  | { code: 'display' }
  | { code: 'network wire'; count: number; atInstall: boolean }
  | { code: 'part'; name: string; place: PartPlace }
  | { code: 'purchase'; purchase: Purchase; system: string; machine: string }
  | { code: 'labelled bag'; drive: string; kept: boolean; holds: string }
  | { code: 'tools'; form: Machine['form'] }
  | { code: 'tray' }
  | { code: 'driver'; number: number; name: string }
  | { code: 'paper'; login: Profile['login'] };

/** One line of what must be gathered. */
export interface GatherLine {
  /** Stays the same while the line means the same thing, so that a tick outlives a redrawing. */
  key: string;
  group:
    | 'Stick and writing'
    | 'Parts that go in'
    | 'Ports and input'
    | 'Tools'
    | 'Drivers, in this order'
    | 'Paper';
  thing: GatherThing;
  where: Whereabouts;
  /** The shelf's own item, where there is one. */
  itemId?: string;
  count: number;
  /** Price of one; null where it is to be bought and nobody noted a price; absent where nothing is bought. */
  price?: number | null;
}
