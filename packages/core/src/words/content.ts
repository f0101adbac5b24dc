import { formatDay } from '../units/date';
import { emptyContent, isBlank, type Content } from '../model/content';
import { firmwareKinds, firmwareTitle } from '../model/inspection';

const FROM: Record<Content['learnt']['from'], string> = {
  survey: 'seen by the survey',
  write: 'known from the write',
  install: 'known from the install',
  dump: 'read from a dump',
  hand: 'told by hand',
  'earlier version': 'taken over from an earlier version',
};

/** Where what lies on a drive is known from, and since when. */
export function learntWords(content: Content | null): string {
  if (content === null) return 'Nobody has looked. A survey of its machine tells, or say it here.';
  const { from, at } = content.learnt;
  return `${FROM[from]}${at === '' ? '' : `, ${formatDay(at)}`}`;
}

/** The line of the small form that says the same as a content; “as learnt” where none does. */
export function handKind(content: Content | null): string {
  if (content === null) return 'not known';
  if (isBlank(content)) return 'nothing';
  if (content.learnt.from !== 'hand') return 'as learnt';
  return content.starts?.[0]?.firmware ?? 'data';
}

/** What a person says of a drive in the small form; the parts that were seen stay. Null for “not known”. */
export function contentByHand(kind: string, before: Content | null, at: string): Content | null {
  if (kind === 'as learnt') return before;
  if (kind === 'nothing') return emptyContent('hand', at);
  const base: Content = {
    table: before?.table ?? 'unknown',
    tableId: before?.tableId ?? null,
    sectorSize: before?.sectorSize ?? null,
    parts: before?.parts ?? [],
    starts: [],
    learnt: { from: 'hand', at, imageId: null },
  };
  if (kind === 'data') return base;
  const firmware = firmwareKinds.find((f) => f === kind);
  if (!firmware) return null;
  const title = `a system, by ${firmwareTitle[firmware]}`;
  return { ...base, starts: [{ by: 'told', firmware, path: '', title }] };
}
