import { following } from '../units/grammar';
import type { ImageItem } from '../model/bench';
import type { Content } from '../model/content';
import { contentOf, firmwareTitle } from '../model/inspection';

const tableOf = (layout: string): Content['table'] =>
  layout.includes('gpt') ? 'gpt' : layout.includes('mbr') ? 'mbr' : layout === 'unknown' ? 'unknown' : 'none';

/**
 * What lies on a drive after a write: what the image holds where the write was proven, by the image's own reading; else
 * something broken, of which nothing is known.
 */
export function writtenContent(image: ImageItem | undefined, proven: boolean, at: string): Content {
  const learnt = { from: 'write' as const, at, imageId: image?.id ?? null };
  const unknown = { tableId: null, sectorSize: null };
  const reading = image?.inspection ? contentOf(image.inspection) : undefined;
  if (!proven || !reading) return { ...unknown, table: 'unknown', parts: [], starts: null, learnt };
  const certain = reading.outcomes.filter((o) => o.attached === 'disk' && o.starts === 'yes');
  const open = reading.outcomes.some((o) => o.attached === 'disk' && o.starts === 'unknown');
  return {
    ...unknown,
    table: tableOf(reading.layout),
    parts: reading.parts.slice(0, 200).map((p) => ({
      start: p.start,
      bytes: p.bytes,
      type: following('partitionType', p.type) ?? '',
      name: p.name.slice(0, 300),
      filesystem: p.filesystem,
      label: p.label,
      uuid: p.uuid,
      // An image's reading does not tell them.
      partitionId: null,
      attributes: null,
      mount: null,
    })),
    starts:
      certain.length === 0 && open
        ? null
        : certain.map((o) => ({
            by: o.firmware === 'bios' ? ('boot code' as const) : ('loader' as const),
            firmware: o.firmware,
            path: '',
            title: `${image?.name ?? 'the image'} by ${firmwareTitle[o.firmware]}`.slice(0, 300),
          })),
    learnt,
  };
}
