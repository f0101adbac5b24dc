import { laidBox } from '../layout/forBox';
import { firmwareOf } from '../machine/firmware';
import { findMachine, type Bench, type Box, type Store } from '../model/bench';
import type { Content } from '../model/content';
import { unseenContent } from '../plan/medium';
import { following } from '../units/grammar';

/** What lies on the drive after the install: the layout as it was worked out, else no more than the system's name. */
export function installedContent(bench: Bench, box: Box, drive: Store, system: string, at: string): Content {
  const { plan, sheet, drive: laid } = laidBox(bench, box);
  const seen = unseenContent(system, at);
  if (!plan || !sheet || laid?.id !== drive.id) return seen;
  const machine = findMachine(bench, box.machineId);
  const firmware = (machine && firmwareOf(machine)) ?? null;
  const { table, tableId, parts } = sheet.layout;
  const was = drive.content?.parts ?? [];
  const stays = plan.want.kept.length > 0;
  return {
    ...seen,
    table,
    tableId,
    sectorSize: plan.drive.sectorSize,
    parts: parts
      .filter((p) => p.kind !== 'extended')
      .map((p) => {
        const before = p.fate === 'new' ? undefined : was.find((w) => w.start === p.start);
        return {
          ...(before ?? {
            label: p.name,
            uuid: null,
            attributes: null,
            name: p.name,
            filesystem: p.filesystem,
          }),
          start: p.start,
          bytes: p.bytes,
          type: following('partitionType', p.type) ?? '',
          partitionId: before?.partitionId ?? null,
          mount: p.mount,
        };
      }),
    starts: [
      { by: 'told', firmware, path: '', title: system.slice(0, 300) },
      ...(stays ? (drive.content?.starts ?? []) : []),
    ],
  };
}
