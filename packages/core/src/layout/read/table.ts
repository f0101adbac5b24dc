import type { DriveThere } from '../../model/layout';
import { TableError } from './fault';
import { readLsblk } from './lsblk';
import { readParted } from './parted';
import { readSfdiskJson, readSfdiskText } from './sfdisk';

/** What is known besides the text: which drive of several, and the size of a drive that the text does not tell. */
export interface TableAsked {
  name?: string | undefined;
  bytes?: number | undefined;
}

function json(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new TableError({ code: 'not JSON' });
  }
}

/**
 * A drive's table from what a tool said of it: `sfdisk --json`, `sfdisk --dump`, `lsblk --json --bytes` or `parted -m` in
 * bytes or sectors. Throws TableError where it is none of them or not exact; never half a table.
 */
export function readTable(text: string, asked: TableAsked = {}): DriveThere {
  if (/^\s*[{[]/.test(text)) {
    const value = json(text);
    const drive = readSfdiskJson(value, asked.bytes) ?? readLsblk(value, asked.name);
    if (drive) return drive;
    throw new TableError({ code: 'nothing known' });
  }
  const drive = readParted(text);
  if (drive) return drive;
  if (/^label(-id)?:/m.test(text)) return readSfdiskText(text, asked.bytes);
  throw new TableError({ code: 'nothing known' });
}
