import { unescaped } from '../formats/checksumList';
import { folderOf } from '../units/paths';
import { fixedShell, sh, shellComment, shellScript } from '../formats/writer/shell';
import { undone, type CopyPlan, type PlannedFile } from './plan';

/** A name in a list of sums, as GNU coreutils write it (their manual, “md5sum invocation”): escaped where it must be. */
function listed(name: string): { mark: string; name: string } {
  if (!/[\n\r\\]/.test(name)) return { mark: '', name };
  return {
    mark: '\\',
    name: name.replaceAll('\\', '\\\\').replaceAll('\n', '\\n').replaceAll('\r', '\\r'),
  };
}

/** A list of SHA-256 sums in the usual form: “<sum>  <path>”, one line each, in the order of their paths. */
export function writeManifest(files: readonly { path: string; sha256: string }[]): string {
  return [...files]
    .sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0))
    .map((f) => {
      const { mark, name } = listed(f.path);
      return `${mark}${f.sha256}  ${name}\n`;
    })
    .join('');
}

/** A line of a list of sums that was read: the path as it really is. */
export interface ManifestLine {
  path: string;
  sha256: string;
}

/** Reads a list of SHA-256 sums as it is written here and by sha256sum(1): to the letter, blanks in names included. Lines that are none are counted. */
export function readManifest(text: string): { lines: ManifestLine[]; unread: number } {
  const lines: ManifestLine[] = [];
  let unread = 0;
  for (const line of text.split('\n')) {
    if (line.trim() === '') continue;
    const found = /^(\\?)([\da-fA-F]{64}) [ *](.+)$/s.exec(line);
    if (!found) {
      unread += 1;
      continue;
    }
    const [, mark, hex = '', name = ''] = found;
    const path = mark === '\\' ? unescaped(name) : name.replace(/\r$/, '');
    lines.push({ path, sha256: hex.toLowerCase() });
  }
  return { lines, unread };
}

/** Folders that files go into, each once and in their order. */
const foldersOf = (files: readonly { to: string }[]): string[] =>
  [...new Set(files.map((f) => folderOf(f.to)))].filter(Boolean).sort();

/** A path below a folder: however it begins, it is no option. */
const below = (path: string): string => `./${path}`;

const MOVE = fixedShell(`go() {
  if test ! -e "$1" && test ! -L "$1"; then
    if test -e "$2" || test -L "$2"; then return 0; fi
    echo "not there: $1" >&2
    exit 1
  fi
  if test -e "$2" || test -L "$2"; then
    echo "in the way: $2" >&2
    exit 1
  fi
  mv -- "$1" "$2"
}`);

/**
 * Renames as a script for a POSIX shell, in the folder that was looked through. It stops at the first one that is not as
 * planned, runs over nothing, and goes on where it stopped when it is run again: what was renamed already is passed over.
 */
export const writeMoves = (moves: readonly { from: string; to: string }[], title: string): string =>
  shellScript([
    fixedShell('#!/bin/sh'),
    shellComment(`${title}. Run it in the folder that was looked through; read it first.`),
    sh`set -eu`,
    MOVE,
    ...foldersOf(moves).map((f) => sh`mkdir -p -- ${below(f)}`),
    ...moves.map((m) => sh`go ${below(m.from)} ${below(m.to)}`),
  ]);

/** Where an archive is unpacked: into a folder of its name beside it. */
const unpackedInto = (path: string): string => path.replace(/(\.tar)?\.[^./]+$/i, '');

/** What a copy does with one file: a copy that was broken off has a name of its own, so that it never counts as done. */
const COPY = fixedShell(`part=$to/.copy-not-finished
size() {
  ls -lLnd -- "$1" | { read -r _ _ _ _ bytes _; printf '%s\\n' "$bytes"; }
}
go() {
  if test -e "$to/$2"; then
    test "$(size "$from/$1")" = "$(size "$to/$2")" || echo "there already, of another size, left alone: $2" >&2
    return 0
  fi
  cp -p -- "$from/$1" "$part"
  mv -- "$part" "$to/$2"
}
same() {
  test -e "$to/$2" || ln -- "$to/$1" "$to/$2"
}
unpack() {
  test -e "$to/$2" && return 0
  rm -rf -- "$part"
  mkdir -p -- "$part"
  bsdtar -C "$part" -xkf "$from/$1"
  mv -- "$part" "$to/$2"
}`);

/**
 * A copy of the plan as a script: FROM and TO are given when it is run; what is there already is left alone, and told where it
 * is of another size. What is the same as another file becomes a link to its copy (ln(1)), archives that were meant to be are
 * unpacked (bsdtar(1)).
 */
export function writeCopy({
  files,
  unpack,
  unnamed,
}: Pick<CopyPlan, 'files' | 'unpack' | 'unnamed'>): string {
  const there = new Map(files.map((f) => [f.from, f.to]));
  const gone = files.flatMap((f) => (f.to === null ? [] : [{ from: f.from, to: f.to, same: f.same }]));
  // A link wants its file: where that one stays behind, it is copied itself.
  const linked = gone.flatMap(({ to, same }) => {
    const at = same === null ? null : (there.get(same) ?? null);
    return at === null ? [] : [{ at, to }];
  });
  const links = new Set(linked.map((l) => l.to));
  const folders = [
    ...new Set([...foldersOf(gone), ...unpack.map((p) => folderOf(p)).filter(Boolean)]),
  ].sort();
  return shellScript([
    fixedShell('#!/bin/sh'),
    shellComment('Copies what was planned: sh copy.sh FROM TO. What is there already is left alone.'),
    ...unnamed.map((path) => shellComment(`Not copied, for its name is no text: ${path}`)),
    sh`set -eu`,
    sh`from=$1; to=$2`,
    COPY,
    sh`rm -rf -- "$part"`,
    ...folders.map((f) => sh`mkdir -p -- "$to"/${f}`),
    ...gone.filter((m) => !links.has(m.to)).map((m) => sh`go ${below(m.from)} ${below(m.to)}`),
    ...linked.map((l) => sh`same ${below(l.at)} ${below(l.to)}`),
    ...unpack.map((path) => sh`unpack ${below(path)} ${below(unpackedInto(path))}`),
  ]);
}

/** Paths for a copier that takes a list with a NUL behind each (rsync(1), --from0 --files-from). Only what keeps its name. */
export const writeList = (files: readonly PlannedFile[]): string =>
  files
    .filter((f) => f.to !== null && f.to === f.from && f.same === null)
    .map((f) => `${f.from}\0`)
    .join('');

/** Forms in which a plan leaves the house as it is; a list of sums needs the files themselves. */
export const planForms = ['copy', 'moves', 'undo', 'list'] as const;
/** A form of a plan. */
export type PlanForm = (typeof planForms)[number];

/** The text of a form. */
export function writePlan(form: PlanForm, plan: CopyPlan): string {
  switch (form) {
    case 'copy':
      return writeCopy(plan);
    case 'moves':
      return writeMoves(plan.moves, 'Renames what was planned');
    case 'undo':
      return writeMoves(undone(plan.moves), 'Takes every rename back');
    case 'list':
      return writeList(plan.files);
  }
}
