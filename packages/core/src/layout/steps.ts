import type { LayoutFilesystem, LayoutPlan, PartUse } from '../model/layout';
import { layoutSheet, type LayoutRow } from './sheet';
import { sh } from '../formats/writer/shell';
import type { Layout } from './laid';
import { mkfsCommands } from './write/mkfs';
import { layoutScript } from './write/script';
import { sfdiskScript, type NoTableScript } from './write/sfdisk';

/** How installers are told a layout. Common practice, no source. */
export const installerWays = ['asks part after part', 'edits a list', 'typed commands'] as const;
/** One of them. */
export type InstallerWay = (typeof installerWays)[number];

/** One step at the installer, as data. */
export type LayoutStep =
  | { code: 'begin'; way: InstallerWay; drive: string; bytes: number }
  | { code: 'new table'; table: 'gpt' | 'mbr' }
  | { code: 'keep'; number: number; name: string }
  | { code: 'make smaller'; number: number; name: string; bytes: number }
  | { code: 'delete'; number: number; name: string }
  | {
      code: 'make part';
      number: number;
      kind: 'primary' | 'logical';
      use: PartUse | null;
      size: { text: string; unit: string; shown: string } | 'the rest';
      filesystem: LayoutFilesystem | null;
      mount: string | null;
      label: string;
    }
  | { code: 'mark active'; number: number }
  | { code: 'command'; text: string; input: string | null }
  /** Where something stays, all is done by one script. */
  | { code: 'run the script'; script: string }
  | { code: 'no commands'; why: NoTableScript }
  | { code: 'read back'; parts: number; total: string };

/** What is typed of a part; the last one that takes the rest needs no number. */
function made({ part, typed, rest }: LayoutRow): LayoutStep[] {
  if (!typed || part.kind === 'extended') return [];
  return [
    {
      code: 'make part',
      number: part.number,
      kind: part.kind === 'logical' ? 'logical' : 'primary',
      use: part.use,
      size: rest ? 'the rest' : { text: typed.text, unit: typed.unit, shown: typed.shown },
      filesystem: part.filesystem,
      mount: part.mount,
      label: part.name,
    },
    ...(part.active ? [{ code: 'mark active' as const, number: part.number }] : []),
  ];
}

/** What is typed at a shell: the script where something stays, which does all of it in the right order; else the table and the file systems. */
function typedCommands(layout: Layout, plan: LayoutPlan): LayoutStep[] {
  if (layout.parts.some((p) => p.fate !== 'new')) {
    const script = layoutScript(layout, plan);
    return typeof script === 'string'
      ? [{ code: 'run the script', script }]
      : [{ code: 'no commands', why: script }];
  }
  const script = sfdiskScript(layout);
  return [
    ...(typeof script === 'string'
      ? [{ code: 'command' as const, text: sh`sfdisk ${plan.device}`.text, input: script }]
      : []),
    ...mkfsCommands(layout, plan.device).map((text) => ({ code: 'command' as const, text, input: null })),
  ];
}

/** The steps that bring a layout onto its drive, in the way an installer takes it. */
export function layoutSteps(plan: LayoutPlan, way: InstallerWay): LayoutStep[] {
  const { layout, rows } = layoutSheet(plan);
  const begin: LayoutStep = { code: 'begin', way, drive: plan.drive.name, bytes: plan.drive.bytes };
  const readBack: LayoutStep = {
    code: 'read back',
    parts: layout.parts.length,
    total: rows.flatMap((r) => (r.typed ? [r.typed.shown] : [])).join(', '),
  };
  if (way === 'typed commands') {
    return [begin, ...typedCommands(layout, plan), readBack];
  }
  const stays = layout.parts.filter((p) => p.fate !== 'new');
  const gone = plan.drive.parts.filter((p) => !stays.some((s) => s.start === p.start));
  const before: LayoutStep[] =
    stays.length === 0
      ? layout.table === 'none'
        ? []
        : [{ code: 'new table', table: layout.table }]
      : [
          ...stays.flatMap((p): LayoutStep[] =>
            p.fate === 'made smaller'
              ? [
                  {
                    code: 'make smaller',
                    number: p.number,
                    name: p.name,
                    bytes: p.bytes,
                  },
                ]
              : p.kind === 'extended'
                ? []
                : [{ code: 'keep', number: p.number, name: p.name }],
          ),
          ...gone.map((p): LayoutStep => ({ code: 'delete', number: p.number, name: p.label ?? p.name })),
        ];
  return [begin, ...before, ...rows.flatMap(made), readBack];
}
