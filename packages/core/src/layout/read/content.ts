import { keptParts } from '../../machine/dumped';
import type { Content } from '../../model/content';
import { readTable, type TableAsked } from './table';

/**
 * What lies on a drive by the text of a tool that prints tables (sfdisk, lsblk, parted), with what was known of parts that
 * are still there. `at` is an ISO moment. Throws TableError.
 */
export function contentFromTable(
  text: string,
  before: Content | null,
  at: string,
  asked: TableAsked,
): Content {
  const { table, tableId, sectorSize, parts } = readTable(text, asked);
  return keptParts(
    {
      table,
      tableId,
      sectorSize,
      parts: parts.map(({ start, bytes, type, name, filesystem, label, uuid, attributes }) => ({
        start,
        bytes,
        type,
        name,
        filesystem,
        label,
        uuid: null,
        partitionId: uuid,
        attributes,
        mount: null,
      })),
    },
    before,
    at,
  );
}
