import { firmwareOf } from '../boot/ladder';
import { knownFact } from '../fit/view';
import type { ImageItem, Machine } from '../schema/bench';
import { firmwareTitle, type Inspection } from './types';

/** The question or finding at the head of the verify sheet. */
export function verifyHeadline(
  machine: Machine | undefined,
  image: ImageItem | undefined,
  inspection: Inspection | undefined,
): string {
  const where = machine ? ` on ${machine.name}` : '';
  if (!inspection) return `Is this the file they published, and will it start${where}?`;
  const firmware = machine && firmwareOf(machine);
  const row = firmware && inspection.outcomes.find((o) => o.firmware === firmware && o.attached === 'disk');
  const verdict = image?.comparison?.verdict;
  const same =
    verdict === 'same'
      ? 'This is the file they published'
      : verdict === 'differs'
        ? 'This is not the file they published'
        : 'Not compared with what was published yet';
  if (verdict === 'differs') return `${same}: fetch it again`;
  if (inspection.findings.some((f) => f.grade === 'stop')) return `${same}, and the file itself is not whole`;
  if (!machine || !firmware || !row) return `${same}; how the machine starts is not known yet`;
  if (row.starts === 'no') return `${same}, but it will not start${where} (${firmwareTitle[firmware]})`;
  if (row.starts === 'unknown') return `${same}; its bytes do not tell whether it starts${where}`;
  const secure =
    knownFact(machine, 'firmware.secureBoot')?.value === 'on' && row.signed === false && firmware !== 'bios';
  return secure ? `${same}; it starts${where} once Secure Boot is off` : `${same}, and it will start${where}`;
}
