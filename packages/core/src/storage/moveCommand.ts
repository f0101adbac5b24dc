import type { MoveStep, Moving } from '../model/moving';
import { fixedShell, sh, type Shell } from '../formats/writer/shell';

/** Names that database servers take unquoted in any place (PostgreSQL, “Identifiers”; MariaDB, “Identifier names”). */
const DATABASE = /^[A-Za-z_][A-Za-z0-9_]{0,62}$/;
const TABLE = /^[A-Za-z_][A-Za-z0-9_]{0,62}(\.[A-Za-z_][A-Za-z0-9_]{0,62})?$/;

/** Whether what is moved can be named in commands: a database by its plain name, files by their path, which is no option. */
const canBeTyped = ({ kind, what }: Moving): boolean =>
  kind === 'PostgreSQL' || kind === 'MariaDB' ? DATABASE.test(what) : !what.startsWith('-');

/**
 * What is typed for a step; null where there is nothing to type, or what is moved has a name that no command takes for
 * certain. Commands as in pg_dump(1), pg_restore(1), mariadb-dump(1), sqlite3(1) and tar(1); we run none of them.
 */
export function moveCommand(m: Moving, step: MoveStep): string | null {
  const { kind, what } = m;
  if (kind === 'other' || !canBeTyped(m)) return null;
  const file = `${what.replace(/[^\w.-]+/g, '-').replace(/^-+/, '')}.backup`;
  const tables = m.counts.map((c) => c.of);
  const typed: Record<typeof kind, Partial<Record<MoveStep, Shell | null>>> = {
    PostgreSQL: {
      'back up': sh`pg_dump -Fc -f ${file} ${what} && sha256sum ${file}`,
      restore: sh`createdb ${what} && pg_restore --exit-on-error -d ${what} ${file}`,
      count: counted(tables, (query) => sh`psql -At ${what} -c ${query}`),
    },
    MariaDB: {
      'back up': sh`mariadb-dump --single-transaction --routines --events ${what} > ${file} && sha256sum ${file}`,
      restore: sh`mariadb-admin create ${what} && mariadb ${what} < ${file}`,
      count: counted(tables, (query) => sh`mariadb -N ${what} -e ${query}`),
    },
    SQLite: {
      'back up': sh`sqlite3 ${what} ${`.backup ${file}`} && sha256sum ${file}`,
      restore: sh`sqlite3 ${file} 'pragma integrity_check' && cp -n ${file} ${what}`,
      count: counted(tables, (query) => sh`sqlite3 ${what} ${query}`),
    },
    files: {
      'back up': sh`tar -C ${what} -cf ${file} . && sha256sum ${file}`,
      restore: sh`mkdir -p ${what} && tar -C ${what} -xkf ${file}`,
      count: sh`find ${what} -type f | wc -l`,
    },
  };
  if (step === 'copy') return sh`sha256sum ${file}`.text;
  return typed[kind][step]?.text ?? null;
}

/** A line for each table that is counted; null where none is named, or one has a name that is more than a name. */
const counted = (tables: readonly string[], ask: (query: string) => Shell): Shell | null =>
  tables.length === 0 || !tables.every((t) => TABLE.test(t))
    ? null
    : fixedShell(tables.map((t) => ask(`select count(*) from ${t}`).text).join('\n'));
