import {
  findMachine,
  findProfile,
  storesIn,
  storesOf,
  type Bench,
  type Box,
  type Store,
} from '../model/bench';
import {
  layoutPlanSchema,
  noBoxLayout,
  type BoxLayout,
  type DriveWant,
  type LayoutPlan,
} from '../model/layout';
import { claimAgainst, isFreeFor, type Claim } from '../plan/claims';
import { holdsSystemOf } from '../plan/medium';
import { keepsAll, withKept } from './beside';
import { layoutSheet, type LayoutSheet } from './sheet';
import { driveThere, usualWant, type NoLayout } from './usual';

/** Why nothing is laid out for a box yet. */
export type NoBoxLayout =
  | NoLayout
  | { code: 'no machine' }
  | { code: 'no system' }
  | { code: 'no drive' }
  | { code: 'which drive'; count: number }
  | { code: 'drive is kept'; drive: string }
  | { code: 'drive not decided'; drive: string }
  /** Another box has reserved it, or its system runs from it. */
  | { code: 'drive is held'; drive: string; claim: Claim };

/** What a box's drive becomes, or why that cannot be said. */
export interface LaidBox {
  decided: BoxLayout;
  /** Drives in the machine, loose ones that may be lost, and the one that was chosen. */
  drives: Store[];
  drive: Store | null;
  /** Nobody has chosen the drive: it is the only one that may be erased, and nothing is done to it before it is chosen. */
  suggested: boolean;
  plan: LayoutPlan | null;
  sheet: LayoutSheet | null;
  why: NoBoxLayout | null;
}

/** Sizes that a person gave, in place of the usual ones. */
const withSizes = (want: DriveWant, { sizes, reserve }: BoxLayout): DriveWant => ({
  ...want,
  reserve,
  wants: want.wants.map((w) => ({ ...w, size: sizes[w.id] ?? w.size })),
});

/** What a box has decided, changed; another drive or another school of parts begins its sizes anew. */
export function changedLayout(before: BoxLayout | null, changed: Partial<BoxLayout>): BoxLayout {
  const anew = 'driveId' in changed || 'parts' in changed ? { sizes: {}, reserve: 0 } : {};
  // What stays is told by the numbers of one drive.
  const another = 'driveId' in changed ? { kept: [] } : {};
  return { ...(before ?? noBoxLayout()), ...anew, ...another, ...changed };
}

const lately = new WeakMap<Box, { bench: Bench; laid: LaidBox }>();

/**
 * The layout of the drive that a box's system goes on, by what the box has decided and else by the usual. Ledger, rehearsal
 * and sheet ask for the same one: it is worked out once for each state of the bench.
 */
export function laidBox(bench: Bench, box: Box): LaidBox {
  const before = lately.get(box);
  if (before?.bench === bench) return before.laid;
  const laid = layOut(bench, box);
  lately.set(box, { bench, laid });
  return laid;
}

function layOut(bench: Bench, box: Box): LaidBox {
  const decided = box.layout ?? noBoxLayout();
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  const inside = machine ? storesIn(bench, machine.id) : [];
  const loose = storesOf(bench).filter(
    (s) =>
      s.in === null &&
      s.fate === 'may be lost' &&
      isFreeFor(bench, box, s) &&
      // A second stick or card can take the system as well; the installer's own cannot.
      (s.kind === 'drive' ||
        (s.bytes >= (profile?.needs.bootBytes ?? 0) &&
          s.serial !== (box.targetSerial ?? box.written?.serial))),
  );
  const chosen = storesOf(bench).find((s) => s.id === decided.driveId);
  const drives = [...new Set([...inside, ...loose, ...(chosen ? [chosen] : [])])];
  const free = inside.filter((s) => s.fate === 'may be lost' && isFreeFor(bench, box, s));
  // Once its system is on a drive, that is the one.
  const own = inside.find((s) => holdsSystemOf(s, box));
  const drive = chosen ?? own ?? (free.length === 1 ? free[0] : undefined) ?? null;
  const suggested = drive !== null && drive !== chosen && drive !== own;
  const none = (why: NoBoxLayout): LaidBox => ({
    decided,
    drives,
    drive,
    suggested,
    plan: null,
    sheet: null,
    why,
  });
  if (!machine) return none({ code: 'no machine' });
  if (!profile) return none({ code: 'no system' });
  if (!drive)
    return none(drives.length === 0 ? { code: 'no drive' } : { code: 'which drive', count: drives.length });
  const claim = claimAgainst(bench, box, drive.id);
  if (claim) return none({ code: 'drive is held', drive: drive.name, claim });
  // Where all of it stays, a drive that must be kept can take a second system; its own system a box may install again.
  const beside = keepsAll(drive, decided.kept) || holdsSystemOf(drive, box);
  if (drive.fate === 'keep' && !beside) return none({ code: 'drive is kept', drive: drive.name });
  if (drive.fate === 'not decided' && !beside) return none({ code: 'drive not decided', drive: drive.name });
  const want = usualWant({ profile, machine, drive, parts: decided.parts, swap: decided.swap });
  if ('code' in want) return none(want);
  const there = driveThere(drive);
  const { typed, shown } = profile.manner;
  const plan = layoutPlanSchema.parse({
    drive: there,
    want: withSizes(withKept(want, there, decided.kept), decided),
    typed,
    shown,
  });
  return { decided, drives, drive, suggested, plan, sheet: layoutSheet(plan), why: null };
}
