import { boxesOfEvening, eveningOf } from '../box/evening';
import { runSheetOf } from '../box/runSheet';
import { lookThrough, usuallyTaken } from '../content/findings';
import { planCopy, type CopyPlan } from '../content/plan';
import { usualRules } from '../content/usual';
import { planForms, writeManifest, writePlan } from '../content/written';
import { sheetOf } from '../firststart/screen';
import { testSheet } from '../firststart/sheet';
import { shoppingList } from '../gather/shopping';
import { guestsOf, isHost } from '../guests/forBox';
import { guestFiles } from '../guests/write/forms';
import { laidBox } from '../layout/forBox';
import { fstab } from '../layout/write/fstab';
import { mkfsCommands } from '../layout/write/mkfs';
import { layoutScript } from '../layout/write/script';
import { sfdiskScript } from '../layout/write/sfdisk';
import { sgdiskCommands } from '../layout/write/sgdisk';
import { findMachine, hostsOfBox, storesOf, type Box } from '../model/bench';
import { moveSteps } from '../model/moving';
import { probeCommand } from '../network/before';
import { knownHostsLines } from '../network/forBox';
import { hostWriterNames, networkWriterNames, networkWriters, writeForHost } from '../network/write/forms';
import { gateForms, writeGate, type GateForm } from '../rules/write/forms';
import { planned } from '../schedule/plan';
import { poolScript, poolSteps } from '../storage/commands';
import { storageOf } from '../storage/forBox';
import { moveCommand } from '../storage/moveCommand';
import { sharingOf } from '../storage/share/forBox';
import { shareForms, writeShares, type ShareForm } from '../storage/share/write';
import { tuneCsv, tuneJson } from '../tune/exported';
import { tuneOf } from '../tune/forBox';
import { resultOf } from '../tune/results';
import { buildSheet } from '../words/buildSheet';
import { eveningCalendar } from '../words/evening';
import { shoppingCsv } from '../words/gather';
import { sheetHtml } from '../words/handOver/html';
import { keepCalendar } from '../words/keep';
import { planOf } from '../box/plan';
import { runSheetMarkdown } from '../words/runsheet/markdown';
import { runStepWords } from '../words/runsheet/step';
import { travelHtml, travelOf } from '../words/runsheet/travel';
import { pictureOfTrade } from '../words/tradePicture';
import { erasePlan } from '../write/erase';
import { severalOnStick } from '../write/severalOnStick';
import type { ExportedFile, ExportInput, FileFormat, Writer } from './file';

type BoxInput = ExportInput & { box: Box };

/** One file, where there is anything to write. */
const one = (name: string, content: string | Uint8Array | null | undefined): ExportedFile[] =>
  content === null || content === undefined || content.length === 0 ? [] : [{ name, content }];
const lines = (list: readonly string[]): string => list.map((l) => `${l}\n`).join('');

const NETWORK: Record<keyof typeof networkWriters, FileFormat> = {
  dnsmasq: 'dnsmasq',
  isc: 'dhcpd.conf',
  kea: 'json',
  hosts: 'hosts',
  csv: 'csv',
};
const HOST = {
  networkd: 'unit',
  netplan: 'yaml',
  ifupdown: 'interfaces',
  networkmanager: 'keyfile',
} as const;
const GATE: Record<GateForm, FileFormat> = {
  rollback: 'shell',
  nft: 'nftables',
  dnsmasq: 'dnsmasq',
  sysctl: 'sysctl',
  md: 'markdown',
};
const SHARE: Record<ShareForm, FileFormat> = {
  smb: 'smb.conf',
  exports: 'exports',
  web: 'nginx',
  advert: 'xml',
  folders: 'shell',
  fstab: 'fstab',
};

/** Files of the whole bench. */
export const benchWriters: readonly Writer<ExportInput>[] = [
  ...networkWriterNames.map((form) => ({
    id: `network ${form}`,
    format: NETWORK[form],
    files: ({ bench }: ExportInput) =>
      bench.networks.flatMap((n) =>
        one(
          n.id,
          networkWriters[form](
            n,
            bench.hosts.filter((h) => h.networkId === n.id),
          ),
        ),
      ),
  })),
  ...hostWriterNames.map((form) => ({
    id: `host ${form}`,
    format: HOST[form],
    files: ({ bench }: ExportInput) =>
      bench.hosts.flatMap((h) => {
        const network = bench.networks.find((n) => n.id === h.networkId);
        return network ? one(h.id, writeForHost(form, network, h)) : [];
      }),
  })),
  {
    id: 'address probe',
    format: 'shell',
    files: ({ bench }) =>
      bench.hosts.flatMap((h) =>
        h.address === null ? [] : one(h.id, `${probeCommand(h.address, h.port)}\n`),
      ),
  },
  {
    id: 'shopping list',
    format: 'csv',
    files: ({ bench }) => one('shopping', shoppingCsv(shoppingList(bench))),
  },
  {
    id: 'evening',
    format: 'icalendar',
    files: ({ bench, at }) => {
      const evening = eveningOf(bench, boxesOfEvening(bench), null);
      return one('evening', eveningCalendar(evening, planned(evening.problem).plan, at, at));
    },
  },
  {
    id: 'erasing',
    format: 'shell',
    files: ({ bench }) =>
      storesOf(bench).flatMap((s) => {
        const { find, ways } = erasePlan(s);
        return one(s.id, find === null ? null : lines([find, ...ways.flatMap((w) => w.command ?? [])]));
      }),
  },
  {
    id: 'several on one stick',
    format: 'grub',
    files: ({ bench }) =>
      one(
        'grub.cfg',
        severalOnStick(
          bench.items.flatMap((i) => (i.kind === 'image' ? [i] : [])),
          storesOf(bench),
        ).config,
      ),
  },
];

const layoutOf = ({ bench, box }: BoxInput) => {
  const { plan, sheet } = laidBox(bench, box);
  return plan && sheet ? { plan, layout: sheet.layout } : null;
};
/** A file of a box's layout, where its drive is laid out. */
const ofLayout = (
  id: string,
  format: FileFormat,
  write: (laid: NonNullable<ReturnType<typeof layoutOf>>) => string | object,
): Writer<BoxInput> => ({
  id: `layout ${id}`,
  format,
  files: (input) => {
    const laid = layoutOf(input);
    const text = laid && write(laid);
    return one(id, typeof text === 'string' ? text : null);
  },
});

/** Files of one box. */
export const boxWriters: readonly Writer<BoxInput>[] = [
  {
    id: 'known hosts',
    format: 'known_hosts',
    files: ({ bench, box }) =>
      hostsOfBox(bench, box.id).flatMap((h) =>
        one(
          h.id,
          lines(
            knownHostsLines(
              h,
              bench.networks.find((n) => n.id === h.networkId),
              box.reach?.hostKeys ?? [],
            ),
          ),
        ),
      ),
  },
  ofLayout('script', 'shell', ({ layout, plan }) => layoutScript(layout, plan)),
  ofLayout('sfdisk', 'sfdisk', ({ layout }) => sfdiskScript(layout)),
  ofLayout('sgdisk', 'shell', ({ layout, plan }) =>
    lines(sgdiskCommands(layout, plan.drive, plan.device).map((c) => c.text)),
  ),
  ofLayout('mkfs', 'shell', ({ layout, plan }) => lines(mkfsCommands(layout, plan.device))),
  ofLayout('fstab', 'fstab', ({ layout }) => fstab(layout)),
  {
    id: 'pool',
    format: 'shell',
    files: ({ bench, box }) => {
      const { pool, chosen } = storageOf(bench, box);
      const made = chosen && poolSteps(chosen.pool, pool);
      return made && 'steps' in made ? one(pool.name, poolScript(chosen.pool, pool.name, made.steps)) : [];
    },
  },
  {
    id: 'pool steps',
    format: 'shell',
    files: ({ bench, box }) => {
      const { pool, chosen } = storageOf(bench, box);
      const made = chosen && poolSteps(chosen.pool, pool);
      return made && 'steps' in made
        ? made.steps
            .filter((s) => s.code !== 'mount at every start')
            .flatMap((s, i) => one(`${i} ${s.code}`, `${s.text}\n`))
        : [];
    },
  },
  {
    id: 'moving',
    format: 'shell',
    files: ({ box }) =>
      box.moving.flatMap((m) =>
        moveSteps.flatMap((step) => {
          const command = moveCommand(m, step);
          return one(`${m.id} ${step}`, command === null ? null : `${command}\n`);
        }),
      ),
  },
  ...shareForms.map((form) => ({
    id: `shares ${form}`,
    format: SHARE[form],
    files: ({ bench, box }: BoxInput) => {
      const out = (box.sharing?.folders.length ?? 0) > 0 ? writeShares(form, sharingOf(bench, box)) : null;
      return out && 'text' in out ? one(form, out.text) : [];
    },
  })),
  ...gateForms.map((form) => ({
    id: `rules ${form}`,
    format: GATE[form],
    files: ({ bench, box }: BoxInput) =>
      box.gate === null ? [] : one(form, writeGate(form, box.gate, bench.networks, bench.hosts)),
  })),
  ...(['markdown', 'xml', 'yaml', 'iso9660'] as const).map((format) => ({
    id: `virtual machines ${format}`,
    format,
    files: ({ bench, box }: BoxInput) => {
      if (!isHost(box)) return [];
      const { plan, pot } = guestsOf(bench, box);
      return guestFiles(plan, pot)
        .filter((f) => GUEST_FORMAT(f.path) === format)
        .map((f) => ({ name: f.path, content: f.content }));
    },
  })),
  {
    id: 'build sheet',
    format: 'markdown',
    files: ({ bench, box }) => one('sheet', buildSheet(bench, box)),
  },
  {
    id: 'build sheet page',
    format: 'html',
    files: ({ bench, box }) => one('sheet', sheetHtml(box.name, buildSheet(bench, box))),
  },
  {
    id: 'run sheet',
    format: 'markdown',
    files: ({ bench, box }) => one('run sheet', runSheetMarkdown(planOf(bench, box))),
  },
  {
    id: 'run sheet page',
    format: 'html',
    files: ({ bench, box, at }) =>
      one('run sheet', travelHtml(travelOf(runSheetOf(bench, box), box, bench.name, at))),
  },
  {
    id: 'run sheet commands',
    format: 'shell',
    files: ({ bench, box }) =>
      runSheetOf(bench, box).steps.flatMap((s) =>
        runStepWords(s.what)
          .exact.filter((e) => e.label === 'Type' && s.what.code !== 'pool')
          .flatMap((e, i) => one(`${s.key} ${i}`, `${e.text}\n`)),
      ),
  },
  {
    id: 'screen test',
    format: 'html',
    files: ({ bench, box }) => one('screen', testSheet(sheetOf(box, findMachine(bench, box.machineId)))),
  },
  {
    id: 'maintenance',
    format: 'icalendar',
    files: ({ bench, box, at }) => one('maintenance', keepCalendar(bench, [box], at.slice(0, 10), at)),
  },
  { id: 'runs table', format: 'csv', files: ({ bench, box }) => one('runs', tuneCsv(bench, box)) },
  {
    id: 'trade-off picture',
    format: 'xml',
    files: ({ bench, box }) =>
      tuneOf(bench, box).results.flatMap((r, i) => one(String(i), pictureOfTrade(resultOf(r)))),
  },
  {
    id: 'runs',
    format: 'json',
    files: ({ bench, box }) => one('runs', JSON.stringify(tuneJson(bench, box))),
  },
];

const GUEST_FORMAT = (path: string): FileFormat =>
  path.endsWith('.md')
    ? 'markdown'
    : path.endsWith('.xml')
      ? 'xml'
      : path.endsWith('.iso')
        ? 'iso9660'
        : 'yaml';

function copyOf({ folder }: ExportInput): CopyPlan | null {
  if (folder.length === 0) return null;
  const found = lookThrough({ entries: [...folder], rules: usualRules('music'), target: 'ext4' });
  return planCopy(folder, found, new Set(usuallyTaken), 'ext4');
}
const FOLDER: Record<(typeof planForms)[number], FileFormat> = {
  copy: 'shell',
  moves: 'shell',
  undo: 'shell',
  list: 'paths',
};

/** Files about a folder that was looked through. */
export const folderWriters: readonly Writer<ExportInput>[] = [
  ...planForms.map((form) => ({
    id: `content ${form}`,
    format: FOLDER[form],
    files: (input: ExportInput) => {
      const plan = copyOf(input);
      return plan === null ? [] : one(form, writePlan(form, plan));
    },
  })),
  {
    id: 'content checksums',
    format: 'checksums',
    files: ({ folder }) =>
      one(
        'SHA256SUMS',
        writeManifest(folder.flatMap((e) => (e.sha256 === null ? [] : [{ path: e.path, sha256: e.sha256 }]))),
      ),
  },
];
