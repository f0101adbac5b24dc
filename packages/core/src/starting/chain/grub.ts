import { parseGrubScript } from '../../formats/grub/script';
import type { RungWhy } from '../../model/chain';
import type { ImagePlace } from '../../model/imagePlace';
import type { Rung } from '../../model/inspection';
import { openFat } from '../../formats/fat/read';
import { openTar } from '../../formats/tar';
import { fatAsVolume, plainPath } from '../../formats/volume';
import { rung, type Wanted } from './files';
import { GrubRun, nothingLoaded, TooDeep, type GrubEntry, type GrubMachine } from './grubRun';
import { apart, type ChainVolume } from './volumes';

/** Where a GRUB was started from: the volume its file lies on (undefined where GRUB gives that no name), and its folder. */
export interface GrubStart {
  machine: GrubMachine;
  volume: ChainVolume | undefined;
  folder: string;
}

/** What a loader goes on to; `program` is another loader, to be followed by itself. */
export interface Followed {
  rungs: Rung[];
  program: Wanted | undefined;
}

const IN_LOADER: ImagePlace = { of: 'in the loader' };
/** Menus within menus are gone down so far. */
const MAX_MENUS = 8;

/** What prefix and root are when it begins (GRUB, kern/main.c, grub_set_prefix_and_root). */
function begin(run: GrubRun, { machine, volume, folder }: GrubStart): void {
  const { image, devices } = machine;
  if (image.memdisk) {
    const { memdisk } = image;
    devices.define(
      'memdisk',
      apart(IN_LOADER, async () => {
        const fat = await openFat(memdisk);
        return fat ? fatAsVolume(fat) : openTar(memdisk);
      }),
    );
  }
  // A volume that it has no name for is the drive itself: what stands behind a boot catalogue is read as the whole disc.
  const own = volume ? devices.name(volume) : devices.drive;
  const [, device, path = ''] = /^(?:\(([^)]*)\))?(.*)$/s.exec(image.prefix ?? '') ?? [];
  // Empty brackets stand for the drive; a comma in front for a part of it.
  const onDrive = device === '' || device?.startsWith(',');
  const root = device === undefined ? own : onDrive ? `${devices.drive}${device}` : device;
  run.vars.set('root', root);
  run.vars.set('prefix', `(${root})${path || folder}`);
  run.vars.set('cmdpath', `(${own})${folder}`);
  run.vars.set('grub_platform', machine.platform);
  run.vars.set('grub_cpu', machine.cpu);
  for (const feature of [
    'menuentry_id',
    'platform_search_hint',
    'default_font_path',
    'all_video_module',
    'timeout_style',
    '200_final',
    'ntldr',
    'chainloader_bpb',
    'native_disk_cmd',
  ])
    run.vars.set(`feature_${feature}`, 'y');
}

/** The entry that is started when nobody chooses: by number, title or id; the first where it names none of them. */
function chosen(
  entries: readonly GrubEntry[],
  wanted: string,
): { entry: GrubEntry | undefined; rest: string } {
  const [head = '', ...more] = wanted.split('>');
  const rest = more.join('>');
  const byNumber = /^\d+$/.test(head) ? entries[Number(head)] : undefined;
  const entry = byNumber ?? entries.find((e) => e.id === head || e.title === head);
  return entry ? { entry, rest } : { entry: entries[0], rest: '' };
}

/** Runs the entry that is chosen, down through menus within it. */
async function runMenu(run: GrubRun): Promise<void> {
  let wanted = run.vars.get('default') ?? '';
  for (let depth = 0; depth < MAX_MENUS; depth += 1) {
    const { entry, rest } = chosen(run.entries, wanted);
    if (!entry) return;
    run.entries = [];
    run.loaded = nothingLoaded();
    run.vars.set('chosen', entry.title);
    await run.run(entry.body);
    if (run.loaded.kernel || run.loaded.program || run.entries.length === 0) return;
    // A menu within it, or a configuration that it went on to.
    wanted = entry.submenu ? rest : (run.vars.get('default') ?? '');
  }
}

/** An initial disk without a kernel starts nothing: GRUB wants the kernel first. */
const loadedRungs = ({ loaded: { kernel, disks } }: GrubRun): Rung[] => (kernel ? [kernel, ...disks] : []);
const isWhole = (run: GrubRun): boolean =>
  run.loaded.program !== undefined ||
  (run.loaded.kernel !== undefined && loadedRungs(run).every((r) => r.state === 'whole'));

/** Runs the chosen entry, and where that breaks the one kept for such a case. */
async function runEntries(run: GrubRun): Promise<void> {
  const entries = [...run.entries];
  await runMenu(run);
  const fallback = run.vars.get('fallback');
  if (isWhole(run) || fallback === undefined || entries.length === 0) return;
  const before = run.loaded;
  run.entries = entries;
  run.vars.set('default', fallback);
  await runMenu(run);
  if (!isWhole(run)) run.loaded = before;
}

async function work(run: GrubRun): Promise<RungWhy | undefined> {
  const { image } = run.machine;
  if (image.config !== undefined) {
    const statements = parseGrubScript(image.config);
    if (statements) await run.run(statements);
  }
  if (run.booted || run.entries.length > 0) return undefined;
  if (run.read.length === 0) {
    const normal = await run.has(['normal']);
    if (normal !== true) return normal;
    const found = await run.source(`${run.vars.get('prefix') ?? ''}/grub.cfg`);
    if (!found && image.config === undefined) return run.trouble;
  }
  return undefined;
}

function configuration(run: GrubRun): Rung {
  const last = run.read.at(-1);
  return rung(
    'configuration',
    last ? { code: 'there', path: plainPath(last.path), place: last.volume.place } : { code: 'built in' },
  );
}

/**
 * Follows GRUB from what is built into it through its configuration to the kernel of the entry that it starts when nobody
 * chooses. Source: GRUB manual, “Configuration”; kern/main.c for what comes first.
 */
export async function followGrub(start: GrubStart): Promise<Followed> {
  const run = new GrubRun(start.machine);
  begin(run, start);
  try {
    const why = await work(run);
    if (why) return { rungs: [rung('configuration', why)], program: undefined };
    if (!run.booted) {
      // What was loaded before the menu is not started by itself.
      run.loaded = nothingLoaded();
      await runEntries(run);
    }
  } catch (error) {
    if (!(error instanceof TooDeep)) throw error;
    return { rungs: [rung('configuration', { code: 'too deep' })], program: undefined };
  }
  const { program } = run.loaded;
  if (program) return { rungs: [configuration(run)], program };
  const rungs = loadedRungs(run);
  if (rungs.length > 0) return { rungs: [configuration(run), ...rungs], program: undefined };
  // It ends at its prompt: because a file or device was not had, or because nothing is named.
  if (run.trouble && (run.read.length === 0 || STOPPED.has(run.trouble.code)))
    return { rungs: [rung('configuration', run.trouble)], program: undefined };
  const last = run.read.at(-1);
  const nothing: RungWhy = {
    code: 'names nothing',
    path: last ? plainPath(last.path) : '',
    place: last ? last.volume.place : IN_LOADER,
  };
  return { rungs: [configuration(run), rung('kernel', nothing)], program: undefined };
}

/** Troubles with which a configuration that was read goes no further. */
const STOPPED = new Set<RungWhy['code']>([
  'file system not opened',
  'another drive',
  'grammar broken',
  'cut short',
  'empty',
]);
