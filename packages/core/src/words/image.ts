import { firmwareOf, secureBootOn } from '../machine/firmware';
import type { ImageItem, Machine } from '../model/bench';
import { startOn } from '../starting/forMachine';
import { contentOf, firmwareKinds, firmwareTitle, type Inspection } from '../model/inspection';

const PUBLISHED = {
  same: 'This is the file they published',
  differs: 'This is not the file they published',
  'other-size': 'This is not the file they published',
  'not-listed': 'Not compared with what was published yet',
};

/** What a file with a Stop finding is instead of a whole image. */
function instead(inspection: Inspection): string {
  if (inspection.bytes === 0) return 'the file is empty';
  const content = contentOf(inspection);
  if (inspection.container.kind !== 'none' && content === inspection)
    return `it is a ${inspection.container.kind} file, still packed`;
  return content.layout === 'none' ? 'nothing in it could start' : 'the file itself is not whole';
}

/** What comparison and file say, whatever machine is in view; `final` where nothing more is worth saying. */
function aboutFile(image: ImageItem | undefined, inspection: Inspection): { words: string; final: boolean } {
  const verdict = image?.comparison?.verdict ?? 'not-listed';
  const words = PUBLISHED[verdict];
  if (verdict === 'differs' || verdict === 'other-size')
    return { words: `${words}: fetch it again`, final: true };
  return contentOf(inspection).findings.some((f) => f.grade === 'stop')
    ? { words: `${words}, and ${instead(inspection)}`, final: true }
    : { words, final: false };
}

/** The kinds of firmware that start what is in this file, in words; in one way of attaching or the other. */
export const startsUnder = (inspection: Inspection): string[] =>
  firmwareKinds
    .filter((f) => contentOf(inspection).outcomes.some((o) => o.firmware === f && o.starts === 'yes'))
    .map((f) => firmwareTitle[f]);

/** The finding about an image on its own, with no machine in view. */
export function imageHeadline(image: ImageItem | undefined, inspection: Inspection | undefined): string {
  if (!inspection) return 'What is this file, and what does it start on?';
  const { words: same, final } = aboutFile(image, inspection);
  if (final) return same;
  const on = startsUnder(inspection);
  return on.length === 0
    ? `${same}; no firmware starts it for certain`
    : `${same}; it starts under ${on.join(' and ')}`;
}

/** The question or finding at the head of the verify sheet. */
export function verifyHeadline(
  machine: Machine | undefined,
  image: ImageItem | undefined,
  inspection: Inspection | undefined,
): string {
  const where = machine ? ` on ${machine.name}` : '';
  if (!inspection) return `Is this the file they published, and will it start${where}?`;
  const { words: same, final } = aboutFile(image, inspection);
  if (final) return same;
  const firmware = machine && firmwareOf(machine);
  const start = startOn(contentOf(inspection), firmware, machine && secureBootOn(machine));
  if (!machine || !firmware || !start) return `${same}; how the machine starts is not known yet`;
  if (start.refused) return `${same}; it starts${where} once Secure Boot is off`;
  if (start.starts === 'no') return `${same}, but it will not start${where} (${firmwareTitle[firmware]})`;
  if (start.secureNotKnown) return `${same}; whether Secure Boot is on${where} decides, and is not known`;
  if (start.starts === 'unknown') return `${same}; its bytes do not tell whether it starts${where}`;
  return start.trustAssumed
    ? `${same}, and it will start${where} if the firmware trusts its signature`
    : `${same}, and it will start${where}`;
}
