import { noSharing, sharingSchema } from '@zb/core/model/sharing';
import { checkSharing } from '@zb/core/storage/share/check';
import type { ShareFinding } from '@zb/core/storage/share/finding';
import { sharingOf } from '@zb/core/storage/share/forBox';
import { treeOf } from '@zb/core/storage/share/links';
import { shareForms, writeShares } from '@zb/core/storage/share/write';
import { shareFaultWords } from '@zb/core/words/sharing';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';
import { readPlan } from './planFile';

/** What `zb shares` prints: what is wrong, and the tree; or one form as text. `box`: of a bench. Throws InputError. */
export function sharesOutput(
  text: string,
  asked: { box?: string | undefined; as: string; name: string },
): object | string {
  const form = shareForms.find((f) => f === asked.as);
  if (asked.as !== 'json' && form === undefined)
    throw new InputError(`--as is json, ${shareForms.join(', ')}`);
  const found = asked.box === undefined ? undefined : of(text, asked.box);
  const sharing = found?.sharing ?? readPlan(text, sharingSchema);
  const name = found?.name ?? sharing.name ?? asked.name;
  const findings: ShareFinding[] = found?.findings ?? checkSharing(sharing, name, null);
  if (form !== undefined) {
    const out = writeShares(form, { sharing, name, findings });
    if ('text' in out) return out.text;
    const says = out.stops.map((f) => shareFaultWords(f.fault)).join(' ');
    throw new InputError(`nothing is written while a Stop stands: ${says}`);
  }
  return {
    name,
    sharing,
    tree: treeOf(sharing),
    findings: findings.map((f) => ({ ...f, says: shareFaultWords(f.fault) })),
    stops: findings.filter((f) => f.grade === 'stop').length,
  };
}

function of(text: string, id: string): ReturnType<typeof sharingOf> {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  if ((box.sharing ?? noSharing()).folders.length === 0)
    throw new InputError(`no folder of ${box.name} is shared yet`);
  return sharingOf(bench, box);
}
