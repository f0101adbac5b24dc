import { fixedShell, sh, shellComment, shellScript, type Shell } from '../../formats/writer/shell';
import type { LayoutPlan } from '../../model/layout';
import type { Layout } from '../laid';
import { madeParts } from './mkfs';
import { sfdiskScript, type NoTableScript } from './sfdisk';
import { sgdiskCommands } from './sgdisk';
import { shrinkCommands } from './shrink';

const ASK = fixedShell(`ask() {
  printf '%s Type yes to go on: ' "$1"
  read -r answer
  test "$answer" = yes || { echo 'Stopped. Nothing after this was done.' >&2; exit 1; }
}`);

/** What writes the table: sgdisk beside parts that stay, which it does not touch; else the whole table by sfdisk. */
function table(layout: Layout, plan: LayoutPlan): Shell[] | NoTableScript {
  const stays = layout.parts.some((p) => p.fate !== 'new');
  if (stays && layout.table === 'gpt') return sgdiskCommands(layout, plan.drive, plan.device);
  const script = sfdiskScript(layout);
  if (typeof script !== 'string') return script.code === 'no table' ? [] : script;
  const wipe = stays ? fixedShell('never') : fixedShell('always');
  return [sh`sfdisk --wipe ${wipe} ${plan.device} <<'END_OF_TABLE'\n${fixedShell(script)}END_OF_TABLE`];
}

/**
 * A layout as one script for a POSIX shell, in the only order that loses nothing that stays: file systems that become smaller,
 * then the table, then the new file systems, each asked for by itself. It stops at the first thing that is not as planned.
 */
export function layoutScript(layout: Layout, plan: LayoutPlan): string | NoTableScript {
  const { device } = plan;
  const written = table(layout, plan);
  if (!Array.isArray(written)) return written;
  const shrinks = shrinkCommands(layout, device);
  const made = madeParts(layout, device, true);
  return shellScript([
    fixedShell('#!/bin/sh'),
    shellComment(
      `Lays out ${plan.drive.name === '' ? 'a drive' : plan.drive.name}. Read it first; nobody runs it but you.`,
    ),
    shellComment('Back up what stays: a power cut while a file system becomes smaller loses it.'),
    sh`set -eu`,
    ASK,
    sh`test -b ${device} || { echo 'There is no such drive. Nothing was done.' >&2; exit 1; }`,
    ...(shrinks.length > 0
      ? [shellComment('File systems that become smaller, before the table does.'), ...shrinks]
      : []),
    ...(written.length > 0
      ? [shellComment('The table.'), sh`ask ${`A new table is written to ${device}.`}`, ...written]
      : []),
    sh`udevadm settle 2>/dev/null || sleep 2`,
    ...made.flatMap((m) => [
      shellComment(`The file system of part ${m.number}.`),
      sh`ask ${`What is on ${m.path} is erased.`}`,
      m.command,
    ]),
  ]);
}
