/** A bench in which every text that its schemas take is one that some format would give a meaning. */
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import type { ContentEntry } from '@zb/core/model/contentRules';
import { theBench, type Bench } from '@zb/core/model/bench';
import { movingSchema } from '@zb/core/model/moving';
import { disc } from './discs';

/** What no file may do or hold: a command of this name, a file, a host, an element. */
export const CANARY = 'zbpwn';

/** Texts that end a token, a line or an element of some format, or begin another. */
export const HOSTILE: readonly string[] = [
  `x\nconf-script=/tmp/${CANARY}\n`,
  `"; ${CANARY}; "`,
  `$(${CANARY})\`${CANARY}\``,
  `'; ${CANARY} #`,
  `=${CANARY}()`,
  `+${CANARY}`,
  `-${CANARY}`,
  `@${CANARY}`,
  `\t=${CANARY}`,
  `![a](http://${CANARY}.invalid/x.png) <img src=http://${CANARY}.invalid/y.png>`,
  `https://${CANARY}.invalid www.${CANARY}.invalid a@${CANARY}.invalid`,
  `</script><script>${CANARY}()</script></style>`,
  `]]><${CANARY}/>&${CANARY};`,
  `a\r\nSUMMARY:${CANARY}\r\nBEGIN:VALARM`,
  `%U%$(HOME)\\`,
  '${IFS}$HOME',
  `\u001b]0;${CANARY}\u0007\u001b[31m`,
  `a|b\n| --- |\n| ${CANARY} |`,
  `# ${CANARY}`,
  `1. ${CANARY}`,
  `- ${CANARY}`,
  `> ${CANARY}`,
  `~~~\n${CANARY}\n~~~`,
  `\u2028${CANARY}\u2029\u0085${CANARY}`,
  `\ufeff${CANARY}`,
  `}; include "/etc/${CANARY}"; {`,
  `[${CANARY}]\nroot preexec = ${CANARY}`,
  `END_OF_RULES\n${CANARY}\nEND_OF_TABLE\n${CANARY}`,
  `\\040/etc/${CANARY}`,
  `../../etc/${CANARY}`,
  `--${CANARY}`,
  `a, type=${CANARY} "b", uuid=x`,
  `<!-- ${CANARY} --><details open>`,
  `    ${CANARY}\n\n===\n---`,
  '\ud800 half',
];

type Plain = Record<string, unknown> | unknown[];
const isPlain = (v: unknown): v is Plain => typeof v === 'object' && v !== null;

/** Every text within a value, with the way to it. */
function* texts(
  value: unknown,
  path: (string | number)[] = [],
): Generator<{ path: (string | number)[]; text: string }> {
  if (typeof value === 'string') yield { path, text: value };
  else if (isPlain(value))
    for (const [k, v] of Object.entries(value))
      yield* texts(v, [...path, Array.isArray(value) ? Number(k) : k]);
}
const at = (value: unknown, path: readonly (string | number)[]): unknown =>
  path.reduce<unknown>(
    (v, k) => (isPlain(v) ? (v as Record<string | number, unknown>)[k] : undefined),
    value,
  );
function set(value: unknown, path: readonly (string | number)[], to: string): void {
  const holder = at(value, path.slice(0, -1)) as Record<string | number, unknown>;
  holder[path.at(-1) ?? ''] = to;
}

/** All ids in a bench, of records and of what lies in them: whoever names them must go on naming them. */
function idsOf(bench: Bench): Set<string> {
  const out = new Set<string>();
  for (const { path, text } of texts(bench)) if (path.at(-1) === 'id') out.add(text);
  return out;
}

const replaced = (value: unknown, from: string, to: string): unknown =>
  value === from
    ? to
    : Array.isArray(value)
      ? value.map((v) => replaced(v, from, to))
      : isPlain(value)
        ? Object.fromEntries(
            Object.entries(value).map(([k, v]) => [k === from ? to : k, replaced(v, from, to)]),
          )
        : value;

/** Fields that decide whether there is a file at all: a photograph, and how an image is laid out. */
const DECIDES = new Set(['data', 'layout']);
/** A moment or a day: of one that is none nothing is reckoned. */
const MOMENT = /^\d{4}-\d\d-\d\d(T[\d:.]+Z)?$/;

/** A bench with a hostile text in every field that takes one, and beside it the same with harmless ones in the same fields. */
export interface HostilePair {
  hostile: Bench;
  harmless: Bench;
  /** How many fields were changed. */
  changed: number;
}

interface Schema {
  safeParse: (value: unknown) => { success: boolean; data?: unknown };
}

/** A record with its texts replaced, and its harmless twin. */
function replacedTexts(
  record: unknown,
  schema: Schema,
  skip: ReadonlySet<string>,
  next: () => [string, string[]],
) {
  let hostile = record;
  let harmless = record;
  let changed = 0;
  for (const { path, text } of texts(record)) {
    if (skip.has(text) || path.at(-1) === 'id' || DECIDES.has(String(path.at(-1))) || MOMENT.test(text))
      continue;
    const [evil, plain] = next();
    const tried = (of: unknown, to: string): unknown => {
      const copy = structuredClone(of);
      set(copy, path, to);
      const read = schema.safeParse(copy);
      return read.success && at(read.data, path) === to ? copy : undefined;
    };
    const bad = tried(hostile, evil);
    if (bad === undefined) continue;
    // A harmless text that the same field takes; one that it takes as well as a hostile one.
    const good = plain.map((p) => tried(harmless, p)).find((p) => p !== undefined);
    if (good === undefined) continue;
    [hostile, harmless] = [bad, good];
    changed += 1;
  }
  return { hostile, harmless, changed };
}

/** A harmless text that is as long as the hostile one, since something may follow from how long it is. */
const twinOf = (which: number, blank: string, length: number): string =>
  `p${which}${blank}${'plain'.repeat(Math.ceil(length / 5))}`.slice(0, length);

/** The bench with every text and every id hostile, and its twin; `turn` says with which text it begins. */
export function hostileBench(bench: Bench, turn: number): HostilePair {
  let n = turn;
  let changed = 0;
  const next = (): [string, string[]] => {
    n += 1;
    // With a blank, as most hostile texts have one: what wants a plain word refuses both. The same text has the same twin, so that
    // what follows from two of them being equal follows in both.
    const which = n % HOSTILE.length;
    const evil = HOSTILE[which] ?? '';
    return [evil, [' ', '-'].map((blank) => twinOf(which, blank, evil.length))];
  };
  const ids = idsOf(bench);
  let hostile: Record<string, unknown> = { ...bench };
  let harmless: Record<string, unknown> = { ...bench };
  const list = (of: Record<string, unknown>, name: string): unknown[] => {
    const records = of[name];
    return Array.isArray(records) ? (records as unknown[]) : [];
  };
  for (const name of theBench.names) {
    const schema = theBench.table[name]?.schema;
    if (!schema) continue;
    const both = list(bench as unknown as Record<string, unknown>, name).map((r) =>
      replacedTexts(r, schema, ids, next),
    );
    hostile[name] = both.map((b) => b.hostile);
    harmless[name] = both.map((b) => b.harmless);
    changed += both.reduce((sum, b) => sum + b.changed, 0);
  }
  const renamed = (
    of: Record<string, unknown>,
    id: string,
    to: string,
  ): Record<string, unknown> | undefined => {
    const out = { ...of };
    for (const name of theBench.names) {
      const schema = theBench.table[name]?.schema;
      if (!schema) continue;
      const sound = list(of, name).map((r) => {
        if (!JSON.stringify(r).includes(JSON.stringify(id))) return r;
        const tried = replaced(r, id, to);
        return schema.safeParse(tried).success ? tried : undefined;
      });
      if (sound.includes(undefined)) return undefined;
      out[name] = sound;
    }
    return out;
  };
  for (const id of ids) {
    const [evil, plain] = next();
    const bad = renamed(hostile, id, `${id}${evil}`.slice(0, 80));
    const good =
      bad &&
      plain
        .flatMap((p) => {
          const [blank, joined] = [`${id} ${p.slice(1)}`, `${id}-${p.slice(1)}`.replace(/ /g, '-')];
          // A word stays a word: where an id is a key of an object, a reader tells words from other keys.
          return /^[\w-]+$/.test(evil) ? [joined, blank] : [blank, joined];
        })
        .map((twin) => renamed(harmless, id, twin.slice(0, 80)))
        .find((p) => p !== undefined);
    if (!bad || !good) continue;
    [hostile, harmless] = [bad, good];
    changed += 1;
  }
  const [evil, plain] = next();
  return {
    hostile: { ...(hostile as unknown as Bench), name: `Bench ${evil}`.slice(0, 120) },
    harmless: { ...(harmless as unknown as Bench), name: plain[0] ?? '' },
    changed,
  };
}

/** A folder whose files and folders have hostile names, as far as a file system takes them. */
export const hostileFolder = (hostile: boolean): ContentEntry[] =>
  HOSTILE.map((text, i): ContentEntry => {
    const name = hostile ? text.replace(/[/\0]/g, '_').replace('\ud800', '') : `plain ${i}`;
    return {
      // Some are where they belong already, and stay there.
      path: `${['', 'Music/', `in ${i}/`][i % 3] ?? ''}${name}/${name}.flac`,
      bytes: 1000 + i,
      modified: 0,
      odd: null,
      sha256: String(i).padStart(64, '0'),
    };
  });

/** The demo bench with what it does not have by itself: a database on its way, and a disc that is started out of its file. */
export function fullBench(): Bench {
  const hall = saltmarshHall();
  const moving = (['PostgreSQL', 'MariaDB', 'SQLite', 'files'] as const).map((kind) =>
    movingSchema.parse({ id: `m ${kind}`, what: 'records', kind, counts: [{ of: 'books' }] }),
  );
  return {
    ...hall,
    boxes: hall.boxes.map((b) => (b.id === 'archive' ? { ...b, moving } : b)),
    items: [...hall.items, disc('one')],
  };
}
