import type { DriveThere, DriveWant, PartWant } from '../model/layout';
import { holesOf, staying, type Staying } from './holes';
import type { LaidPart, Layout, LayoutCut, LayoutProblem } from './laid';
import { numbered } from './numbered';
import { leastOf, place, unitsFor, type Claim, type Hole, type Placing } from './place';
import { EXTENDED_TYPE, typeOf, UNIT, usable } from './table';

/** What is done without first, where even the least does not fit; a system and what starts it are never given up. */
const GIVEN_UP = ['/home', '/var', 'data', 'swap', 'second system'] as const;
/** Units of UTF-16 in the name of a part (UEFI 2.10 table 5.8). */
const NAME_MOST = 36;
/** How finely sizes are cut to fit. */
const CUT_STEPS = 48;

/** Which wants are logical parts: those that need not be primary, from the end, as many as do not fit the table. */
function kindsOf(
  want: DriveWant,
  stay: readonly Staying[],
): { claims: (PartWant & { as: Claim['as'] })[]; primaries: number; problem: LayoutProblem | null } {
  if (want.table !== 'mbr')
    return {
      claims: want.wants.map((w) => ({ ...w, as: 'any' })),
      primaries: Number.POSITIVE_INFINITY,
      problem: null,
    };
  const free = 4 - stay.filter((s) => s.kind !== 'logical').length;
  const must = (w: PartWant): boolean => w.active || w.use === 'start';
  const hasExtended = stay.some((s) => s.kind === 'extended');
  const needed = want.wants.filter(must).length;
  if (hasExtended || want.wants.length <= free) {
    const claims = want.wants.map((w) => ({ ...w, as: must(w) ? ('primary' as const) : ('any' as const) }));
    const problem = needed > free ? { code: 'too many primaries' as const, wanted: needed, free } : null;
    return { claims, primaries: free, problem };
  }
  // One of the four is the extended part itself.
  const primaries = Math.max(0, free - 1);
  if (needed > primaries || free < 1)
    return {
      claims: want.wants.map((w) => ({ ...w, as: 'primary' })),
      primaries: free,
      problem: { code: 'too many primaries', wanted: needed, free: primaries },
    };
  let logical = want.wants.length - primaries;
  const as = want.wants.map((): Claim['as'] => 'primary');
  for (let i = want.wants.length - 1; i >= 0 && logical > 0; i -= 1) {
    const w = want.wants[i];
    if (!w || must(w)) continue;
    as[i] = 'logical';
    logical -= 1;
  }
  const claims = want.wants.map((w, i) => ({ ...w, as: as[i] ?? 'primary' }));
  return {
    claims: [...claims.filter((c) => c.as !== 'logical'), ...claims.filter((c) => c.as === 'logical')],
    primaries,
    problem: null,
  };
}

/** Claims at `part` of the way from the least to what is asked, 0 to 1. */
const claimsAt = (wants: readonly (PartWant & { as: Claim['as'] })[], part: number): Claim[] =>
  wants.map((want) => {
    const least = unitsFor(leastOf(want));
    const asked = want.size.kind === 'fixed' ? unitsFor(want.size.bytes) : null;
    return {
      want,
      least,
      fixed: asked === null ? null : asked <= least ? asked : least + Math.floor((asked - least) * part),
      share: want.size.kind === 'share' ? want.size.share : null,
      as: want.as,
    };
  });

interface Found {
  claims: Claim[];
  placing: Placing;
  exact: boolean;
  cuts: LayoutCut[];
}

/** The plan as asked; else the nearest: fixed sizes cut alike towards their least, then parts given up. */
function nearest(
  holes: readonly Hole[],
  wants: readonly (PartWant & { as: Claim['as'] })[],
  primaries: number,
): Found | undefined {
  const at = (list: typeof wants, part: number): Found | undefined => {
    const claims = claimsAt(list, part);
    const { placing, exact } = place(holes, claims, primaries);
    return placing && { claims, placing, exact, cuts: [] };
  };
  const whole = at(wants, 1);
  if (whole) return whole;
  let list = wants;
  const gone: LayoutCut[] = [];
  for (;;) {
    let best = at(list, 0);
    if (best) {
      let low = 0;
      let high = 1;
      for (let i = 0; i < CUT_STEPS; i += 1) {
        const middle = (low + high) / 2;
        const found = at(list, middle);
        if (found) {
          best = found;
          low = middle;
        } else high = middle;
      }
      const cuts = best.claims.flatMap(({ want, fixed }): LayoutCut[] =>
        want.size.kind === 'fixed' && fixed !== null && fixed < unitsFor(want.size.bytes)
          ? [{ want: want.id, asked: want.size.bytes, got: fixed * UNIT }]
          : [],
      );
      return { ...best, cuts: [...gone, ...cuts] };
    }
    const out = GIVEN_UP.flatMap((use) => list.filter((w) => w.use === use))[0];
    if (!out) return undefined;
    gone.push({ want: out.id, asked: out.size.kind === 'fixed' ? out.size.bytes : 0, got: null });
    list = list.filter((w) => w !== out);
  }
}

/** What binds where a plan does not fit: all that asks for a size of its own. */
function tooLarge(holes: readonly Hole[], wants: readonly PartWant[]): LayoutProblem {
  const room = holes.reduce((n, h) => n + h.units, 0) * UNIT;
  if (room === 0) return { code: 'no room at all' };
  const asks = (w: PartWant): number => unitsFor(w.size.kind === 'fixed' ? w.size.bytes : leastOf(w)) * UNIT;
  return {
    code: 'too large',
    asked: wants.reduce((n, w) => n + asks(w), 0),
    room,
    binds: wants.filter((w) => w.size.kind === 'fixed' || w.minimum !== null).map((w) => w.id),
  };
}

/**
 * What a drive will hold: parts in whole MiB, those that stay where they are, the others in their order in what is free.
 * A plan that cannot be had is answered with what binds and with the nearest layout. Sources: UEFI 2.10 §5.2 (MBR) and §5.3
 * (GPT); alignment to 1 MiB is common practice.
 */
export function lay(drive: DriveThere, want: DriveWant): Layout {
  const { stay, problems } = staying(drive, want);
  const { to } = usable(want.table, drive.bytes, drive.sectorSize);
  const base = {
    table: want.table,
    bytes: drive.bytes,
    sectorSize: drive.sectorSize,
    tableId: stay.length > 0 ? drive.tableId : null,
    beyond: want.table === 'mbr' ? Math.max(0, drive.bytes - to - drive.sectorSize) : 0,
  };
  if (want.table === 'none') {
    const [only] = want.wants;
    if (want.wants.length > 1) problems.push({ code: 'one part without a table' });
    const parts = only ? [part(only, 1, 'primary', 0, to, want.table)] : [];
    return { ...base, parts, unused: [], problems, cuts: [], exact: true };
  }
  for (const w of want.wants)
    if (w.size.kind === 'fixed' && w.minimum !== null && w.size.bytes < w.minimum)
      problems.push({ code: 'below its least', want: w.id, asked: w.size.bytes, least: w.minimum });
  if (want.table === 'gpt')
    for (const w of want.wants)
      if (w.name.length > NAME_MOST)
        problems.push({ code: 'name too long', want: w.id, units: w.name.length, most: NAME_MOST });
  const kinds = kindsOf(want, stay);
  if (kinds.problem) problems.push(kinds.problem);
  const holes = holesOf(drive, want, stay);
  const found = nearest(holes, kinds.claims, kinds.primaries);
  if (!found || found.cuts.length > 0) problems.push(tooLarge(holes, want.wants));
  const fresh = found ? laidIn(holes, found, want) : [];
  const parts = numbered(
    [...stay.map((s) => kept(s)), ...fresh].sort(
      (a, b) => a.start - b.start || (a.kind === 'extended' ? -1 : 1),
    ),
  );
  return {
    ...base,
    parts,
    unused: unusedOf(parts, drive, want),
    problems,
    cuts: found?.cuts ?? want.wants.map((w) => ({ want: w.id, asked: leastOf(w), got: null })),
    exact: found?.exact ?? true,
  };
}

const kept = ({ part: p, bytes, kind }: Staying): LaidPart => ({
  number: p.number,
  kind,
  start: p.start,
  bytes,
  type: p.type,
  fate: bytes < p.bytes ? 'made smaller' : 'kept',
  want: null,
  use: null,
  name: p.label ?? p.name,
  filesystem: null,
  mount: null,
  active: p.active,
  entry: { uuid: p.uuid, name: p.name, attributes: p.attributes },
  stays: p.filesystem,
});

const part = (
  w: PartWant,
  number: number,
  kind: LaidPart['kind'],
  start: number,
  bytes: number,
  table: DriveWant['table'],
): LaidPart => ({
  number,
  kind,
  start,
  bytes,
  type: typeOf(table, w),
  fate: 'new',
  want: w.id,
  use: w.use,
  name: w.name,
  filesystem: w.filesystem,
  mount: w.mount,
  active: w.active && table === 'mbr',
  entry: null,
  stays: null,
});

/** The new parts where they were placed; a new extended part around those that are logical. */
function laidIn(holes: readonly Hole[], { claims, placing }: Found, want: DriveWant): LaidPart[] {
  const out: LaidPart[] = [];
  holes.forEach((hole, h) => {
    let at = hole.start;
    let extended: LaidPart | undefined;
    placing.forEach((p, i) => {
      const claim = claims[i];
      if (p.hole !== h || !claim) return;
      const logical = claim.as === 'logical' || hole.kind === 'within extended';
      if (claim.as === 'logical' && !extended) {
        extended = extendedAt(at);
        out.push(extended);
      }
      if (logical) at += UNIT;
      out.push(part(claim.want, 0, logical ? 'logical' : 'primary', at, p.units * UNIT, want.table));
      at += p.units * UNIT;
      if (extended) extended.bytes = at - extended.start;
    });
  });
  return out;
}

const extendedAt = (start: number): LaidPart => ({
  number: 0,
  kind: 'extended',
  start,
  bytes: 0,
  type: EXTENDED_TYPE,
  fate: 'new',
  want: null,
  use: null,
  name: '',
  filesystem: null,
  mount: null,
  active: false,
  entry: null,
  stays: null,
});

/** Stretches of at least a unit that no part lies in. */
function unusedOf(parts: readonly LaidPart[], drive: DriveThere, want: DriveWant): Layout['unused'] {
  const { from, to } = usable(want.table, drive.bytes, drive.sectorSize);
  const out: Layout['unused'] = [];
  let at = from;
  for (const p of parts.filter((x) => x.kind !== 'logical')) {
    if (p.start - at >= UNIT) out.push({ start: at, bytes: p.start - at });
    at = Math.max(at, p.start + p.bytes);
  }
  if (to - at >= UNIT) out.push({ start: at, bytes: to - at });
  return out;
}
